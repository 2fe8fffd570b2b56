<script lang="ts">
	/** An app or a screen that is not there, or not for whoever came by its link: which of them it is, is not said. */
	import { page } from '$app/state'
	import AskForApp from '$lib/ui/waiting/AskForApp.svelte'

	const isShut = $derived(page.status === 404 || page.status === 403)
</script>

<svelte:head><title>{isShut ? 'Not open to you' : 'That did not work'}</title></svelte:head>

<main>
	<h1>{isShut ? 'Not here, or not open to you' : 'That did not work'}</h1>
	<p>{page.error?.message}</p>
	{#if isShut}<AskForApp app={Number(page.params.app)} screen={page.params.screen ?? ''} />{/if}
	<p><a class="btn" href="/">Go to all apps</a></p>
</main>

<style>
	main {
		max-width: 36rem;
		margin: 10vh auto;
		padding: 0 1.5rem;
		display: grid;
		gap: 1rem;
	}
</style>
