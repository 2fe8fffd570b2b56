<script lang="ts">
	/** What stands over an app in the Lookout: as whom it is shown, and what is played; it talks with the Bench round it. */
	import { beforeNavigate, invalidateAll } from '$app/navigation'
	import type { ShownScreen } from '$lib/core/requests/screens.ts'
	import { cutSignal } from '../signal.ts'
	import { sightsOf } from './sights.ts'
	import { NO_SIGNAL, READ_AGAIN, SIGNAL, tellBench } from './tell-bench.ts'

	type Props = { as: string; onCopy: boolean; main: ShownScreen; onsay: (text: string) => void }

	let { as, onCopy, main, onsay }: Props = $props()

	let isCut = $state(false)

	// The Bench round a frame compares what two people get.
	$effect(() => tellBench({ tinShedSees: sightsOf(main), tinShedDraft: main.app.draft }))

	// What is played ends with the page.
	$effect(() => () => cutSignal(false))

	function onmessage({ origin, data }: MessageEvent) {
		if (origin !== window.location.origin) return
		if (data === READ_AGAIN && !isCut) void invalidateAll()
		if (data !== NO_SIGNAL && data !== SIGNAL) return
		isCut = data === NO_SIGNAL
		cutSignal(isCut)
		if (!isCut) void invalidateAll()
	}

	beforeNavigate(({ cancel, to }) => {
		if (!isCut || !to || to.url.pathname === location.pathname) return
		cancel()
		onsay('No signal is played here: another screen is not opened until there is one again.')
	})
</script>

<svelte:window {onmessage} />

<aside class="looking" class:cut={isCut} aria-label="Lookout">
	Lookout: as {as} sees it{onCopy
		? ', on a copy of the data. Nothing leaves it.'
		: '. What you do here is done on a copy of the data.'}
	{#if isCut}<strong>No signal is played: nothing is sent.</strong>{/if}
</aside>

<style>
	.looking {
		background: var(--marigold);
		color: #16201b;
		padding: 0.3rem 1rem;
		font-size: 0.88rem;
	}
	.cut {
		background-image: repeating-linear-gradient(45deg, transparent 0 8px, rgb(22 32 27 / 12%) 8px 16px);
	}
</style>
