<script lang="ts">
	/** The control that fits a value which is typed or chosen, by the type of its column. */
	import type { Option } from '$lib/core/requests/rows.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import type { CellDraft } from './cell-draft.ts'
	import { CONTROLS } from './controls.ts'
	import DateField from './DateField.svelte'
	import ReferencePicker from './ReferencePicker.svelte'

	type Props = {
		/** Of the control; its label has `${id}-name`, what is wrong with it `${id}-wrong`. */
		id: string
		column: ShownColumn
		draft: CellDraft
		sample: string
		invalid: boolean
		options: (table: number, starts: string) => Promise<readonly Option[]>
		onchange: (draft: CellDraft) => void
	}

	let { id, column, draft, sample, invalid, options, onchange }: Props = $props()

	const control = $derived(CONTROLS[column.type])

	function typed(event: Event & { currentTarget: HTMLInputElement | HTMLTextAreaElement }) {
		onchange({ text: event.currentTarget.value })
	}
</script>

{#if control.by === 'row'}
	<ReferencePicker {id} table={column.to ?? 0} {draft} {sample} {options} {onchange} {invalid} />
{:else if control.by === 'choice'}
	<select
		{id}
		class="field"
		value={draft.text}
		onchange={(event) => onchange({ text: event.currentTarget.value })}
		aria-invalid={invalid}
	>
		<option value=""></option>
		{#each column.choices ?? [] as choice (choice)}<option>{choice}</option>{/each}
	</select>
{:else if control.by === 'lines'}
	<textarea {id} class="field" rows="3" placeholder={sample} value={draft.text} oninput={typed} aria-invalid={invalid}
	></textarea>
{:else if control.input === 'date'}
	<DateField {id} labelledby="{id}-name" text={draft.text} {invalid} onchange={(text) => onchange({ text })} />
{:else if column.type === 'place'}
	{#await import('./PlaceField.svelte') then { default: PlaceField }}
		<PlaceField {id} text={draft.text} {sample} {invalid} onchange={(text) => onchange({ text })} />
	{:catch}<p class="says-wrong" role="alert">This entry could not be loaded: no signal. Try again later.</p>{/await}
{:else}
	<input
		{id}
		class="field"
		type={control.input ?? 'text'}
		step={control.input === 'datetime-local' ? 'any' : undefined}
		inputmode={control.inFigures ? 'decimal' : undefined}
		autocomplete="off"
		placeholder={sample}
		value={draft.text}
		oninput={typed}
		aria-invalid={invalid}
		aria-describedby={invalid ? `${id}-wrong` : undefined}
	/>
{/if}
