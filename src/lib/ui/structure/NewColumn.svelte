<script lang="ts">
	/** Adds a column: one that is typed in, a reference, or a computed one with its formula. */
	import { offersChoices } from '$lib/core/model/table.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import FormulaEditor from '../formula/FormulaEditor.svelte'
	import { typeFromName } from '$lib/core/exchange/infer-name.ts'
	import { OFFERED_TYPES, toColumnSettings, type OfferedType } from './column-choice.ts'
	import { changeStructure } from './structure.ts'

	type Props = {
		table: BenchTable
		tables: readonly BenchTable[]
		onclose: () => void
		onmade: (version: number) => void
	}

	let { table, tables, onclose, onmade }: Props = $props()

	let name = $state('')
	let type = $state<OfferedType>('text')
	/** Until somebody chooses, the name says what type it is. */
	let chosen = $state(false)
	let choices = $state('')
	let to = $state(0)
	let formula = $state('')
	let wrong = $state('')

	async function add(event: SubmitEvent) {
		event.preventDefault()
		const settings = {
			...toColumnSettings({ type, choices, to }, tables),
			...(type === 'computed' ? { formula } : {})
		}
		const answer = await changeStructure({ kind: 'column', table: table.id, column: { name, ...settings } })
		if (!answer.ok) return void (wrong = answer.refusal.message)
		onmade(answer.value.version)
	}
</script>

<form onsubmit={add}>
	<h2>New column in {table.name}</h2>
	<label for="new-name">Name</label>
	<input
		id="new-name"
		class="field"
		required
		bind:value={name}
		oninput={() => {
			if (!chosen) type = typeFromName(name)
		}}
	/>
	<label for="new-type">Type</label>
	<select id="new-type" class="field" bind:value={type} onchange={() => (chosen = true)}>
		{#each OFFERED_TYPES as each (each)}<option>{each}</option>{/each}
	</select>
	{#if offersChoices({ type })}
		<label for="new-choices">Choices, with commas between</label>
		<input id="new-choices" class="field" bind:value={choices} placeholder="Low, Medium, High" />
	{:else if type === 'reference'}
		<label for="new-to">Points to a row of</label>
		<select id="new-to" class="field" bind:value={to}>
			{#each tables as each (each.id)}<option value={each.id}>{each.name}</option>{/each}
		</select>
	{:else if type === 'computed'}
		<p class="label">Formula</p>
		<FormulaEditor value="" table={table.id} condition={false} me={true} onchange={(text) => (formula = text)} />
	{/if}
	{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
	<p class="end">
		<button class="btn main">Add the column</button><button type="button" class="btn" onclick={onclose}>Close</button>
	</p>
</form>

<style>
	form {
		display: grid;
		gap: 0.4rem;
	}
	label,
	.label {
		font-weight: 600;
	}
	.end {
		display: flex;
		gap: 0.5rem;
		margin-top: 0.5rem;
	}
</style>
