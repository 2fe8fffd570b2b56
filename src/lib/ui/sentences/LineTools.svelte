<script lang="ts">
	/** What may be done with a whole line, at its end. */
	import type { Direction } from '$lib/core/app/lines/tree.ts'
	import type { Way } from './line-ways.ts'

	type Props = {
		number: number | string
		ways: readonly Way[]
		onmove: ((to: Direction) => void) | undefined
		onremove: (() => void) | undefined
	}

	let { number, ways, onmove, onremove }: Props = $props()
</script>

<div class="tools">
	{#each ways as { to, sign } (to)}
		<button onclick={() => onmove?.(to)} aria-label="Move line {number} {to}" title="Move {to} (Alt {sign})"
			>{sign}</button
		>
	{/each}
	{#if onremove}<button onclick={onremove} aria-label="Remove line {number}" title="Remove">✕</button>{/if}
</div>

<style>
	.tools {
		display: flex;
		align-items: flex-start;
		padding: 0.6rem 0.5rem 0 0;
		opacity: 0.45;
	}
	.tools button {
		border: 0;
		background: none;
		color: var(--zinc-7);
		min-width: 26px;
		min-height: 26px;
		font-size: 0.9rem;
	}
	.tools button:hover {
		color: var(--pitch);
		background: var(--limewash);
	}
</style>
