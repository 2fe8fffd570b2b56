<script lang="ts">
	/** What columns of a table come to over all its rows, each under its own. */
	import type { ListTotal } from '$lib/core/requests/screens.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import { isNumeric } from '../../cells/controls.ts'
	import { showCell } from '$lib/core/requests/show-cell.ts'

	type Props = {
		columns: readonly ShownColumn[]
		totals: readonly ListTotal[]
		/** How many cells of the table stand before those of its columns, and after. */
		before: number
		after: number
	}

	let { columns, totals, before, after }: Props = $props()

	const totalOf = (column: ShownColumn) => totals.find((each) => each.column.id === column.id)
</script>

<tfoot>
	<tr>
		{#if before > 0}<td colspan={before}></td>{/if}
		{#each columns as column, i (column.id)}
			{@const total = totalOf(column)}
			<td class:num={isNumeric(column)}
				>{#if total}<strong>{showCell(total.column, total.sum)}</strong>{#if total.unseen > 0}<span class="quiet">
							without {total.unseen} kept back</span
						>{/if}{:else if i === 0}All of them{/if}</td
			>
		{/each}
		{#if after > 0}<td colspan={after}></td>{/if}
	</tr>
</tfoot>

<style>
	/* As in an account: single above, double below. */
	td {
		padding: 0.4rem 0.7rem;
		border-top: 1px solid var(--pitch);
		border-bottom: 3px double var(--pitch);
	}
	td:first-child {
		padding-left: 1.2rem;
	}
	.num {
		text-align: right;
		font-variant-numeric: tabular-nums;
		white-space: nowrap;
	}
</style>
