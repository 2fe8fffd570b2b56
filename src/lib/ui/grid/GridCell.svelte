<script lang="ts">
	/** One cell: what stands there, or the control that changes it. */
	import type { WireCell } from '$lib/core/query/wire.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import type { CellDraft } from '../cells/cell-draft.ts'
	import { CONTROLS } from '../cells/controls.ts'
	import { optionsAt } from '../cells/options.ts'
	import ReferencePicker from '../cells/ReferencePicker.svelte'
	import { showCell } from '$lib/core/requests/show-cell.ts'
	import GridPanel from './GridPanel.svelte'

	type Props = {
		column: ShownColumn
		cell: WireCell | undefined
		/** What is being typed; undefined while the cell only shows. */
		draft: CellDraft | undefined
		/** The address of the picture that lies there now. */
		there: string | undefined
		invalid: boolean
		onchange: (draft: CellDraft, done: boolean) => void
	}

	let { column, cell, draft, there, invalid, onchange }: Props = $props()

	const control = $derived(CONTROLS[column.type])
	const choices = $derived(control.by === 'choice' ? (column.choices ?? []) : ['yes', 'no'])

	function focus(node: HTMLElement) {
		node.focus()
		if (node instanceof HTMLInputElement && node.type === 'text')
			node.setSelectionRange(node.value.length, node.value.length)
	}
</script>

{#if !draft}
	{cell === undefined ? '' : showCell(column, cell)}
{:else if control.by === 'row'}
	<ReferencePicker
		id="cell"
		table={column.to ?? 0}
		{draft}
		{invalid}
		options={optionsAt('')}
		onchange={(next) => onchange(next, false)}
	/>
{:else if control.by === 'choice' || control.by === 'yes or no'}
	<select use:focus value={draft.text} onchange={(event) => onchange({ text: event.currentTarget.value }, true)}>
		<option value=""></option>
		{#each choices as choice (choice)}<option>{choice}</option>{/each}
	</select>
{:else if control.by === 'file' || control.by === 'several'}
	<GridPanel {column} {draft} {there} {onchange} />
{:else if control.by === 'lines'}
	<textarea
		use:focus
		rows="4"
		value={draft.text}
		oninput={(event) => onchange({ text: event.currentTarget.value }, false)}></textarea>
{:else}
	<input
		use:focus
		type={control.input?.startsWith('date') ? control.input : 'text'}
		step={control.input === 'datetime-local' ? 'any' : undefined}
		value={draft.text}
		oninput={(event) => onchange({ text: event.currentTarget.value }, false)}
		aria-label={column.name}
	/>
{/if}

<style>
	input,
	select {
		min-width: 7rem;
		width: 100%;
		height: 27px;
		border: 0;
		padding: 0 0.2rem;
		background: var(--paper);
		color: var(--pitch);
		font: inherit;
		box-shadow: none;
	}
	textarea {
		position: absolute;
		z-index: 4;
		min-width: 22rem;
		border: 2px solid var(--marigold);
		background: var(--paper);
		color: var(--pitch);
		font: inherit;
	}
	:global(.picker .field) {
		min-height: 27px;
		padding: 0 0.2rem;
		border: 0;
		min-width: 11rem;
	}
	:global(.picker li) {
		padding: 0.3rem 0.5rem;
	}
</style>
