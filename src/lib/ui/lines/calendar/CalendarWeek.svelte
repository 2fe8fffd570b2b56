<script lang="ts">
	/** Seven days side by side, with what stands on them. */
	import { page } from '$app/state'
	import type { ShownCalendar, ShownWeek } from '$lib/core/requests/shown-rows.ts'
	import { withChosen } from '../screen-address.ts'
	import CalendarEntry from './CalendarEntry.svelte'
	import { dayUnder, type CalendarMove } from './calendar-move.svelte.ts'

	type Props = {
		line: ShownCalendar
		week: ShownWeek
		base: string
		from: string
		move: CalendarMove
		/** The name under which the address says which days are shown. */
		holds: string
		/** So many stand one under the other; all, where there is room. */
		lanes: number | null
	}

	let { line, week, base, from, move, holds, lanes }: Props = $props()

	const isWhole = $derived(lanes === null)
	const shown = $derived(week.spans.filter(({ lane }) => lanes === null || lane < lanes))
	/** Of what stands one under the other, and of what says how much is left out. */
	const rows = $derived(Math.max(0, ...week.spans.map(({ lane }) => Math.min(lane, lanes ?? lane) + 1)))
	const hiddenOn = (day: number) =>
		week.spans.filter(({ lane, first, last }) => lanes !== null && lane >= lanes && first <= day && day <= last).length
</script>

<div class="week" class:whole={isWhole} role="group" aria-label="Week {week.number}">
	{#if isWhole}<span class="number">{week.number}</span>{:else}<a
			class="number"
			href={withChosen(page.url, holds, week.key)}
			data-sveltekit-noscroll
			aria-label="Week {week.number} alone">{week.number}</a
		>{/if}
	<!-- svelte-ignore a11y_no_static_element_interactions -->
	<div
		class="days"
		style:--rows={rows}
		ondragover={(event) => move.dragOver(event, week.days)}
		ondrop={(event) => {
			event.preventDefault()
			void move.drop()
		}}
	>
		{#each week.days as day, at (day.date)}
			{@const isOver = move.over !== '' && move.over <= day.date && day.date <= move.overTo}
			<div
				class="day"
				style:grid-column={at + 1}
				class:outside={!day.isInside}
				class:weekend={at > 4}
				class:today={day.isToday}
				class:over={isOver && move.refused === null}
				class:refused={isOver && move.refused !== null}
			>
				<span class="visually-hidden">{day.says}</span>
				{#if line.adds}<a
						class="no"
						href="{base}/{line.adds}?h.day={day.date}&from={from}"
						aria-label="Add on {day.says}">{Number(day.date.slice(8))}<span class="plus" aria-hidden="true">+</span></a
					>{:else}<span class="no" aria-hidden="true">{Number(day.date.slice(8))}</span>{/if}
			</div>
		{/each}
		{#each shown as span (span.at)}
			{@const entry = line.entries[span.at]}
			{#if entry}
				<div
					class="entry"
					class:before={!span.begins}
					class:after={!span.ends}
					class:held={move.held?.entry === entry}
					style:grid-column="{span.first + 1} / {span.last + 2}"
					style:grid-row={span.lane + 2}
					draggable={line.canMove}
					ondragstart={(event) => {
						event.dataTransfer?.setData('text/plain', entry.row.id)
						move.drag(entry, dayUnder(event, week.days.slice(span.first, span.last + 1)))
					}}
					ondragend={() => move.leave()}
				>
					<CalendarEntry
						{line}
						{entry}
						{base}
						{from}
						{isWhole}
						onmove={line.canMove ? () => move.choose(entry) : undefined}
					/>
				</div>
			{/if}
		{/each}
		{#each week.days as day, at (day.date)}
			{@const hidden = hiddenOn(at)}
			{#if hidden > 0}<a
					class="more"
					style:grid-column={at + 1}
					style:grid-row={(lanes ?? 0) + 2}
					href={withChosen(page.url, holds, week.key)}
					data-sveltekit-noscroll>{hidden} more<span class="visually-hidden"> on {day.says}</span></a
				>{/if}
		{/each}
	</div>
</div>

<style>
	.week {
		display: grid;
		grid-template-columns: 2.4rem minmax(0, 1fr);
		border-bottom: 1px solid var(--zinc-3);
	}
	.number {
		padding: 0.35rem 0;
		text-align: center;
		font: 600 0.85rem var(--mono);
		color: var(--zinc-7);
		background: var(--limewash);
		border-right: 1px solid var(--pitch);
	}
	.days {
		display: grid;
		grid-template-columns: repeat(7, minmax(0, 1fr));
		grid-template-rows: 1.7rem repeat(var(--rows), minmax(1.75rem, auto)) 1fr;
		gap: 2px 0;
		min-height: 6.4rem;
	}
	.whole .days {
		min-height: 22rem;
	}
	.day {
		grid-row: 1 / -1;
		padding: 0.25rem 0.5rem;
		border-right: 1px solid var(--zinc-2);
	}
	.weekend {
		background: color-mix(in srgb, var(--limewash) 60%, transparent);
	}
	.no {
		font: 650 0.95rem var(--head);
		font-variant-numeric: tabular-nums;
	}
	a.no {
		display: flex;
		/* Wide enough to be met (WCAG 2.2, 2.5.8). */
		width: fit-content;
		min-width: 3rem;
		min-height: 24px;
		gap: 0.3rem;
		color: inherit;
		text-decoration: none;
	}
	.plus {
		visibility: hidden;
	}
	a.no:hover .plus,
	a.no:focus-visible .plus {
		visibility: visible;
	}
	.outside .no {
		color: var(--zinc-5);
		font-weight: 400;
	}
	.today {
		box-shadow: inset 0 4px 0 var(--marigold);
	}
	.today .no {
		text-decoration: underline;
		text-decoration-thickness: 2px;
		text-underline-offset: 3px;
	}
	.over {
		background: var(--marigold-wash);
		box-shadow: inset 0 4px 0 var(--marigold);
	}
	.refused {
		background: repeating-linear-gradient(135deg, transparent 0 7px, var(--zinc-3) 7px 8px);
	}
	.entry {
		position: relative;
		display: flex;
		align-items: center;
		gap: 0.35rem;
		min-width: 0;
		margin: 0 3px;
		padding: 0.1rem 0.4rem;
		border: 1px solid var(--zinc-3);
		background: var(--paper);
		font-size: 0.92rem;
		white-space: nowrap;
	}
	.whole .entry {
		flex-wrap: wrap;
		align-items: start;
		padding-block: 0.4rem;
		white-space: normal;
		overflow-wrap: anywhere;
	}
	.entry.before {
		margin-left: 0;
		border-left: 0;
	}
	.entry.after {
		margin-right: 0;
		border-right: 0;
	}
	.entry.held {
		outline: 3px solid var(--marigold);
		outline-offset: -1px;
	}
	.more {
		padding: 0 0.5rem;
		font-size: 0.88rem;
		color: var(--sea);
		white-space: nowrap;
	}
</style>
