<script lang="ts">
	/** The shape of a mark, so that it is told without its colour: can, cone, ball, ring, tick. */
	import type { Tone } from '$lib/core/sentence/slots/all.ts'

	let { tone }: { tone: Tone } = $props()
</script>

<svg viewBox="0 0 16 16" width="16" height="16" class={tone} aria-hidden="true">
	{#if tone === 'past'}<rect x="3" y="2" width="10" height="12" />
	{:else if tone === 'look'}<path d="M8 1.5 15 14.5H1z" />
	{:else if tone === 'sound'}<circle cx="8" cy="8" r="6.5" />
	{:else if tone === 'later'}<circle class="open" cx="8" cy="8" r="5.5" />
	{:else}<path class="open" d="M2 8.5 6.5 13 14 3.5" />{/if}
</svg>

<style>
	svg {
		flex: none;
		fill: currentColor;
	}
	.open {
		fill: none;
		stroke: currentColor;
		stroke-width: 2.4;
	}
	.past {
		color: var(--oxide);
	}
	.look {
		color: var(--rope);
	}
	.sound,
	.finished {
		color: var(--bottle);
	}
	.later {
		color: var(--sea);
	}
</style>
