<script lang="ts">
	/** Makes a table by hand: a name, and its columns. The type is proposed from each name. */
	import { offersChoices } from '$lib/core/model/table.ts'
	import { typeFromName } from '$lib/core/exchange/infer-name.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import { OFFERED_TYPES, toColumnSettings, type ChosenType } from './column-choice.ts'
	import { changeStructure } from './structure.ts'

	type Props = { tables: readonly BenchTable[]; onmade: (id: number) => void }

	let { tables, onmade }: Props = $props()

	const TYPES = OFFERED_TYPES.filter((type) => type !== 'computed')

	let name = $state('')
	interface NewColumn extends ChosenType {
		name: string
		required: boolean
		/** Until somebody chooses, the name says what type it is. */
		chosen: boolean
	}
	let columns = $state<NewColumn[]>([
		{ name: 'Name', type: 'text', required: true, choices: '', to: 0, chosen: true },
		{ name: '', type: 'text', required: false, choices: '', to: 0, chosen: false }
	])
	let wrong = $state('')

	/** "due date" is a date, "email" an email address: the name alone says so until somebody chooses. */
	function typed(at: number) {
		const column = columns[at]
		if (!column || column.chosen) return
		column.type = typeFromName(column.name)
		if (at === columns.length - 1 && column.name !== '')
			columns.push({ name: '', type: 'text', required: false, choices: '', to: 0, chosen: false })
	}

	async function make(event: SubmitEvent) {
		event.preventDefault()
		const filled = columns.filter((column) => column.name.trim() !== '')
		const sent = filled.map(({ name: title, type, required, choices, to }) => ({
			name: title.trim(),
			...(required ? { required } : {}),
			...toColumnSettings({ type, choices, to }, tables)
		}))
		const answer = await changeStructure({ kind: 'table', name, columns: sent })
		if (!answer.ok) return void (wrong = answer.refusal.message)
		onmade(answer.value.made)
	}
</script>

<form onsubmit={make}>
	<h1>New table</h1>
	<label for="table-name">What it is called</label>
	<input id="table-name" class="field name" required bind:value={name} placeholder="Work orders" />
	<table class="ruled">
		<thead><tr><th>Column</th><th>Type</th><th>Must be filled in</th><td></td></tr></thead>
		<tbody>
			{#each columns as column, i (i)}
				<tr>
					<td
						><input
							class="field"
							aria-label="Name of column {i + 1}"
							bind:value={column.name}
							oninput={() => typed(i)}
							placeholder={i === 0 ? '' : 'Another column'}
						/></td
					>
					<td>
						<select
							class="field"
							aria-label="Type of column {i + 1}"
							bind:value={column.type}
							onchange={() => (column.chosen = true)}
						>
							{#each TYPES as type (type)}<option>{type}</option>{/each}
						</select>
					</td>
					<td><input type="checkbox" aria-label="Column {i + 1} must be filled in" bind:checked={column.required} /></td
					>
					<td class="extra">
						{#if offersChoices(column)}<input
								class="field"
								aria-label="Choices of column {i + 1}"
								bind:value={column.choices}
								placeholder="Low, Medium, High"
							/>{/if}
						{#if column.type === 'reference'}
							<select class="field" aria-label="Table of column {i + 1}" bind:value={column.to}>
								{#each tables as table (table.id)}<option value={table.id}>{table.name}</option>{/each}
							</select>
						{/if}
					</td>
				</tr>
			{/each}
		</tbody>
	</table>
	<p class="quiet">
		Rows are known by the first column. Nobody but you sees the table until a line of access lets them.
	</p>
	{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}
	<button class="btn main">Make the table</button>
</form>

<style>
	form {
		padding: 1.2rem 1.5rem;
		display: grid;
		gap: 0.7rem;
		align-content: start;
		justify-items: start;
		max-width: 54rem;
	}
	label {
		font-weight: 600;
	}
	.name {
		max-width: 22rem;
	}
	.extra {
		min-width: 14rem;
	}
</style>
