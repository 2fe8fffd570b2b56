<script lang="ts">
	/** One entry of a form: its label, the control that fits its type, and what is wrong with it. */
	import type { Option } from '$lib/core/requests/rows.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import type { CellDraft } from './cell-draft.ts'
	import { CONTROLS } from './controls.ts'
	import SeveralChoices from './SeveralChoices.svelte'
	import ValueControl from './ValueControl.svelte'

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
		<!-- Pictures, files and drawing come with the first such entry: few forms have one. -->
		{#await import('./FileField.svelte') then { default: FileField }}
			<FileField {id} {column} {draft} {there} {onchange} />
		{:catch}
			<p class="says-wrong">This could not be loaded: no signal. Load the page again once there is one.</p>
		{/await}
	{:else}
		<label for={id} id="{id}-name"
			>{column.name}{#if column.unit && control.inFigures}<span class="quiet">, {column.unit}</span
				>{/if}{#if column.required}<span class="must">, must be filled in</span>{/if}</label
		>
		<ValueControl {...{ id, column, draft, sample, options, onchange }} invalid={message !== undefined} />
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
