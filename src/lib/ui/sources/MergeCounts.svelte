<script lang="ts">
	/** How many rows a file would add, change, leave as they are and take out. */
	import type { Comparison } from '$lib/core/exchange/comparison.ts'
	import type { MergeInto } from '$lib/core/exchange/plan.ts'
	import { showFigure } from '../count.ts'

	type Props = { comparison: Comparison; how: MergeInto['how'] }

	let { comparison, how }: Props = $props()

	const shown = (count: number) => showFigure(count)
	const leftOut = $derived(comparison.repeated + comparison.keyless)
</script>

<dl>
	<div>
		<dt>new {comparison.added === 1 ? 'row' : 'rows'}</dt>
		<dd>{shown(comparison.added)}</dd>
	</div>
	{#if how !== 'add'}
		<div>
			<dt>{comparison.changed === 1 ? 'row that changes' : 'rows that change'}</dt>
			<dd>{shown(comparison.changed)}</dd>
		</div>
		<div>
			<dt>the same as now</dt>
			<dd>{shown(comparison.same)}</dd>
		</div>
		<div class:goes={how === 'replace' && comparison.missing > 0}>
			<dt>
				not in the file: {how === 'replace'
					? 'taken out'
					: comparison.missing === 1
						? 'stays as it is'
						: 'stay as they are'}
			</dt>
			<dd>{shown(comparison.missing)}</dd>
		</div>
		{#if leftOut > 0}<div class="goes">
				<dt>{leftOut === 1 ? 'row' : 'rows'} of the file left out</dt>
				<dd>{shown(leftOut)}</dd>
			</div>{/if}
	{/if}
</dl>

<style>
	dl {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem;
		margin: 0;
	}
	dl div {
		display: grid;
		border: 1px solid var(--zinc-3);
		border-top: 4px solid var(--zinc-5);
		border-radius: 3px;
		padding: 0.5rem 0.9rem;
		background: var(--paper);
	}
	dl .goes {
		border-top-color: var(--rope);
	}
	dt {
		order: 2;
		color: var(--zinc-7);
		font-size: 0.85rem;
	}
	dd {
		margin: 0;
		font: 700 1.5rem var(--head);
		font-variant-numeric: tabular-nums;
	}
</style>
