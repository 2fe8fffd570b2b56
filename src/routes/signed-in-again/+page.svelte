<script lang="ts">
	/** Where a window ends in which somebody signed in again for a page that waits: the page has heard of it by then. */
	import { onMount } from 'svelte'

	// By then the page that waits has heard who this is.
	onMount(() => void setTimeout(() => window.close(), 300))
</script>

<svelte:head><title>Signed in again</title></svelte:head>

<main>
	<h1>You are signed in again</h1>
	<p>Go on in the page that you came from; this one can be closed.</p>
	<p><a href="/">Or go to all apps</a></p>
</main>

<style>
	main {
		max-width: 30rem;
		margin: 12vh auto;
		padding: 0 1.5rem;
		display: grid;
		gap: 0.8rem;
	}
</style>
