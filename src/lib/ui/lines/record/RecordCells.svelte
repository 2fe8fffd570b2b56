<script lang="ts">
	/** Cells of a row, each beside its name, those that it has. */
	import { cellKey, isErrorCell, isHiddenCell, type WireRow } from '$lib/core/query/wire.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import Changed from '../list/Changed.svelte'
	import CellValue from '../../cells/CellValue.svelte'

	type Props = {
		columns: readonly ShownColumn[]
		row: WireRow
		base: string
		/** In two columns, where there is room. */
		isWide: boolean
		/** The keys of cells that others have changed since they were looked at. */
		changed: readonly string[] | undefined
	}

	let { columns, row, base, isWide, changed }: Props = $props()
</script>

<dl class:wide={isWide}>
	{#each columns as column (column.id)}
		{@const cell = row.cells[cellKey(column.id)]}
		{#if cell !== undefined}
			<div>
				<dt>{column.name}</dt>
				<dd class:quiet={cell === null || isHiddenCell(cell)} class:says-wrong={isErrorCell(cell)}>
					<CellValue {column} {cell} row={row.id} {base} />
					{#if changed?.includes(cellKey(column.id))}<Changed />{/if}
				</dd>
			</div>
		{/if}
	{/each}
</dl>

<style>
	dl {
		margin: 0;
	}
	div {
		display: grid;
		grid-template-columns: minmax(7rem, 11rem) 1fr;
		border-bottom: 1px solid var(--zinc-2);
		break-inside: avoid;
	}
	dt,
	dd {
		margin: 0;
		padding: 0.5rem 0;
	}
	dt {
		color: var(--zinc-7);
	}
	dd {
		font-weight: 600;
		white-space: pre-line;
		overflow-wrap: anywhere;
	}
	dd.quiet {
		font-weight: 400;
	}
	.wide {
		columns: 24rem 2;
		column-gap: 2.4rem;
	}
</style>
