<script lang="ts">
	import Door from '$lib/ui/frame/Door.svelte'

	let { data, form } = $props()
</script>

<svelte:head><title>A new password · {data.workspace}</title></svelte:head>

<Door workspace={data.workspace}>
	<h1>A new password</h1>
	{#if form?.sent}
		<p role="status">
			If this address belongs to somebody here, a link is on its way to it. It works once, for two hours.
		</p>
		<p><a href="/sign-in">Back to signing in</a></p>
	{:else}
		<form method="POST">
			<label for="email">Your email</label>
			<input class="field" id="email" name="email" type="email" autocomplete="username" required />
			{#if form?.message}<p class="says-wrong" role="alert">{form.message}</p>{/if}
			<button class="btn main">Send me a link</button>
		</form>
		<p><a href="/sign-in">Back to signing in</a></p>
	{/if}
</Door>
