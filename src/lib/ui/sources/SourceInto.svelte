<script lang="ts">
	/** Where the rows of a file go: into a new table, or into one that is there, and how. Part of a sentence. */
	import type { ImportPlan } from '$lib/core/exchange/plan.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import { goInto, goIntoNew } from './import-plan.ts'

	type Props = {
		plan: ImportPlan
		tables: readonly BenchTable[]
		/** By what the rows of the file can be told apart. */
		keys: readonly (readonly number[])[]
		onchange: (plan: ImportPlan) => void
	}

	let { plan, tables, keys, onchange }: Props = $props()

	const owned = $derived(tables.filter((table) => table.owned))
	const table = $derived(owned.find((each) => each.id === plan.into?.table))
	const filled = $derived(new Set(plan.columns.flatMap((column) => (column.include ? (column.to ?? []) : []))))
	const columns = $derived((table?.columns ?? []).filter((column) => filled.has(column.id)))
	const known = $derived(plan.into?.keys ?? [])
	/** One more can be named beside those that are. */
	const places = $derived(known.length < columns.length ? known.length + 1 : known.length)

	function choose(id: number) {
		const chosen = owned.find((each) => each.id === id)
		onchange(chosen ? goInto(plan, chosen, keys) : goIntoNew(plan))
	}

	function knowBy(place: number, column: number) {
		const next = place < known.length ? known.with(place, column) : [...known, column]
		change({ keys: next.filter((each, i) => each !== 0 && next.indexOf(each) === i) })
	}

	function change(into: Partial<NonNullable<ImportPlan['into']>>) {
		if (plan.into) onchange({ ...plan, into: { ...plan.into, ...into } })
	}
</script>

The rows go into
<select
	aria-label="Where the rows go"
	value={plan.into?.table ?? 0}
	onchange={(event) => choose(Number(event.currentTarget.value))}
>
	<option value={0}>a new table</option>
	{#each owned as each (each.id)}<option value={each.id}>{each.name}</option>{/each}
</select>
{#if plan.into}
	<select
		aria-label="How the rows go in"
		value={plan.into.how}
		onchange={(event) => change({ how: event.currentTarget.value as 'add' | 'update' | 'replace' })}
	>
		<option value="update">as changes and new rows</option>
		<option value="add">all as new rows</option>
		<option value="replace">as all that it shall hold</option>
	</select>{#if plan.into.how !== 'add'}, each known by
		{#each { length: places } as _place, place (place)}
			<select
				aria-label={place === 0
					? 'Column by which a row is known again'
					: 'Further column by which a row is known again'}
				value={known[place] ?? 0}
				onchange={(event) => knowBy(place, Number(event.currentTarget.value))}
			>
				{#if place > 0}<option value={0}
						>{place < known.length ? 'no more' : place === 1 ? 'alone' : 'and nothing more'}</option
					>
				{:else if plan.into.how === 'replace' || known.length === 0}<option value={0}
						>{plan.into.how === 'replace' ? 'nothing: every row is exchanged' : 'choose a column'}</option
					>{/if}
				{#each columns as column (column.id)}
					{#if column.id === known[place] || !known.includes(column.id)}<option value={column.id}
							>{place === 0 ? 'its' : 'with its'} {column.name}</option
						>{/if}
				{/each}
			</select>
		{/each}{/if}.
{:else}
	called
	<input
		aria-label="Name of the table"
		value={plan.tableName}
		oninput={(event) => onchange({ ...plan, tableName: event.currentTarget.value })}
	/>.
{/if}
