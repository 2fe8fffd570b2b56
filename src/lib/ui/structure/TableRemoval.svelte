<script lang="ts">
	/** What names a table, and taking it out where nothing cannot do without it. */
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import { changeStructure } from './structure.ts'
	import { showFigure } from '../count.ts'

	type Props = { table: Pick<BenchTable, 'id' | 'name'>; onremoved: () => void }

	let { table, onremoved }: Props = $props()

	let wrong = $state('')
	const asked = $derived(changeStructure({ kind: 'table uses', table: table.id }))

	async function remove() {
		const answer = await changeStructure({ kind: 'remove table', table: table.id })
		if (!answer.ok) return void (wrong = answer.refusal.message)
		onremoved()
	}
</script>

{#await asked}
	<p class="quiet">Looking…</p>
{:then answer}
	{#if !answer.ok}
		<p class="says-wrong" role="alert">{answer.refusal.message}</p>
	{:else if answer.value.made.uses.length > 0}
		<p>{table.name} can be taken out when these no longer need it:</p>
		<ul>
			{#each answer.value.made.uses as use (use)}<li>{use}</li>{/each}
		</ul>
	{:else}
		<p>
			<button type="button" class="btn danger" onclick={remove}>Take {table.name} out</button>
			<span class="quiet"
				>{showFigure(answer.value.made.rows)}
				{answer.value.made.rows === 1 ? 'row goes' : 'rows go'} with it. It can be put back for thirty days.</span
			>
		</p>
	{/if}
{/await}
{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}

<style>
	p,
	ul {
		margin: 0.5rem 0;
	}
	ul {
		padding-left: 1.1rem;
	}
</style>
