<script lang="ts">
	/**
	 * A table in a grid, however long: rows are drawn as they come into sight. What is done in it is `grid-work`; keys and
	 * pointer are `grid-keys`; which rows are in sight is `grid-scroll`.
	 */
	import { invalidateAll } from '$app/navigation'
	import { onMount, untrack } from 'svelte'
	import type { Filter } from '$lib/core/query/filter.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import { eventsOf } from '../follow.ts'
	import ColumnMenu from './ColumnMenu.svelte'
	import FindBar from './FindBar.svelte'
	import { GridEdits } from './grid-edits.svelte.ts'
	import GridCards from './GridCards.svelte'
	import type { GridCard } from './grid-card.ts'
	import GridChips from './GridChips.svelte'
	import GridFoot from './GridFoot.svelte'
	import GridHeader from './GridHeader.svelte'
	import GridNotices from './GridNotices.svelte'
	import GridRow from './GridRow.svelte'
	import GridTools from './GridTools.svelte'
	import { copyCells, dragOver, pasteCells, pressCell, pressKey } from './grid-keys.ts'
	import { GridRows } from './grid-rows.svelte.ts'
	import { GridScroll } from './grid-scroll.svelte.ts'
	import { GridView } from './grid-view.svelte.ts'
	import { GridWork } from './grid-work.svelte.ts'
	import { at } from './selection.ts'

	type Props = { table: BenchTable; tables: readonly BenchTable[]; onremoved: () => void }

	let { table, tables, onremoved }: Props = $props()

	const { id: tableId, label } = untrack(() => table)
	const rows = new GridRows(tableId)
	const view = new GridView(tableId, label)
	const edits = new GridEdits(tableId)

	let card = $state.raw<GridCard | undefined>()
	let menu = $state<number | undefined>()
	let finding = $state(false)

	const columns = $derived(view.shown(table.columns))
	const rowHeader = $derived(Math.max(56, rows.count.toLocaleString('en-GB').length * 8 + 16))
	const lefts = $derived(
		columns.reduce<number[]>((all, column) => [...all, (all.at(-1) ?? rowHeader) + view.width(column)], [rowHeader])
	)
	const width = $derived((lefts.at(-1) ?? rowHeader) + (table.kept ? 90 : 0))
	const scroll = new GridScroll(
		() => rows.count,
		() => ({ frozen: view.frozen, lefts })
	)
	const work = new GridWork({ table: () => table, columns: () => columns, rows, edits, scroll })

	onMount(() => {
		const source = eventsOf([tableId])
		let timer: ReturnType<typeof setTimeout> | undefined
		// Other people's changes of what is shown.
		source.addEventListener('changed', () => {
			clearTimeout(timer)
			timer = setTimeout(() => {
				if (!work.editing) void work.reload()
			}, 200)
		})
		return () => {
			clearTimeout(timer)
			source.close()
		}
	})

	// The rows again when the order, the filters or the table's own columns have changed.
	$effect(() => {
		const listing = { sorts: view.sorts, filters: view.filters }
		void table.columns
		untrack(() => {
			scroll.to(0)
			void rows.open(listing)
		})
	})

	$effect(() => {
		const [from, to] = [scroll.first, scroll.first + scroll.visible]
		untrack(() => void rows.want(Math.max(0, from - 50), to + 50))
	})

	function onkeydown(event: KeyboardEvent) {
		if (!work.editing && (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'f') {
			event.preventDefault()
			event.stopPropagation()
			finding = true
		} else void pressKey(work, event)
	}

	function setFilter(column: number, filter: Filter | undefined) {
		view.setFilter(column, filter)
		work.selection = at(0, 0)
		if (column > 0) scroll.focus()
	}

	function closeMenu() {
		menu = undefined
		scroll.focus()
	}

	function openCard(next: GridCard) {
		menu = undefined
		card = next.kind === card?.kind && !('column' in next) ? undefined : next
	}

	function structureMade(version: number) {
		card = undefined
		edits.structureChanged(`the change of ${table.name}`, version)
		void invalidateAll()
	}
</script>

<div class="work">
	<GridTools {table} {work} {view} onfind={() => (finding = !finding)} onrules={() => openCard({ kind: 'table' })} />
	{#if finding}
		<FindBar
			column={work.focusColumn && work.focusColumn.type !== 'computed' ? work.focusColumn.name : undefined}
			found={rows.slow || rows.stopped ? undefined : rows.count}
			onfind={(text) => setFilter(0, text.trim() === '' ? undefined : { column: 0, is: 'contains', text })}
			onreplace={(text, by) => work.replace(text, by)}
			onclose={() => {
				finding = false
				setFilter(0, undefined)
				scroll.focus()
			}}
		/>
	{/if}
	<GridChips columns={table.columns} {view} onfilter={setFilter} onshown={() => scroll.focus()} />
	<GridNotices {table} {work} />
	<!-- The grid is one stop for Tab; inside it the arrow keys move, as the ARIA grid pattern has it. -->
	<div
		class="scroll"
		bind:this={scroll.box}
		bind:clientHeight={scroll.height}
		onscroll={scroll.onscroll}
		onwheel={scroll.onwheel}
		{onkeydown}
		oncopy={(event) => copyCells(work, event)}
		oncut={(event) => copyCells(work, event)}
		onpaste={(event) => pasteCells(work, event)}
		tabindex="0"
		role="grid"
		aria-label={table.name}
		aria-multiselectable="true"
		aria-rowcount={rows.count}
		aria-colcount={columns.length}
	>
		<div class="head" role="row" style:width="{width}px">
			<span class="corner" style:width="{rowHeader}px"></span>
			{#each columns as column, c (column.id)}
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
						onclose={closeMenu}
						onfilter={(filter) => setFilter(column.id, filter)}
						onsort={(descending, further) => {
							view.sortBy(column.id, descending, further)
							closeMenu()
						}}
						onopen={() => openCard({ kind: 'column', column: column.id })}
						oncount={() => openCard({ kind: 'values', column: column.id })}
					/>
				</GridHeader>
			{/each}
			{#if table.kept}<span role="columnheader" class="plus"
					><button class="name" onclick={() => openCard({ kind: 'new column' })}>+ Column</button></span
				>{/if}
		</div>
		<div class="body" style:height="{scroll.pixels}px" style:width="{width}px">
			<div class="window" style:transform="translateY({scroll.offset}px)">
				{#each scroll.slots as r (r % (scroll.visible + 2))}
					<GridRow
						index={r}
						row={rows.at(r)}
						{columns}
						{view}
						{lefts}
						selection={work.selection}
						block={work.block}
						draft={work.selection.focus.row === r ? work.editing : undefined}
						invalid={work.wrong !== ''}
						onpress={(event, row, column) => pressCell(work, event, { row, column })}
						ondrag={(event, row, column) => dragOver(work, event, { row, column })}
						onopen={() => work.startEdit()}
						onchange={(draft, done) => {
							work.editing = draft
							if (done) void work.commit()
						}}
					/>
				{/each}
			</div>
		</div>
		{#if rows.count === 0 && !rows.fresh && !rows.slow}<p class="none">
				{view.filters.length > 0
					? 'No row fits the filter. Take it off to see them all.'
					: 'There are no rows yet. Add one, paste some here, or bring a file in at Sources.'}
			</p>{/if}
	</div>
	<GridFoot {work} />
	{#if card}
		<GridCards
			{card}
			{table}
			{tables}
			listing={{ sorts: [], filters: view.filters }}
			onopen={(next) => (card = next)}
			onfilter={(column, filter) => {
				card = undefined
				setFilter(column, filter)
			}}
			onmade={structureMade}
			{onremoved}
		/>
	{/if}
</div>

<style>
	.work {
		position: relative;
		display: flex;
		flex-direction: column;
		min-height: 0;
		height: calc(100dvh - 92px);
	}
	/* The cell that keys go to shows the focus. */
	.scroll:focus-visible {
		outline: none;
	}
	.scroll:focus-visible :global(.cell.at) {
		outline-width: 3px;
		outline-offset: -3px;
	}
	.scroll {
		flex: 1;
		min-height: 0;
		overflow: auto;
		position: relative;
		border-top: 1px solid var(--zinc-3);
		overflow-anchor: none;
	}
	.head {
		position: sticky;
		top: 0;
		z-index: 5;
		display: flex;
		background: var(--paper);
		border-bottom: 1px solid var(--pitch);
	}
	.body {
		position: relative;
	}
	.window {
		position: absolute;
		top: 0;
		left: 0;
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
	.none {
		position: sticky;
		left: 0;
		width: fit-content;
		padding: 1rem 1.2rem;
	}
</style>
