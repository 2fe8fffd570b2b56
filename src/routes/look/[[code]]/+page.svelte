<script lang="ts">
	/** Where a device that shall follow a Lookout arrives, by a code from the desk. */
	import Door from '$lib/ui/frame/Door.svelte'

	let { data, form } = $props()
</script>

<svelte:head><title>Follow a Lookout · {data.workspace}</title></svelte:head>

<Door workspace={data.workspace}>
	<h1>Follow a Lookout here</h1>
	<p>
		This device then shows the app that a builder works on at their desk, on a copy of the data, and follows each
		change. Nobody is signed in on it.
	</p>
	<form method="POST">
		<label for="code">The code at the desk</label>
		<input
			class="field"
			id="code"
			name="code"
			value={form?.code ?? data.code}
			autocomplete="off"
			autocapitalize="characters"
			spellcheck="false"
			required
		/>
		{#if form?.message}<p class="says-wrong" role="alert">{form.message}</p>{/if}
		<button class="btn main">Follow it on this device</button>
	</form>
</Door>
