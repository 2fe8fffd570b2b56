<script lang="ts">
	/** The headings of a grid, each with its menu, and the way to a new column. */
	import type { Filter } from '$lib/core/query/filter.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import ColumnMenu from './ColumnMenu.svelte'
	import type { GridCard } from './grid-card.ts'
	import type { GridView } from './grid-view.svelte.ts'
	import type { GridWork } from './grid-work.svelte.ts'
	import GridHeader from './GridHeader.svelte'

	type Props = {
		table: BenchTable
		tables: readonly BenchTable[]
		work: GridWork
		view: GridView
		/** Where each column begins, and where the last one ends. */
		lefts: readonly number[]
		width: number
		onfilter: (column: number, filter: Filter | undefined) => void
		oncard: (card: GridCard) => void
	}

	let { table, tables, work, view, lefts, width, onfilter, oncard }: Props = $props()

	let menu = $state<number | undefined>()

	function close() {
		menu = undefined
		work.scroll.focus()
	}

	function open(card: GridCard) {
		menu = undefined
		oncard(card)
	}
</script>

<div class="head" role="row" style:width="{width}px">
	<span class="corner" style:width="{lefts[0]}px"></span>
	{#each work.columns as column, c (column.id)}
		<GridHeader
			{column}
			{view}
			isKey={column.id === table.label}
			target={tables.find((each) => each.id === column.to)?.name}
			left={c < view.frozen ? lefts[c] : undefined}
			open={menu === column.id}
			onmenu={() => (menu = menu === column.id ? undefined : column.id)}
		>
			<ColumnMenu
				{column}
				{view}
				place={c}
				onclose={close}
				onfilter={(filter) => onfilter(column.id, filter)}
				onsort={(descending, further) => {
					view.sortBy(column.id, descending, further)
					close()
				}}
				onopen={() => open({ kind: 'column', column: column.id })}
				oncount={() => open({ kind: 'values', column: column.id })}
			/>
		</GridHeader>
	{/each}
	{#if table.owned}<span role="columnheader" class="plus"
			><button class="name" onclick={() => open({ kind: 'new column' })}>+ Column</button></span
		>{/if}
</div>

<style>
	.head {
		position: sticky;
		top: 0;
		z-index: 5;
		display: flex;
		background: var(--paper);
		border-bottom: 1px solid var(--pitch);
	}
	.corner {
		position: sticky;
		left: 0;
		z-index: 3;
		flex: none;
		background: var(--limewash);
		border-right: 1px solid var(--zinc-2);
	}
	.plus {
		padding: 0.35rem 0.6rem;
		white-space: nowrap;
	}
	.name {
		border: 0;
		background: none;
		padding: 0;
		color: var(--pitch);
		font: 650 0.85rem var(--head);
		font-stretch: 90%;
	}
</style>
