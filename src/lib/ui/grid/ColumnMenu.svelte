<script lang="ts">
	/** What can be done with a column in the grid: order, filter, place and width, and its card. */
	import { untrack } from 'svelte'
	import type { Filter } from '$lib/core/query/filter.ts'
	import { orderWords } from '$lib/core/sentence/slots/columns.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import ColumnFilter from './ColumnFilter.svelte'
	import type { GridView } from './grid-view.svelte.ts'

	type Props = {
		column: ShownColumn
		view: GridView
		/** Its place among the columns that are shown. */
		place: number
		onclose: () => void
		onfilter: (filter: Filter | undefined) => void
		onsort: (descending: boolean, further: boolean) => void
		onopen: () => void
		oncount: () => void
	}

	let { column, view, place, onclose, onfilter, onsort, onopen, oncount }: Props = $props()

	const was = untrack(() => view.filters.find((filter) => filter.column === column.id))
	const words = $derived(orderWords(column))

	function filterBy(filter: Filter | undefined) {
		onfilter(filter)
		onclose()
	}

	function onkeydown(event: KeyboardEvent) {
		if (event.key !== 'Escape') return
		event.stopPropagation()
		onclose()
	}

	function focus(node: HTMLElement) {
		node.focus()
	}
</script>

<div class="menu" role="dialog" tabindex="-1" aria-label="Column {column.name}" {onkeydown}>
	<div class="row">
		<button class="btn" use:focus onclick={() => onsort(false, false)}>Sort {words[0]}</button>
		<button class="btn" onclick={() => onsort(true, false)}>{words[1]}</button>
	</div>
	{#if view.sorts.some((key) => key.column !== column.id)}
		<div class="row">
			<button class="btn plain" onclick={() => onsort(false, true)}>then by it, {words[0]}</button>
			<button class="btn plain" onclick={() => onsort(true, true)}>{words[1]}</button>
		</div>
	{/if}
	<ColumnFilter {column} {was} onfilter={filterBy} />
	<div class="row">
		<button class="btn plain" onclick={() => view.resize(column, view.width(column) - 40)}>Narrower</button>
		<button class="btn plain" onclick={() => view.resize(column, view.width(column) + 40)}>Wider</button>
		<button
			class="btn plain"
			onclick={() => {
				view.frozen = view.frozen === place + 1 ? 0 : place + 1
				view.save()
				onclose()
			}}>{view.frozen === place + 1 ? 'Freeze none' : 'Freeze up to here'}</button
		>
		<button
			class="btn plain"
			onclick={() => {
				view.hide(column.id)
				onclose()
			}}>Hide</button
		>
	</div>
	<div class="row">
		<button class="btn" onclick={onopen}>Open its card</button>
		<button class="btn" onclick={oncount}>What is in it</button>
		<button class="btn plain" onclick={onclose}>Close</button>
	</div>
</div>

<style>
	.menu {
		display: grid;
		gap: 0.6rem;
		width: 19rem;
		padding: 0.8rem 0.9rem;
		background: var(--paper);
		border: 1px solid var(--pitch);
		border-radius: 3px;
		box-shadow: 0 10px 30px rgb(0 0 0 / 20%);
		font-weight: 400;
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 0.4rem;
	}
</style>
