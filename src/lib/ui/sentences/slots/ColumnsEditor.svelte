<script lang="ts">
	/** Chooses columns and their order. */
	import type { Vocabulary } from '$lib/core/sentence/vocabulary.ts'

	type Props = {
		vocabulary: Vocabulary
		table: number | undefined
		value: readonly number[]
		onchange: (value: number[]) => void
	}

	let { vocabulary, table, value, onchange }: Props = $props()

	const ofTable = $derived(vocabulary.tables.find((each) => each.id === table)?.columns ?? [])
	const columns = $derived(ofTable.filter((column) => !column.condition))

	const chosen = $derived(value.flatMap((id) => columns.find((column) => column.id === id) ?? []))
	const others = $derived(columns.filter((column) => !value.includes(column.id)))

	function move(at: number, by: -1 | 1) {
		const to = at + by
		if (to < 0 || to >= value.length) return
		const next = [...value]
		const [id] = next.splice(at, 1)
		if (id !== undefined) next.splice(to, 0, id)
		onchange(next)
	}
</script>

{#if chosen.length > 0}
	<ol>
		{#each chosen as column, i (column.id)}
			<li>
				<strong>{column.name}</strong>
				<button onclick={() => move(i, -1)} aria-label="Move {column.name} forward" disabled={i === 0}>↑</button>
				<button onclick={() => move(i, 1)} aria-label="Move {column.name} back" disabled={i === chosen.length - 1}
					>↓</button
				>
				<button onclick={() => onchange(value.filter((id) => id !== column.id))} aria-label="Leave {column.name} out"
					>✕</button
				>
			</li>
		{/each}
	</ol>
{/if}
{#if others.length > 0}
	<p class="add">
		<span class="quiet">Add:</span>
		{#each others as column (column.id)}
			<button class="more" onclick={() => onchange([...value, column.id])}>{column.name}</button>
		{/each}
	</p>
{/if}

<style>
	ol {
		margin: 0 0 0.5rem;
		padding-left: 1.4rem;
		columns: 2;
	}
	li button {
		border: 0;
		background: none;
		color: var(--zinc-5);
		padding: 0 0.25rem;
		min-width: 24px;
		min-height: 24px;
	}
	li button:hover:not(:disabled) {
		color: var(--pitch);
	}
	li button:disabled {
		opacity: 0.35;
	}
	.add {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem;
		align-items: center;
	}
	.more {
		border: 1px dashed var(--zinc-5);
		border-radius: 3px;
		background: none;
		color: var(--pitch);
		font: inherit;
		font-size: 0.92rem;
		padding: 0.15rem 0.5rem;
	}
</style>
