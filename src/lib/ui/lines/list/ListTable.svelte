<script lang="ts">
	/** The rows of a list as a table: ordered by a press on a heading, wide where there is room, under one scroll bar. */
	import { cellKey, type WireRow } from '$lib/core/query/wire.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import { isNumeric } from '../../cells/controls.ts'
	import { showCell } from '$lib/core/requests/show-cell.ts'
	import { page } from '$app/state'
	import { addressOf } from './row-address.ts'
	import { useShownNow } from '../shown-now.svelte.ts'
	import Changed from './Changed.svelte'
	import Mark from './Mark.svelte'
	import RowTick from './RowTick.svelte'
	import OrderHead from './OrderHead.svelte'
	import TableFoot from './TableFoot.svelte'
	import type { RowsProps } from './rows-props.ts'
	import RowActions from './RowActions.svelte'
	import { showFigure } from '../../count.ts'

	let { line, rows, groups, path, base, from, selected, several, changed, onchoose }: RowsProps = $props()

	const now = useShownNow()
	const columns = $derived(line.columns.filter((column) => column.id !== line.groups?.column.id))
	const hasBox = $derived(several.isOn || line.ticks !== null)
	const width = $derived(
		columns.length + (line.marks.length > 0 ? 1 : 0) + (line.actions.length > 0 ? 1 : 0) + (hasBox ? 1 : 0)
	)
	const markOf = (row: WireRow) => line.marks[row.flags?.[0] ?? -1]
	const widthOf = ({ id }: ShownColumn) =>
		line.wide.includes(id) ? 'wide' : line.narrow.includes(id) ? 'narrow' : undefined
	const isWords = ({ id, type }: ShownColumn) =>
		['text', 'long text', 'reference'].includes(type) && !line.narrow.includes(id)
	const textOf = (row: WireRow, i: number) => {
		const column = columns[i]
		return column ? showCell(column, row.cells[cellKey(column.id)]) : ''
	}
</script>

<div class="scroll">
	<table class="ruled">
		<thead>
			<tr>
				{#if hasBox}<th>{several.isOn ? 'Chosen' : line.ticks?.name}</th>{/if}
				{#if line.marks.length > 0}<th><span class="visually-hidden">Mark</span></th>{/if}
				{#each columns as column (column.id)}
					<OrderHead {column} {rows} line={line.id} width={widthOf(column)} />
				{/each}
				{#if line.actions.length > 0}<th><span class="visually-hidden">What can be done</span></th>{/if}
			</tr>
		</thead>
		{#each groups as group, g (g)}
			<tbody>
				{#if group.name !== ''}
					<tr class="group">
						<th colspan={width} scope="rowgroup"
							>{[group.name, ...(group.count === undefined ? [] : [showFigure(group.count)]), ...group.sums].join(
								' · '
							)}</th
						>
					</tr>
				{/if}
				{#each group.rows as row (row.id)}
					{@const mark = markOf(row)}
					{@const address = several.isOn ? undefined : addressOf(line, row.id, { url: page.url, base, from })}
					<tr
						class:on={row.id === selected || several.has(row.id)}
						onpointerdown={() => changed?.includes(row.id) && now.looked(line.id, row.id)}
					>
						{#if several.isOn}<td
								><label class="choose"
									><input
										type="checkbox"
										checked={several.has(row.id)}
										onclick={(event) => onchoose(event, row.id)}
									/><span class="visually-hidden">Choose {textOf(row, 0)}</span></label
								></td
							>{:else if line.ticks}<td><RowTick {line} column={line.ticks} {row} name={textOf(row, 0)} {path} /></td
							>{/if}
						{#if line.marks.length > 0}<td class="mark"
								>{#if mark}<span><Mark tone={mark.tone} /> {mark.word}</span>{/if}</td
							>{/if}
						{#each columns as column, i (column.id)}
							<td class={widthOf(column)} class:num={isNumeric(column)} class:words={isWords(column)}>
								{#if i === 0 && address}
									<a href={address} data-sveltekit-noscroll aria-current={row.id === selected ? 'true' : undefined}
										><strong>{textOf(row, i) || '(blank)'}</strong></a
									>
								{:else if i === 0}<strong>{textOf(row, i)}</strong>{:else}{textOf(row, i)}{/if}
								{#if i === 0 && changed?.includes(row.id)}<Changed />{/if}
							</td>
						{/each}
						{#if line.actions.length > 0}
							<td><RowActions actions={line.actions} row={row.id} name={textOf(row, 0)} {path} {base} {from} /></td>
						{/if}
					</tr>
				{/each}
			</tbody>
		{/each}
		{#if line.totals.length > 0}
			<TableFoot
				{columns}
				totals={line.totals}
				before={(hasBox ? 1 : 0) + (line.marks.length > 0 ? 1 : 0)}
				after={line.actions.length > 0 ? 1 : 0}
			/>
		{/if}
	</table>
</div>

<style>
	.scroll {
		overflow-x: auto;
	}
	table {
		width: 100%;
	}
	td,
	th {
		vertical-align: middle;
		padding: 0.2rem 0.7rem;
	}
	td:first-child,
	th:first-child {
		padding-left: 1.2rem;
	}
	td a {
		display: inline-block;
		min-height: 44px;
		line-height: 44px;
		white-space: nowrap;
		color: inherit;
	}
	.narrow {
		white-space: nowrap;
	}
	/* Words are read in lines; where these have no room, the table is moved sideways. */
	.words {
		min-width: 9rem;
	}
	.num {
		text-align: right;
		font-variant-numeric: tabular-nums;
		white-space: nowrap;
	}
	.choose {
		display: grid;
		place-items: center;
		min-height: 44px;
	}
	.mark span {
		display: flex;
		align-items: center;
		gap: 0.4rem;
		white-space: nowrap;
	}
	.group th {
		background: var(--limewash);
		text-align: left;
		font: 650 0.95rem var(--head);
	}
	tr.on {
		background: var(--selected);
		box-shadow: inset 4px 0 0 var(--marigold);
	}
</style>
