<script lang="ts">
	/** A month to choose a day from. The arrow keys go from day to day and from week to week, as the ARIA pattern has it. */
	import { tick, untrack } from 'svelte'
	import { addDays, addMonths, WEEKDAY_NAMES, weeksOf } from '$lib/core/schedule/calendar.ts'
	import { showDate } from '$lib/core/table/show-times.ts'
	import { showMonth, todayHere } from '../dates.ts'
	import { writingHere } from '../writing.ts'

	type Props = { date: string; onchoose: (date: string) => void }

	let { date, onchoose }: Props = $props()

	/** The day that the keys are at. */
	let at = $state(untrack(() => date))
	let grid: HTMLElement

	const today = todayHere()
	const month = $derived(at.slice(0, 7))
	const weeks = $derived(weeksOf(month))
	const STEPS: Readonly<Record<string, number>> = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -7, ArrowDown: 7 }

	function turn(by: number) {
		at = addMonths(at, by) ?? at
	}

	async function onkeydown(event: KeyboardEvent) {
		const days = STEPS[event.key]
		const months = event.key === 'PageUp' ? -1 : event.key === 'PageDown' ? 1 : 0
		if (days === undefined && months === 0) return
		event.preventDefault()
		at = (days === undefined ? addMonths(at, months) : addDays(at, days)) ?? at
		await tick()
		grid.querySelector<HTMLElement>('[tabindex="0"]')?.focus()
	}
</script>

<div class="month">
	<p>
		<button type="button" class="btn" aria-label="A month earlier" onclick={() => turn(-1)}>‹</button>
		<strong aria-live="polite">{showMonth(month)}</strong>
		<button type="button" class="btn" aria-label="A month later" onclick={() => turn(1)}>›</button>
	</p>
	<table bind:this={grid} role="grid" aria-label={showMonth(month)} {onkeydown}>
		<thead>
			<tr
				>{#each WEEKDAY_NAMES as day (day)}<th abbr={day}>{day.slice(0, 2)}</th>{/each}</tr
			>
		</thead>
		<tbody>
			{#each weeks as week (week[0])}
				<tr>
					{#each week as day (day)}
						<td>
							<button
								type="button"
								class:on={day === date}
								class:today={day === today}
								class:other={!day.startsWith(month)}
								tabindex={day === at ? 0 : -1}
								aria-label={showDate(day, writingHere())}
								aria-current={day === today ? 'date' : undefined}
								onclick={() => onchoose(day)}>{Number(day.slice(8))}</button
							>
						</td>
					{/each}
				</tr>
			{/each}
		</tbody>
	</table>
</div>

<style>
	.month {
		flex-basis: 100%;
		max-width: 24rem;
		padding: 0.6rem;
		border: 1px solid var(--pitch);
		border-radius: 3px;
		background: var(--paper);
	}
	p {
		display: flex;
		justify-content: space-between;
		align-items: center;
		margin: 0 0 0.3rem;
	}
	.btn {
		min-width: 48px;
		min-height: 44px;
	}
	table {
		width: 100%;
		border-collapse: collapse;
		table-layout: fixed;
	}
	th {
		font-weight: 600;
		font-size: 0.85rem;
		color: var(--zinc-7);
	}
	td {
		padding: 1px;
	}
	td button {
		width: 100%;
		min-height: 44px;
		border: 1px solid transparent;
		border-radius: 3px;
		background: none;
		color: var(--pitch);
		font: inherit;
		font-variant-numeric: tabular-nums;
	}
	td button:hover {
		background: var(--selected);
	}
	.other {
		color: var(--zinc-7);
	}
	.today {
		border-color: var(--zinc-5);
		font-weight: 700;
	}
	.on {
		background: var(--marigold);
		color: #16201b;
		font-weight: 700;
	}
</style>
