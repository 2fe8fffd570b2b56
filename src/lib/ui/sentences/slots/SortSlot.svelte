<script lang="ts">
	/** The column that rows are ordered by, and which way. */
	import { SLOTS } from '$lib/core/sentence/slots/all.ts'
	import { orderWords, type Sort } from '$lib/core/sentence/slots/columns.ts'
	import Choices from './Choices.svelte'
	import type { SlotProps } from './slot-props.ts'

	let { slot, value: sort, vocabulary, table, onchange, onchoose }: SlotProps<Sort> = $props()

	const columns = $derived(SLOTS.column.choices?.({ vocabulary, table }) ?? [])
	const choices = $derived([{ value: null, text: slot.empty ?? '' }, ...columns])
	const ordered = $derived(
		vocabulary.tables.find(({ id }) => id === table)?.columns.find(({ id }) => id === sort?.column)
	)
	const [up, down] = $derived(orderWords(ordered))

	function choose(column: number | null) {
		if (column === null) onchoose(null)
		else onchange({ column, descending: sort?.descending ?? false })
	}
</script>

<Choices {choices} value={sort?.column ?? null} onchoose={choose} />
{#if sort}
	<Choices
		choices={[
			{ value: false, text: up },
			{ value: true, text: down }
		]}
		value={sort.descending}
		onchoose={(descending) => onchange({ ...sort, descending })}
	/>
{/if}
