<script lang="ts">
	/** The named conditions of a table: which there are, and a new one. */
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import FormulaEditor from '../formula/FormulaEditor.svelte'
	import { changeStructure } from './structure.ts'

	type Props = { table: BenchTable; onopen: (column: number) => void; onmade: (version: number) => void }

	let { table, onopen, onmade }: Props = $props()

	const id = $props.id()
	const conditions = $derived(table.columns.filter((column) => column.condition))

	let adding = $state(false)
	let name = $state('')
	let formula = $state('')
	let wrong = $state('')

	async function add(event: SubmitEvent) {
		event.preventDefault()
		const column = { name, type: 'computed', formula, condition: true } as const
		const answer = await changeStructure({ kind: 'column', table: table.id, column })
		if (!answer.ok) return void (wrong = answer.refusal.message)
		onmade(answer.value.version)
	}
</script>

<h3>Named conditions</h3>
<p class="quiet">A condition with a name can be used wherever rows are chosen: in lists, access, routines and here.</p>
{#if conditions.length > 0}
	<ul>
		{#each conditions as condition (condition.id)}
			<li>
				<span><strong>{condition.name}</strong> <span class="mono">{condition.formula}</span></span>
				<button class="btn" onclick={() => onopen(condition.id)}>Open {condition.name}</button>
			</li>
		{/each}
	</ul>
{/if}
{#if adding}
	<form onsubmit={add}>
		<label for="{id}-name">Name</label>
		<input id="{id}-name" class="field" required maxlength="80" bind:value={name} placeholder="overdue" />
		<p class="label">Holds for rows where</p>
		<FormulaEditor value="" table={table.id} condition me onchange={(text) => (formula = text)} />
		{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
		<p class="end">
			<button class="btn main">Keep the condition</button>
			<button type="button" class="btn" onclick={() => (adding = false)}>Close</button>
		</p>
	</form>
{:else}
	<p><button class="btn" onclick={() => (adding = true)}>Add a named condition</button></p>
{/if}

<style>
	h3 {
		margin: 0.9rem 0 0.2rem;
		font-size: 0.95rem;
	}
	p {
		margin: 0.3rem 0;
	}
	ul {
		list-style: none;
		padding: 0;
		margin: 0.4rem 0;
	}
	li {
		display: flex;
		justify-content: space-between;
		align-items: center;
		gap: 0.6rem;
		padding: 0.25rem 0;
		border-bottom: 1px solid var(--zinc-2);
	}
	.mono {
		display: block;
		font-size: 0.8rem;
		color: var(--zinc-7);
		overflow-wrap: anywhere;
	}
	form {
		display: grid;
		gap: 0.3rem;
	}
	label,
	.label {
		font-weight: 600;
	}
	.end {
		display: flex;
		gap: 0.5rem;
	}
</style>
