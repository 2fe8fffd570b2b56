<script lang="ts">
	/** The columns that rows are ordered by, one after the other, each with its way. */
	import { SLOTS } from '$lib/core/sentence/slots/all.ts'
	import type { Sort } from '$lib/core/sentence/slots/columns.ts'
	import Choices from './Choices.svelte'
	import type { SlotProps } from './slot-props.ts'
	import SortKey from './SortKey.svelte'

	let { slot, value, vocabulary, table, onchange }: SlotProps<readonly Sort[]> = $props()

	const sorts = $derived(value ?? [])
	const columns = $derived(SLOTS.column.choices?.({ vocabulary, table }) ?? [])
	const open = $derived(columns.filter((choice) => !sorts.some((sort) => sort.column === choice.value)))

	const put = (at: number, sort: Sort | undefined) =>
		onchange(sorts.flatMap((each, i) => (i === at ? (sort ?? []) : each)))
	const add = (column: number | null) => column !== null && onchange([...sorts, { column, descending: false }])
</script>

{#each sorts as sort, i (sort.column)}
	<SortKey
		{sort}
		{vocabulary}
		{table}
		first={i === 0}
		onchange={(next) => put(i, next)}
		onremove={() => put(i, undefined)}
	/>
{/each}
{#if sorts.length === 0}<p class="quiet">Now: {slot.empty}.</p>{/if}
{#if open.length > 0}
	<p class="title">{sorts.length === 0 ? 'By' : 'Then by'}</p>
	<Choices choices={open} value={null} onchoose={add} />
{/if}

<style>
	.title {
		margin: 0.6rem 0 0.2rem;
		font-weight: 600;
	}
</style>
