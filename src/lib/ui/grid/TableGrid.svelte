<script lang="ts">
	/** A table in a grid, however long: what is done in it is `grid-work`, which rows are in sight `grid-scroll`. */
	import { invalidateAll } from '$app/navigation'
	import { onMount, untrack } from 'svelte'
	import type { Filter } from '$lib/core/query/filter.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import { onTablesChanged } from '../follow.ts'
	import FindBar from './FindBar.svelte'
	import { GridEdits } from './grid-edits.svelte.ts'
	import GridArea from './GridArea.svelte'
	import GridCards from './GridCards.svelte'
	import type { GridCard } from './grid-card.ts'
	import GridChips from './GridChips.svelte'
	import GridFoot from './GridFoot.svelte'
	import GridNotices from './GridNotices.svelte'
	import GridTools from './GridTools.svelte'
	import { GridRows } from './grid-rows.svelte.ts'
	import { GridScroll } from './grid-scroll.svelte.ts'
	import { GridView } from './grid-view.svelte.ts'
	import { GridWork } from './grid-work.svelte.ts'
	import { at } from './selection.ts'
	import { showFigure } from '../count.ts'

	type Props = { table: BenchTable; tables: readonly BenchTable[]; past: string; onremoved: () => void }

	let { table, tables, past, onremoved }: Props = $props()

	const { id: tableId, label } = untrack(() => table)
	const rows = new GridRows(tableId)
	const view = new GridView(tableId, label)
	const edits = new GridEdits(tableId)

	let card = $state.raw<GridCard | undefined>()
	let finding = $state(false)

	const columns = $derived(view.shown(table.columns))
	const lefts = $derived(view.lefts(columns, Math.max(56, showFigure(rows.count).length * 8 + 16)))
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
		const { first, visible } = scroll
		untrack(() => void rows.want(Math.max(0, first - 50), first + visible + 50))
	})

	/** From wherever it is set: the card that set it has done its work. */
	function setFilter(column: number, filter: Filter | undefined) {
		card = undefined
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
	<GridTools
		{...{ table, work, view }}
		onfind={() => (finding = !finding)}
		onrules={() => openCard({ kind: 'table' })}
	/>
	{#if finding}
		<FindBar
			column={work.replacedIn}
			found={rows.slow || rows.stopped ? undefined : rows.count}
			onfind={(text) => setFilter(0, text.trim() === '' ? undefined : { column: 0, is: 'contains', text })}
			onreplace={(text, by) => work.replace(text, by)}
			onclose={stopFinding}
		/>
	{/if}
	<GridChips columns={table.columns} {view} onfilter={setFilter} onshown={() => scroll.focus()} />
	<GridNotices {table} {work} />
	<GridArea
		{...{ table, tables, work, view, lefts }}
		onfind={() => (finding = true)}
		onfilter={setFilter}
		oncard={openCard}
	/>
	<GridFoot {work} {past} />
	{#if card}
		<GridCards
			{card}
			{table}
			{tables}
			listing={{ sorts: [], filters: view.filters }}
			onopen={(next) => (card = next)}
			onfilter={setFilter}
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
</style>
