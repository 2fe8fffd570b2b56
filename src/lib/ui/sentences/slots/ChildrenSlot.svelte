<script lang="ts">
	/** Chooses tables whose rows belong to a request, by their reference to its table. */
	import type { Child } from '$lib/core/sentence/slots/children.ts'
	import type { SlotProps } from './slot-props.ts'

	let { vocabulary, table, value, onchange }: SlotProps<readonly Child[]> = $props()

	const chosen = $derived(value ?? [])
	const possible = $derived(
		vocabulary.tables.flatMap((each) =>
			each.columns
				.filter((column) => column.type === 'reference' && column.to === table)
				.map((column) => ({
					table: each,
					column,
					columns: each.columns.filter((other) => other.id !== column.id).map((other) => other.id)
				}))
		)
	)

	function toggle(child: (typeof possible)[number], on: boolean) {
		const rest = chosen.filter((each) => each.column !== child.column.id)
		onchange(on ? [...rest, { table: child.table.id, column: child.column.id, columns: child.columns }] : rest)
	}
</script>

{#each possible as child (child.column.id)}
	<label>
		<input
			type="checkbox"
			checked={chosen.some((each) => each.column === child.column.id)}
			onchange={(event) => toggle(child, event.currentTarget.checked)}
		/>
		{child.table.name}, by their {child.column.name}
	</label>
{:else}
	<p class="quiet">No other table refers to this one.</p>
{/each}

<style>
	label {
		display: flex;
		gap: 0.5rem;
		align-items: center;
		padding: 0.2rem 0;
	}
</style>
