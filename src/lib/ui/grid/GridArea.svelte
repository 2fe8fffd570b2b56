<script lang="ts">
	/** The grid itself: headings and rows under one scroll bar. Keys and pointer are `grid-keys`. */
	import type { Filter } from '$lib/core/query/filter.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import GridBody from './GridBody.svelte'
	import type { GridCard } from './grid-card.ts'
	import GridHead from './GridHead.svelte'
	import { copyCells, pasteCells, pressKey } from './grid-keys.ts'
	import type { GridView } from './grid-view.svelte.ts'
	import type { GridWork } from './grid-work.svelte.ts'

	type Props = {
		table: BenchTable
		tables: readonly BenchTable[]
		work: GridWork
		view: GridView
		/** Where each shown column begins, in pixels, and where the last one ends. */
		lefts: readonly number[]
		onfind: () => void
		onfilter: (column: number, filter: Filter | undefined) => void
		oncard: (card: GridCard) => void
	}

	let { table, tables, work, view, lefts, onfind, onfilter, oncard }: Props = $props()

	const { rows, scroll } = $derived(work)
	const width = $derived((lefts.at(-1) ?? 0) + (table.owned ? 90 : 0))

	function onkeydown(event: KeyboardEvent) {
		if (!work.editing && (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'f') {
			event.preventDefault()
			event.stopPropagation()
			onfind()
		} else void pressKey(work, event)
	}
</script>

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
	aria-colcount={work.columns.length}
>
	<GridHead {table} {tables} {work} {view} {lefts} {width} {onfilter} {oncard} />
	<GridBody {work} {view} {lefts} {width} />
	{#if rows.count === 0 && !rows.fresh && !rows.slow}<p class="none">
			{view.filters.length > 0
				? 'No row fits the filter. Take it off to see them all.'
				: 'There are no rows yet. Add one, paste some here, or bring a file in at Sources.'}
		</p>{/if}
</div>

<style>
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
