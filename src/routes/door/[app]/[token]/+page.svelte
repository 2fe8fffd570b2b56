<script lang="ts">
	import { page } from '$app/state'
	import Door from '$lib/ui/frame/Door.svelte'

	let { data, form } = $props()

	// A refused form says why.
	const message = $derived((form as { message?: string } | null)?.message)
</script>

<svelte:head><title>Come in · {data.workspace}</title></svelte:head>

<Door workspace={data.workspace}>
	{#if !data.signUp}
		<h1>This link no longer works</h1>
		<p>It has been used, or its time is over.</p>
		<p><a href="/door/{page.params['app']}">Ask again at the door</a> or <a href="/sign-in">sign in</a></p>
	{:else}
		<h1>Welcome, {data.signUp.name}</h1>
		{#if data.signUp.known}
			<p>
				<strong>{data.signUp.email}</strong> has a password here already: sign in with it, and {data.signUp.appName} is open
				to you.
			</p>
		{:else}
			<p>You sign in with <strong>{data.signUp.email}</strong> and the password that you choose here.</p>
		{/if}
		<form method="POST">
			{#if !data.signUp.known}
				<input type="hidden" autocomplete="username" value={data.signUp.email} />
				<label for="password">A password</label>
				<input class="field" id="password" name="password" type="password" autocomplete="new-password" required />
				<p class="quiet">Ten characters or more. Three or four words that do not belong together do well.</p>
			{/if}
			{#if message}<p class="says-wrong" role="alert">{message}</p>{/if}
			<button class="btn main">Come into {data.signUp.appName}</button>
		</form>
	{/if}
</Door>
