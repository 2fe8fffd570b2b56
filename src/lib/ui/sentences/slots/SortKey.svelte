<script lang="ts">
	import { orderWords, type Sort } from '$lib/core/sentence/slots/columns.ts'
	import type { Vocabulary } from '$lib/core/sentence/vocabulary.ts'

	type Props = {
		sort: Sort
		vocabulary: Vocabulary
		table: number | undefined
		first: boolean
		onchange: (sort: Sort) => void
		onremove: () => void
	}

	let { sort, vocabulary, table, first, onchange, onremove }: Props = $props()

	const column = $derived(
		vocabulary.tables.find(({ id }) => id === table)?.columns.find(({ id }) => id === sort.column)
	)
	const name = $derived(column?.name ?? 'a column that is gone')
	const ways = $derived(orderWords(column))
</script>

<p>
	<span>{first ? 'By' : 'then by'} <strong>{name}</strong></span>
	<select
		class="field"
		aria-label="Order of {name}"
		value={String(sort.descending)}
		onchange={(event) => onchange({ ...sort, descending: event.currentTarget.value === 'true' })}
	>
		<option value="false">{ways[0]}</option>
		<option value="true">{ways[1]}</option>
	</select>
	<button class="btn plain" onclick={onremove} aria-label="Do not order by {name}">✕</button>
</p>

<style>
	p {
		display: flex;
		align-items: center;
		gap: 0.7rem;
		margin: 0.3rem 0;
	}
	span {
		flex: 1;
	}
	select {
		width: auto;
	}
</style>
