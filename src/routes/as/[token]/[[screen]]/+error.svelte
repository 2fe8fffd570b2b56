<script lang="ts">
	/** A screen of the draft that holds nothing for whom it is shown as. It is asked for again as the lines are written. */
	import { page } from '$app/state'
	import { onMount } from 'svelte'
	import { READ_AGAIN, tellBench } from '$lib/ui/lookout/tell-bench.ts'

	// Nothing of what was shown here before is compared any more.
	onMount(() =>
		tellBench({ tinShedSees: { screen: null, screens: [], lists: [], columns: [], offers: [] }, tinShedDraft: null })
	)

	function onmessage({ origin, data }: MessageEvent) {
		if (origin === window.location.origin && data === READ_AGAIN) window.location.reload()
	}
</script>

<svelte:window {onmessage} />
<svelte:head><title>Lookout</title></svelte:head>

<main>
	{#if page.status === 404}
		<h1>Nothing here for them yet</h1>
		<p>This screen is shown as soon as a line of it holds something that this person may see or do.</p>
	{:else}
		<h1>That did not work</h1>
		<p>{page.error?.message}</p>
	{/if}
</main>

<style>
	main {
		max-width: 36rem;
		margin: 12vh auto;
		padding: 0 1.5rem;
		display: grid;
		gap: 1rem;
	}
</style>
