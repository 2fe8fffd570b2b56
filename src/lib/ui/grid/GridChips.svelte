<script lang="ts">
	/** What narrows the grid down: named conditions to choose by, filters that stand, and columns that are hidden. */
	import type { Filter } from '$lib/core/query/filter.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import type { GridView } from './grid-view.svelte.ts'

	type Props = {
		columns: readonly ShownColumn[]
		view: GridView
		onfilter: (column: number, filter: Filter | undefined) => void
		/** A column was shown again. */
		onshown: () => void
	}

	let { columns, view, onfilter, onshown }: Props = $props()

	const conditions = $derived(columns.filter((column) => column.condition))
	const hidden = $derived(columns.filter((column) => view.hidden.includes(column.id)))
	/** On plain columns, those that are hidden among them: what cannot be seen must still be taken off. */
	const filters = $derived(
		view.filters.flatMap((filter) => {
			const column = columns.find((each) => each.id === filter.column && !each.condition)
			return column ? [{ filter, column }] : []
		})
	)
	const isOn = (condition: number) => view.filters.some((filter) => filter.column === condition)

	function says({ is }: Filter): string {
		if (is === 'equal') return 'is'
		return is === 'blank' || is === 'filled' ? `is ${is}` : is
	}

	function show(column: number) {
		view.hidden = view.hidden.filter((each) => each !== column)
		view.save()
		onshown()
	}
</script>

{#if conditions.length + filters.length + hidden.length > 0}
	<p>
		{#if conditions.length > 0}<span class="quiet">Show only</span>{/if}
		{#each conditions as { id, name } (id)}
			<button
				class="btn plain condition"
				aria-pressed={isOn(id)}
				onclick={() => onfilter(id, isOn(id) ? undefined : { column: id, is: 'equal', text: 'yes' })}>{name}</button
			>
		{/each}
		{#each filters as { filter, column } (column.id)}
			<button class="btn plain" onclick={() => onfilter(column.id, undefined)} title="Take this filter off"
				>{column.name} {says(filter)} {filter.text} ×</button
			>
		{/each}
		{#each hidden as column (column.id)}
			<button class="btn plain" onclick={() => show(column.id)}>Show {column.name}</button>
		{/each}
	</p>
{/if}

<style>
	p {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.4rem;
		padding: 0 1.2rem 0.5rem;
	}
	.condition {
		border: 1px solid var(--zinc-3);
	}
	.condition[aria-pressed='true'] {
		background: var(--marigold-wash);
		border: 1px solid var(--pitch);
		font-weight: 700;
	}
</style>
