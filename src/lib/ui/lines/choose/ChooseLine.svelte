<script lang="ts">
	/** One of a few, chosen; it stands in the address, so that a reload and a link show the same. */
	import { goto } from '$app/navigation'
	import type { ShownLine } from '$lib/core/requests/screens.ts'
	import DateField from '../../cells/DateField.svelte'
	import { CONTROLS } from '../../cells/controls.ts'
	import { showCell } from '$lib/core/requests/show-cell.ts'
	import { withChosen, withTyped } from '../screen-address.ts'
	import ChoiceStrip from './ChoiceStrip.svelte'
	import { addressNow } from '../address-now.ts'

	let { line }: { line: Extract<ShownLine, { kind: 'choose' }> } = $props()

	/** As many as stand side by side; more are chosen from a list. */
	const SIDE_BY_SIDE = 6

	const id = $props.id()
	const isDate = $derived(line.column.type === 'date')
	const isFigure = $derived(CONTROLS[line.column.type].inFigures === true)
	const options = $derived(
		line.options.map(({ value, cell }) => ({ value, text: showCell(line.column, cell) || '(blank)' }))
	)

	function choose(value: string) {
		// What somebody wrote into a row stands in no log.
		const isWords = line.column.type === 'text' || line.column.type === 'code'
		const to = (isWords ? withTyped : withChosen)(addressNow(), line.holds, value)
		void goto(to, { keepFocus: true, noScroll: true })
	}
</script>

<div class="choose" role="group" aria-labelledby="{id}-label">
	<span class="label" id="{id}-label">{line.label}</span>
	{#if isDate}
		<DateField id="{id}-date" labelledby="{id}-label" text={line.chosen} invalid={false} onchange={choose} />
	{:else if isFigure}
		{#await import('./FigureField.svelte') then { default: FigureField }}
			<FigureField labelledby="{id}-label" column={line.column} chosen={line.chosen} onchoose={choose} />
		{/await}
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
		display: grid;
		justify-items: start;
		gap: 0.2rem;
		padding: 0.4rem 1.2rem;
	}
	.label {
		font-weight: 600;
	}
	.field {
		min-width: 12rem;
		max-width: 100%;
		min-height: 48px;
	}
</style>
