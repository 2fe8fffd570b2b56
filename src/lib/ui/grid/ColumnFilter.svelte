<script lang="ts">
	/** Which rows of a grid are shown, by what stands in one column. */
	import { untrack } from 'svelte'
	import type { Filter } from '$lib/core/query/filter.ts'
	import { offersChoices } from '$lib/core/model/table.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import { isNumeric } from '../cells/controls.ts'
	import { plainFigures, writtenFigures } from '../cells/plain-figures.ts'
	import { isDate } from '$lib/core/requests/show-cell.ts'

	type Props = {
		column: ShownColumn
		/** The filter that holds now. */
		was: Filter | undefined
		/** Undefined takes the filter off. */
		onfilter: (filter: Filter | undefined) => void
	}

	let { column, was, onfilter }: Props = $props()

	const id = $props.id()
	const ordered = $derived(isNumeric(column) || isDate(column))
	const choices = $derived(
		offersChoices(column) ? column.choices : column.type === 'yes/no' ? ['yes', 'no'] : undefined
	)
	const several = $derived(column.type === 'several choices')

	function firstWay(): Filter['is'] {
		if (several) return 'contains'
		return choices || column.shows === 'yesno' ? 'equal' : ordered ? 'at least' : 'contains'
	}

	let is = $state<Filter['is']>(untrack(() => was?.is ?? firstWay()))
	let text = $state(untrack(() => writtenFigures(column, was?.text ?? '')))

	const needsText = $derived(is !== 'blank' && is !== 'filled')

	function keep(event: SubmitEvent) {
		event.preventDefault()
		onfilter(
			needsText && text.trim() === '' ? undefined : { column: column.id, is, text: plainFigures(column, text.trim()) }
		)
	}
</script>

<form onsubmit={keep}>
	<label for="{id}-is">Only rows where it</label>
	<select id="{id}-is" class="field" bind:value={is}>
		{#if !choices || several}<option value="contains">contains</option>{/if}
		<option value="equal">is</option>
		{#if ordered}
			<option value="at least">is at least</option>
			<option value="at most">is at most</option>
		{/if}
		<option value="blank">is blank</option>
		<option value="filled">is filled in</option>
	</select>
	{#if needsText}
		{#if choices}
			<select class="field" aria-label="Value" bind:value={text}>
				<option value=""></option>
				{#each choices as choice (choice)}<option>{choice}</option>{/each}
			</select>
		{:else}
			<input
				class="field"
				aria-label="Value"
				type={isDate(column) && is !== 'contains' ? 'date' : 'text'}
				bind:value={text}
			/>
		{/if}
	{/if}
	<div class="row">
		<button class="btn main">Filter</button>
		{#if was}<button type="button" class="btn" onclick={() => onfilter(undefined)}>Take the filter off</button>{/if}
	</div>
</form>

<style>
	form {
		display: grid;
		gap: 0.35rem;
		border-top: 1px solid var(--zinc-2);
		border-bottom: 1px solid var(--zinc-2);
		padding: 0.6rem 0;
	}
	label {
		font-weight: 600;
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 0.4rem;
	}
</style>
