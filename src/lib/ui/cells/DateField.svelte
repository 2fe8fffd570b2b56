<script lang="ts">
	/** A date, typed in any usual way or chosen from a month; with steps by the day, which thumbs find more easily. */
	import { addDays, isIsoDate } from '$lib/core/schedule/calendar.ts'
	import { parseDate } from '$lib/core/table/kinds/date.ts'
	import { figuresOfDate, patternOfDate } from '$lib/core/table/show-times.ts'
	import { todayHere } from '../dates.ts'
	import { writingHere } from '../writing.ts'

	type Props = {
		id: string
		/** The id of the element that names it. */
		labelledby: string
		/** An ISO date, or what was typed. */
		text: string
		invalid: boolean
		/** Whether it is stepped by the day too; at a desk it is typed or chosen. */
		hasSteps?: boolean
		onchange: (text: string) => void
	}

	let { id, labelledby, text, invalid, hasSteps = true, onchange }: Props = $props()

	const writing = writingHere()
	let isOpen = $state(false)
	/** What stands there while somebody types, who is not to be interrupted. */
	let typing = $state<string | undefined>()
	let box: HTMLElement

	const date = $derived(parseDate(text.trim(), writing))

	function type({ currentTarget }: Event & { currentTarget: HTMLInputElement }) {
		typing = currentTarget.value
		onchange(parseDate(typing.trim(), writing) ?? typing)
	}

	function step(days: number) {
		const from = date ?? todayHere()
		onchange(date === undefined ? from : (addDays(from, days) ?? from))
	}

	function choose(chosen: string) {
		onchange(chosen)
		isOpen = false
		box.querySelector('input')?.focus()
	}

	function onkeydown(event: KeyboardEvent) {
		if (event.key !== 'Escape' || !isOpen) return
		event.stopPropagation()
		isOpen = false
	}
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div class="date" bind:this={box} {onkeydown}>
	{#if hasSteps}
		<button type="button" class="btn" aria-label="A day earlier" aria-describedby={labelledby} onclick={() => step(-1)}
			>−</button
		>
	{/if}
	<input
		{id}
		class="field"
		inputmode="numeric"
		autocomplete="off"
		placeholder={patternOfDate(writing)}
		value={typing ?? (isIsoDate(text) ? figuresOfDate(text, writing) : text)}
		oninput={type}
		onblur={() => (typing = undefined)}
		aria-invalid={invalid}
		aria-describedby={invalid ? `${id}-wrong` : undefined}
	/>
	{#if hasSteps}
		<button type="button" class="btn" aria-label="A day later" aria-describedby={labelledby} onclick={() => step(1)}
			>+</button
		>
		<button type="button" class="btn" aria-describedby={labelledby} onclick={() => onchange(todayHere())}>Today</button>
	{/if}
	<button
		type="button"
		class="btn"
		aria-expanded={isOpen}
		aria-label="Choose from a month"
		aria-describedby={labelledby}
		onclick={() => (isOpen = !isOpen)}>Choose</button
	>
	{#if isOpen}
		{#await import('./MonthPicker.svelte') then { default: MonthPicker }}
			<MonthPicker date={date !== undefined && isIsoDate(date) ? date : todayHere()} onchoose={choose} />
		{:catch}
			<p class="says-wrong">The month could not be loaded: no signal. Type the date.</p>
		{/await}
	{/if}
</div>

<style>
	.date {
		display: flex;
		flex-wrap: wrap;
		gap: 0.4rem;
	}
	input {
		flex: 1 1 12rem;
		max-width: 16rem;
		font-variant-numeric: tabular-nums;
	}
	.btn {
		min-width: 48px;
		min-height: 48px;
	}
</style>
