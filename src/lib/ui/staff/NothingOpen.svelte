<script lang="ts">
	/** An app of which nothing is open to somebody yet; who is somebody in particular may ask. */
	import AskForApp from '../waiting/AskForApp.svelte'

	let { app, isAsking }: { app: number; isAsking: boolean } = $props()
</script>

<div>
	<p>Nothing in this app is open to you yet.</p>
	{#if isAsking}<AskForApp {app} screen="" />{/if}
</div>

<style>
	div {
		padding: 2rem 1.2rem;
	}
</style>
