<script lang="ts">
	/** Under a grid: what the chosen cells come to, or how to begin. */
	import { showFigure } from '../count.ts'
	import type { GridWork } from './grid-work.svelte.ts'

	/** `past`: the address of the table as it was. */
	type Props = { work: GridWork; past: string }

	let { work, past }: Props = $props()

	const { totals, block } = $derived(work)
	const number = (value: number) => showFigure(Number(value.toFixed(4)))
</script>

<footer aria-live="polite">
	{#if totals}
		<span>{number(totals.filled)} filled</span>
		{#if totals.sum !== undefined}<span>sum {number(totals.sum)}</span><span>mean {number(totals.mean ?? 0)}</span>{/if}
		{#if block.bottom > block.top}<button class="btn plain" onclick={() => work.fillDown()} title="Ctrl D"
				>Fill down</button
			>{/if}
	{:else}
		<span class="quiet"
			>Enter changes a cell · Shift and arrows choose a block · Ctrl C and Ctrl V copy to and from a spreadsheet</span
		>
	{/if}
	{#if work.edits.busy}<span>Putting in…</span>{/if}
	<a class="past" href={past}>As it was on a past day</a>
</footer>

<style>
	footer {
		display: flex;
		align-items: center;
		gap: 1.2rem;
		min-height: 34px;
		padding: 0 1.2rem;
		border-top: 1px solid var(--zinc-3);
		font-variant-numeric: tabular-nums;
	}
	.past {
		margin-left: auto;
	}
</style>
