<script lang="ts">
	/** Over a grid: which table it is and how long, and what can be done with it as a whole. */
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import ExportMenu from './ExportMenu.svelte'
	import { listingQuery } from './grid-rows.svelte.ts'
	import type { GridView } from './grid-view.svelte.ts'
	import type { GridWork } from './grid-work.svelte.ts'
	import { showFigure } from '../count.ts'

	type Props = {
		table: BenchTable
		work: GridWork
		view: GridView
		onfind: () => void
		onrules: () => void
	}

	let { table, work, view, onfind, onrules }: Props = $props()

	const { rows, edits } = $derived(work)
	const { top, bottom } = $derived(work.block)
	const plainColumns = $derived(table.columns.filter((column) => !column.condition).length)
</script>

<header>
	<h1>{table.name}</h1>
	<p class="quiet">
		{#if rows.stopped}rows as before the search{:else if rows.slow}looking for rows{:else}{showFigure(rows.count)}
			{rows.count === 1 ? 'row' : 'rows'}{view.filters.length > 0 ? ' found' : ''}{/if} · {plainColumns}
		{plainColumns === 1 ? 'column' : 'columns'}{table.source ? ` · from ${table.source.file}` : ''}{table.owned
			? ''
			: ' · kept by somebody else'}
	</p>
	<span class="gap"></span>
	<button class="btn" onclick={() => work.step('undo')} disabled={!edits.canUndo} title="Ctrl Z">Undo</button>
	<button class="btn" onclick={() => work.step('redo')} disabled={!edits.canRedo} title="Ctrl Y">Redo</button>
	<button class="btn" onclick={onfind} title="Ctrl F">Find</button>
	{#if table.mayAdd}<button class="btn" onclick={() => work.addRow()}>Add a row</button>{/if}
	<button class="btn" onclick={() => work.removeRows()} disabled={!work.focusRow?.may?.remove}
		>Remove {bottom === top ? `row ${top + 1}` : `${bottom - top + 1} rows`}</button
	>
	{#if table.owned}<button class="btn" onclick={onrules}>Rules</button>{/if}
	<ExportMenu
		from="/export/{table.id}?{listingQuery(view)}"
		words={view.filters.length > 0 ? 'Export as filtered' : 'Export'}
	/>
</header>

<style>
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.5rem 0.6rem;
		padding: 0.7rem 1.2rem;
	}
	.gap {
		flex: 1;
	}
</style>
