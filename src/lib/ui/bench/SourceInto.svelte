<script lang="ts">
	/** Where the rows of a file go: into a new table, or into one that is there, and how. Part of a sentence. */
	import type { ImportPlan } from '$lib/core/exchange/plan.ts'
	import type { BenchTable } from '$lib/server/workspace/bench.ts'
	import { goInto, goIntoNew } from './import-plan.ts'

	type Props = { plan: ImportPlan; tables: readonly BenchTable[]; onchange: (plan: ImportPlan) => void }

	let { plan, tables, onchange }: Props = $props()

	const kept = $derived(tables.filter((table) => table.kept))
	const table = $derived(kept.find((each) => each.id === plan.into?.table))
	const filled = $derived(new Set(plan.columns.flatMap((column) => (column.include ? (column.to ?? []) : []))))
	const keys = $derived((table?.columns ?? []).filter((column) => filled.has(column.id) && column.type !== 'reference'))

	function choose(id: number) {
		const chosen = kept.find((each) => each.id === id)
		onchange(chosen ? goInto(plan, chosen) : goIntoNew(plan))
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
	{#each kept as each (each.id)}<option value={each.id}>{each.name}</option>{/each}
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
	</select>{#if plan.into.how !== 'add'}, each known by its
		<select
			aria-label="Column by which a row is known again"
			value={plan.into.key}
			onchange={(event) => change({ key: Number(event.currentTarget.value) })}
		>
			{#each keys as column (column.id)}<option value={column.id}>{column.name}</option>{/each}
		</select>{/if}.
{:else}
	called
	<input
		aria-label="Name of the table"
		value={plan.tableName}
		oninput={(event) => onchange({ ...plan, tableName: event.currentTarget.value })}
	/>.
{/if}
