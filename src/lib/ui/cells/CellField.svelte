<script lang="ts">
	/** One entry of a form: its label, the control that fits its type, and what is wrong with it. */
	import type { Option } from '$lib/core/requests/rows.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import type { CellDraft } from './cell-draft.ts'
	import { CONTROLS } from './controls.ts'
	import DateField from './DateField.svelte'
	import FileField from './FileField.svelte'
	import ReferencePicker from './ReferencePicker.svelte'
	import SeveralChoices from './SeveralChoices.svelte'

	type Props = {
		column: ShownColumn
		draft: CellDraft
		message?: string | undefined
		/** Words under its name, and words that stand in it until something is typed. */
		help?: string
		sample?: string
		/** The address of the picture that lies in the cell now. */
		there?: string | undefined
		/** Where rows to refer to are looked up. */
		options: (table: number, starts: string) => Promise<readonly Option[]>
		onchange: (draft: CellDraft) => void
	}

	let { column, draft, message, help = '', sample = '', there, options, onchange }: Props = $props()

	const id = $props.id()
	const control = $derived(CONTROLS[column.type])
	const few = $derived(control.by === 'choice' && (column.choices?.length ?? 0) <= 4)
	const segments = $derived(control.by === 'yes or no' ? ['yes', 'no'] : (column.choices ?? []))

	function typed(event: Event & { currentTarget: HTMLInputElement | HTMLTextAreaElement }) {
		onchange({ text: event.currentTarget.value })
	}
</script>

<div class="entry">
	{#if few || control.by === 'yes or no'}
		<fieldset>
			<legend
				>{column.name}{#if column.required}<span class="must">, must be filled in</span>{/if}</legend
			>
			<div class="segments">
				{#each segments as choice (choice)}
					<button
						type="button"
						aria-pressed={draft.text === choice}
						class:on={draft.text === choice}
						onclick={() => onchange({ text: draft.text === choice ? '' : choice })}>{choice}</button
					>
				{/each}
			</div>
		</fieldset>
	{:else if control.by === 'several'}
		<fieldset>
			<legend
				>{column.name}{#if column.required}<span class="must">, must be filled in</span>{/if}</legend
			>
			<SeveralChoices {column} {draft} {onchange} />
		</fieldset>
	{:else if control.by === 'file'}
		<p class="name">
			{column.name}{#if column.required}<span class="must">, must be filled in</span>{/if}
		</p>
		<FileField {id} {column} {draft} {there} {onchange} />
	{:else}
		<label for={id} id="{id}-name"
			>{column.name}{#if column.unit && control.inFigures}<span class="quiet">, {column.unit}</span
				>{/if}{#if column.required}<span class="must">, must be filled in</span>{/if}</label
		>
		{#if control.by === 'row'}
			<ReferencePicker
				{id}
				table={column.to ?? 0}
				{draft}
				{sample}
				{options}
				{onchange}
				invalid={message !== undefined}
			/>
		{:else if control.by === 'choice'}
			<select
				{id}
				class="field"
				value={draft.text}
				onchange={(event) => onchange({ text: event.currentTarget.value })}
				aria-invalid={message !== undefined}
			>
				<option value=""></option>
				{#each column.choices ?? [] as choice (choice)}<option>{choice}</option>{/each}
			</select>
		{:else if control.by === 'lines'}
			<textarea
				{id}
				class="field"
				rows="3"
				placeholder={sample}
				value={draft.text}
				oninput={typed}
				aria-invalid={message !== undefined}></textarea>
		{:else if control.input === 'date'}
			<DateField
				{id}
				labelledby="{id}-name"
				text={draft.text}
				invalid={message !== undefined}
				onchange={(text) => onchange({ text })}
			/>
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
				aria-invalid={message !== undefined}
				aria-describedby={message ? `${id}-wrong` : undefined}
			/>
		{/if}
	{/if}
	{#if help}<p class="help">{help}</p>{/if}
	{#if message}<p class="says-wrong" id="{id}-wrong" role="alert">{message}</p>{/if}
</div>

<style>
	.entry {
		display: grid;
		gap: 0.3rem;
	}
	label,
	legend,
	.name {
		font-weight: 600;
		padding: 0;
	}
	fieldset {
		border: 0;
		padding: 0;
		margin: 0;
		display: grid;
		gap: 0.3rem;
		min-width: 0;
	}
	.must {
		font-weight: 400;
		color: var(--zinc-5);
		font-size: 0.88rem;
	}
	.help {
		color: var(--zinc-7);
		font-size: 0.92rem;
	}
	.segments {
		display: flex;
		flex-wrap: wrap;
	}
	.segments button {
		flex: 1;
		min-height: 48px;
		min-width: 5rem;
		border: 1px solid var(--zinc-5);
		margin-right: -1px;
		background: var(--paper);
		color: var(--pitch);
		font: 650 0.95rem var(--head);
	}
	.segments button.on {
		background: var(--pitch);
		border-color: var(--pitch);
		color: var(--on-ink);
	}
	.entry :global(.field) {
		min-height: 48px;
		font-size: 1rem;
	}
</style>
