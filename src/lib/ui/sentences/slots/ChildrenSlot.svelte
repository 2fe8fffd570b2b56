<script lang="ts">
	/** Chooses tables whose rows belong to a request, by their reference to its table. */
	import { childrenOf, type Child } from '$lib/core/sentence/slots/children.ts'
	import type { SlotProps } from './slot-props.ts'

	let { vocabulary, table, value, onchange }: SlotProps<readonly Child[]> = $props()

	const chosen = $derived(value ?? [])
	const possible = $derived(
		childrenOf({ vocabulary, table }).map((child) => {
			const { name = '', columns = [] } = vocabulary.tables.find(({ id }) => id === child.table) ?? {}
			const by = columns.find(({ id }) => id === child.column)?.name ?? ''
			return { child, words: `${name}, by their ${by}` }
		})
	)

	function toggle(child: Child, on: boolean) {
		const rest = chosen.filter(({ column }) => column !== child.column)
		onchange(on ? [...rest, child] : rest)
	}
</script>

{#each possible as { child, words } (child.column)}
	<label>
		<input
			type="checkbox"
			checked={chosen.some(({ column }) => column === child.column)}
			onchange={(event) => toggle(child, event.currentTarget.checked)}
		/>
		{words}
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
