<script lang="ts">
	/** One of a few, chosen; it stands in the address, so that a reload and a link show the same. */
	import { goto } from '$app/navigation'
	import type { ShownLine } from '$lib/core/requests/screens.ts'
	import DateField from '../../cells/DateField.svelte'
	import { showCell } from '../../cells/show-cell.ts'
	import { withChosen } from '../screen-address.ts'
	import ChoiceStrip from './ChoiceStrip.svelte'
	import { addressNow } from '../address-now.ts'

	let { line }: { line: Extract<ShownLine, { kind: 'choose' }> } = $props()

	/** As many as stand side by side; more are chosen from a list. */
	const SIDE_BY_SIDE = 6

	const id = $props.id()
	const isDate = $derived(line.column.type === 'date')
	const options = $derived(
		line.options.map(({ value, cell }) => ({ value, text: showCell(line.column, cell) || '(blank)' }))
	)

	function choose(value: string) {
		void goto(withChosen(addressNow(), line.holds, value), { keepFocus: true, noScroll: true })
	}
</script>

<div class="choose" role="group" aria-labelledby="{id}-label">
	<span class="label" id="{id}-label">{line.label}</span>
	{#if isDate}
		<DateField id="{id}-date" labelledby="{id}-label" text={line.chosen} invalid={false} onchange={choose} />
	{:else if options.length <= SIDE_BY_SIDE && !line.isCut}
		<ChoiceStrip name={id} {options} chosen={line.chosen} onchoose={choose} />
	{:else}
		<select
			aria-labelledby="{id}-label"
			class="field"
			value={line.chosen}
			onchange={({ currentTarget }) => choose(currentTarget.value)}
		>
			<option value="">all</option>
			{#each options as { value, text } (value)}<option {value}>{text}</option>{/each}
		</select>
		{#if line.isCut}<span class="quiet">the first {options.length}</span>{/if}
	{/if}
</div>

<style>
	.choose {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.4rem 0.8rem;
		padding: 0.6rem 1.2rem;
	}
	.label {
		min-width: 5.5rem;
		font-weight: 600;
	}
	.field {
		width: auto;
		min-width: 12rem;
		min-height: 48px;
	}
</style>
