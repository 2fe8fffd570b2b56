<script lang="ts">
	/** The day that an entry goes to, typed or chosen: for keys, and for hands that are not steady. */
	import { cellKey } from '$lib/core/query/wire.ts'
	import type { ShownCalendar, ShownDayEntry } from '$lib/core/requests/shown-rows.ts'
	import { isIsoDate } from '$lib/core/schedule/calendar.ts'
	import DateField from '../../cells/DateField.svelte'
	import { showCell } from '$lib/core/requests/show-cell.ts'
	import type { CalendarMove } from './calendar-move.svelte.ts'

	type Props = { line: ShownCalendar; entry: ShownDayEntry; move: CalendarMove }

	let { line, entry, move }: Props = $props()

	const id = $props.id()
	let typed = $state<string | undefined>()
	const text = $derived(typed ?? entry.from)
	const name = $derived(
		line.columns[0] ? showCell(line.columns[0], entry.row.cells[cellKey(line.columns[0].id)]) : 'this row'
	)
	let form: HTMLFormElement

	$effect(() => {
		form.querySelector('input')?.focus()
		form.scrollIntoView({ block: 'nearest' })
	})

	function change(day: string) {
		typed = day
		if (isIsoDate(day)) void move.tryDay(day)
	}
</script>

<form
	bind:this={form}
	aria-label="Move {name}"
	onsubmit={(event) => {
		event.preventDefault()
		if (isIsoDate(text)) void move.drop()
	}}
>
	<label id="{id}-label" for="{id}-day">Move {name} to</label>
	<DateField id="{id}-day" labelledby="{id}-label" {text} invalid={!isIsoDate(text)} onchange={change} />
	<button class="btn primary" disabled={!isIsoDate(text) || text === entry.from || move.refused !== null}>Move</button>
	<button type="button" class="btn plain" onclick={() => move.leave()}>Leave it</button>
	{#if move.refused !== null}<p class="says-wrong" role="alert">{move.refused}</p>{/if}
</form>

<style>
	form {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.6rem 0.8rem;
		padding: 0.6rem 1rem;
		background: var(--marigold-wash);
		border-top: 3px solid var(--marigold);
	}
	label {
		font-weight: 650;
	}
	p {
		flex-basis: 100%;
	}
</style>
