<script lang="ts">
	/**
	 * A table in a grid, however long: rows are drawn as they come into sight. What is done in it is `grid-work`; keys and
	 * pointer are `grid-keys`; which rows are in sight is `grid-scroll`.
	 */
	import { invalidateAll } from '$app/navigation'
	import { onMount, untrack } from 'svelte'
	import type { Filter } from '$lib/core/query/filter.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import { onTablesChanged } from '../follow.ts'
	import FindBar from './FindBar.svelte'
	import { GridEdits } from './grid-edits.svelte.ts'
	import GridBody from './GridBody.svelte'
	import GridCards from './GridCards.svelte'
	import type { GridCard } from './grid-card.ts'
	import GridChips from './GridChips.svelte'
	import GridFoot from './GridFoot.svelte'
	import GridHead from './GridHead.svelte'
	import GridNotices from './GridNotices.svelte'
	import GridTools from './GridTools.svelte'
	import { copyCells, pasteCells, pressKey } from './grid-keys.ts'
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
	let finding = $state(false)

	const columns = $derived(view.shown(table.columns))
	const lefts = $derived(view.lefts(columns, Math.max(56, rows.count.toLocaleString('en-GB').length * 8 + 16)))
	const width = $derived((lefts.at(-1) ?? 0) + (table.owned ? 90 : 0))
	const scroll = new GridScroll(
		() => rows.count,
		() => ({ frozen: view.frozen, lefts })
	)
	const work = new GridWork({ table: () => table, columns: () => columns, rows, edits, scroll })

	// Other people's changes of what is shown.
	onMount(() => onTablesChanged([tableId], () => void (work.editing ? undefined : work.reload()), 200))

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

	function stopFinding() {
		finding = false
		setFilter(0, undefined)
		scroll.focus()
	}

	function openCard(next: GridCard) {
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
			onclose={stopFinding}
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
		<GridHead {table} {tables} {work} {view} {lefts} {width} onfilter={setFilter} oncard={openCard} />
		<GridBody {work} {view} {lefts} {width} />
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
	.none {
		position: sticky;
		left: 0;
		width: fit-content;
		padding: 1rem 1.2rem;
	}
</style>
