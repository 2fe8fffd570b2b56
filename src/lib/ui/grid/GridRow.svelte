<script lang="ts">
	/** One row of the grid as it is drawn: its number and its cells. */
	import { isPicture } from '$lib/core/capture/attachment.ts'
	import { cellKey, isFileCell, type WireCell, type WireRow } from '$lib/core/query/wire.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import type { CellDraft } from '../cells/cell-draft.ts'
	import { fileAddress } from '../cells/file-address.ts'
	import { isNumeric } from '../cells/controls.ts'
	import { showCell } from '$lib/core/requests/show-cell.ts'
	import GridCell from './GridCell.svelte'
	import type { GridView } from './grid-view.svelte.ts'
	import { holds, type Block, type Selection } from './selection.ts'
	import { showFigure } from '../count.ts'

	type Props = {
		index: number
		/** Undefined while it is still on its way. */
		row: WireRow | undefined
		columns: readonly ShownColumn[]
		view: GridView
		/** Where each column begins; the first is where the row's number ends. */
		lefts: readonly number[]
		selection: Selection
		block: Block
		/** What is being typed into the cell of this row that has the focus. */
		draft: CellDraft | undefined
		invalid: boolean
		onpress: (event: MouseEvent, row: number, column: number) => void
		ondrag: (event: MouseEvent, row: number, column: number) => void
		onopen: () => void
		onchange: (draft: CellDraft, done: boolean) => void
	}

	let { index, row, columns, view, lefts, selection, block, draft, invalid, onpress, ondrag, onopen, onchange }: Props =
		$props()

	function pictureOf(column: ShownColumn, cell: WireCell | undefined): string | undefined {
		if (!row || !isFileCell(cell) || !isPicture(cell.file.type)) return undefined
		return fileAddress('', { column: column.id, row: row.id, file: cell.file })
	}
</script>

<div class="row" role="row" aria-rowindex={index + 1}>
	<span class="no" role="rowheader" style:width="{lefts[0]}px">{showFigure(index + 1)}</span>
	{#each columns as column, c (column.id)}
		{@const cell = row?.cells[cellKey(column.id)]}
		{@const here = selection.focus.row === index && selection.focus.column === c}
		{@const chosen = holds(block, index, c)}
		<div
			role="gridcell"
			tabindex="-1"
			class="cell"
			class:at={here}
			class:chosen
			class:num={isNumeric(column)}
			class:computed={column.type === 'computed'}
			class:unseen={row !== undefined && cell === undefined}
			class:in-error={typeof cell === 'object' && cell !== null && 'error' in cell}
			class:frozen={c < view.frozen}
			style:width="{view.width(column)}px"
			style:left={c < view.frozen ? `${lefts[c]}px` : undefined}
			aria-selected={chosen}
			onmousedown={(event) => onpress(event, index, c)}
			onmouseenter={(event) => ondrag(event, index, c)}
			ondblclick={onopen}
		>
			{#if here && draft}
				<GridCell {column} {cell} {draft} there={pictureOf(column, cell)} {invalid} {onchange} />
			{:else}{row === undefined ? '…' : cell === undefined ? '' : showCell(column, cell)}{/if}
		</div>
	{/each}
</div>

<style>
	.row {
		display: flex;
		height: 31px;
		contain: layout style;
	}
	.no {
		position: sticky;
		left: 0;
		z-index: 3;
		flex: none;
		background: var(--limewash);
		color: var(--zinc-5);
		font: 400 0.72rem / 31px var(--mono);
		text-align: center;
		border-right: 1px solid var(--zinc-2);
		border-bottom: 1px solid var(--zinc-2);
	}
	.cell {
		flex: none;
		box-sizing: border-box;
		height: 31px;
		padding: 0 0.6rem;
		line-height: 30px;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
		background: var(--paper);
		border-right: 1px solid var(--zinc-2);
		border-bottom: 1px solid var(--zinc-2);
		cursor: cell;
		user-select: none;
	}
	.cell.num {
		text-align: right;
		font-variant-numeric: tabular-nums;
	}
	.cell.computed {
		background: var(--chalk);
	}
	.cell.unseen {
		background: repeating-linear-gradient(135deg, var(--limewash) 0 4px, transparent 4px 8px);
	}
	.cell.in-error {
		color: var(--oxide);
		font-family: var(--mono);
		font-size: 0.82rem;
	}
	.cell.frozen {
		position: sticky;
		z-index: 2;
	}
	.cell.chosen {
		background: var(--marigold-wash);
	}
	.cell.at {
		outline: 2px solid var(--marigold);
		outline-offset: -2px;
		overflow: visible;
	}
</style>
