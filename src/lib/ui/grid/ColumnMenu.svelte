<script lang="ts">
	/** What can be done with a column in the grid: order, filter, place and width, and its card. */
	import { untrack } from 'svelte'
	import type { Filter } from '$lib/core/query/filter.ts'
	import { offersChoices } from '$lib/core/model/table.ts'
	import { orderWords } from '$lib/core/sentence/slots/columns.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import { isNumeric } from '../cells/controls.ts'
	import { isDate } from '../cells/show-cell.ts'
	import type { GridView } from './grid-view.svelte.ts'

	type Props = {
		column: ShownColumn
		view: GridView
		/** Its place among the columns that are shown. */
		place: number
		onclose: () => void
		onfilter: (filter: Filter | undefined) => void
		onsort: (descending: boolean, further: boolean) => void
		onopen: () => void
		oncount: () => void
	}

	let { column, view, place, onclose, onfilter, onsort, onopen, oncount }: Props = $props()

	const id = $props.id()
	const was = untrack(() => view.filters.find((filter) => filter.column === column.id))
	const ordered = $derived(isNumeric(column) || isDate(column))
	const words = $derived(orderWords(column))
	const choices = $derived(
		offersChoices(column) ? column.choices : column.type === 'yes/no' ? ['yes', 'no'] : undefined
	)
	const several = $derived(column.type === 'several choices')

	function firstWay(): Filter['is'] {
		if (several) return 'contains'
		return choices || column.shows === 'yesno' ? 'equal' : ordered ? 'at least' : 'contains'
	}

	let is = $state<Filter['is']>(untrack(() => was?.is ?? firstWay()))
	let text = $state(was?.text ?? '')

	const needsText = $derived(is !== 'blank' && is !== 'filled')

	function keep(event: SubmitEvent) {
		event.preventDefault()
		onfilter(needsText && text.trim() === '' ? undefined : { column: column.id, is, text: text.trim() })
		onclose()
	}

	function onkeydown(event: KeyboardEvent) {
		if (event.key !== 'Escape') return
		event.stopPropagation()
		onclose()
	}

	function focus(node: HTMLElement) {
		node.focus()
	}
</script>

<div class="menu" role="dialog" tabindex="-1" aria-label="Column {column.name}" {onkeydown}>
	<div class="row">
		<button class="btn" use:focus onclick={() => onsort(false, false)}>Sort {words[0]}</button>
		<button class="btn" onclick={() => onsort(true, false)}>{words[1]}</button>
	</div>
	{#if view.sorts.some((key) => key.column !== column.id)}
		<div class="row">
			<button class="btn plain" onclick={() => onsort(false, true)}>then by it, {words[0]}</button>
			<button class="btn plain" onclick={() => onsort(true, true)}>{words[1]}</button>
		</div>
	{/if}
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
			{#if was}<button
					type="button"
					class="btn"
					onclick={() => {
						onfilter(undefined)
						onclose()
					}}>Take the filter off</button
				>{/if}
		</div>
	</form>
	<div class="row">
		<button class="btn plain" onclick={() => view.resize(column, view.width(column) - 40)}>Narrower</button>
		<button class="btn plain" onclick={() => view.resize(column, view.width(column) + 40)}>Wider</button>
		<button
			class="btn plain"
			onclick={() => {
				view.frozen = view.frozen === place + 1 ? 0 : place + 1
				view.save()
				onclose()
			}}>{view.frozen === place + 1 ? 'Freeze none' : 'Freeze up to here'}</button
		>
		<button
			class="btn plain"
			onclick={() => {
				view.hide(column.id)
				onclose()
			}}>Hide</button
		>
	</div>
	<div class="row">
		<button class="btn" onclick={onopen}>Open its card</button>
		<button class="btn" onclick={oncount}>What is in it</button>
		<button class="btn plain" onclick={onclose}>Close</button>
	</div>
</div>

<style>
	.menu {
		display: grid;
		gap: 0.6rem;
		width: 19rem;
		padding: 0.8rem 0.9rem;
		background: var(--paper);
		border: 1px solid var(--pitch);
		border-radius: 3px;
		box-shadow: 0 10px 30px rgb(0 0 0 / 20%);
		font-weight: 400;
	}
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
