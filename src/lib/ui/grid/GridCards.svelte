<script lang="ts">
	/** The card that lies over a grid: of a column, of a new one, of the table's rules, or of what stands in a column. */
	import type { Filter } from '$lib/core/query/filter.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import ColumnCard from '../structure/ColumnCard.svelte'
	import ColumnValues from './ColumnValues.svelte'
	import type { GridCard } from './grid-card.ts'
	import type { Listing } from './grid-rows.svelte.ts'
	import NewColumn from '../structure/NewColumn.svelte'
	import TableCard from '../structure/TableCard.svelte'

	type Props = {
		card: GridCard
		table: BenchTable
		tables: readonly BenchTable[]
		listing: Listing
		onopen: (card: GridCard | undefined) => void
		onfilter: (column: number, filter: Filter) => void
		/** The structure was changed; `version` is the workspace's now. */
		onmade: (version: number) => void
		onremoved: () => void
	}

	let { card, table, tables, listing, onopen, onfilter, onmade, onremoved }: Props = $props()

	const onclose = () => onopen(undefined)
	const column = $derived('column' in card ? table.columns.find((each) => each.id === card.column) : undefined)
</script>

{#if card.kind === 'new column'}
	<aside><NewColumn {table} {tables} {onclose} {onmade} /></aside>
{:else if card.kind === 'table'}
	<aside>
		<TableCard {table} {onclose} onopen={(id) => onopen({ kind: 'column', column: id })} {onmade} {onremoved} />
	</aside>
{:else if column}
	<aside>
		{#key `${card.kind} ${column.id}`}
			{#if card.kind === 'column'}
				<ColumnCard {table} {tables} {column} {onclose} {onmade} />
			{:else}
				<ColumnValues
					table={table.id}
					{column}
					{listing}
					onfilter={(filter) => onfilter(column.id, filter)}
					{onclose}
				/>
			{/if}
		{/key}
	</aside>
{/if}

<style>
	aside {
		position: absolute;
		z-index: 8;
		right: 1.2rem;
		top: 4.4rem;
		width: min(27rem, calc(100% - 2.4rem));
		max-height: calc(100% - 6rem);
		overflow: auto;
		background: var(--paper);
		border: 1px solid var(--pitch);
		border-radius: 3px;
		box-shadow: 0 10px 30px rgb(0 0 0 / 20%);
		padding: 1rem 1.1rem;
	}
</style>
