<script lang="ts">
	/** A month as a line of days, each row on a line of its own. */
	import type { ShownCalendar, ShownDay } from '$lib/core/requests/shown-rows.ts'
	import CalendarEntry from './CalendarEntry.svelte'
	import { dayUnder, type CalendarMove } from './calendar-move.svelte.ts'

	type Props = { line: ShownCalendar; base: string; from: string; move: CalendarMove }

	let { line, base, from, move }: Props = $props()

	const days = $derived(line.weeks[0]?.days ?? [])
	const spans = $derived(line.weeks[0]?.spans ?? [])

	const isOver = (date: string) => move.over !== '' && move.over <= date && date <= move.overTo
</script>

{#snippet name(day: ShownDay)}<i>{day.says.slice(0, 1)}</i>{Number(day.date.slice(8))}{/snippet}

<div class="timeline" style:--days={days.length}>
	<div class="head" aria-hidden={line.adds ? undefined : 'true'}>
		<span></span>
		<div class="along">
			{#each days as day (day.date)}
				{#if line.adds}<a
						class="day"
						class:today={day.isToday}
						href="{base}/{line.adds}?h.day={day.date}&from={from}"
						aria-label="Add on {day.says}">{@render name(day)}</a
					>{:else}<span class="day" class:today={day.isToday}>{@render name(day)}</span>{/if}
			{/each}
		</div>
	</div>
	<ul>
		{#each spans as span (span.at)}
			{@const entry = line.entries[span.at]}
			{#if entry}
				<li>
					<div class="name">
						<CalendarEntry {line} {entry} {base} {from} onmove={line.canMove ? () => move.choose(entry) : undefined} />
					</div>
					<!-- svelte-ignore a11y_no_static_element_interactions -->
					<div
						class="along"
						ondragover={(event) => move.dragOver(event, days)}
						ondrop={(event) => {
							event.preventDefault()
							void move.drop()
						}}
					>
						{#each days as day, at (day.date)}<span
								class="cell"
								style:grid-column={at + 1}
								class:weekend={/^S/.test(day.says)}
								class:today={day.isToday}
								class:over={move.held?.entry === entry && isOver(day.date) && move.refused === null}
								class:refused={move.held?.entry === entry && isOver(day.date) && move.refused !== null}
							></span>{/each}
						<div
							class="bar {line.marks[entry.row.flags?.[0] ?? -1]?.tone ?? ''}"
							class:before={!span.begins}
							class:after={!span.ends}
							style:grid-column="{span.first + 1} / {span.last + 2}"
							draggable={line.canMove}
							ondragstart={(event) => {
								event.dataTransfer?.setData('text/plain', entry.row.id)
								move.drag(entry, dayUnder(event, days.slice(span.first, span.last + 1)))
							}}
							ondragend={() => move.leave()}
						></div>
					</div>
				</li>
			{/if}
		{:else}<li class="none quiet">Nothing stands in this month.</li>{/each}
	</ul>
</div>

<style>
	.timeline {
		overflow-x: auto;
		border-top: 1px solid var(--pitch);
	}
	ul {
		margin: 0;
		padding: 0;
		list-style: none;
	}
	li,
	.head {
		display: grid;
		grid-template-columns: 15rem minmax(calc(var(--days) * 1.7rem), 1fr);
		border-bottom: 1px solid var(--zinc-2);
	}
	.head {
		position: sticky;
		top: 0;
		background: var(--limewash);
		border-color: var(--pitch);
	}
	.none {
		display: block;
		padding: 1rem;
	}
	.along {
		display: grid;
		grid-template-columns: repeat(var(--days), minmax(0, 1fr));
		min-width: 0;
	}
	.day {
		display: grid;
		justify-items: center;
		padding: 0.2rem 0;
		font: 600 0.82rem var(--head);
		font-variant-numeric: tabular-nums;
		border-left: 1px solid var(--zinc-2);
		color: inherit;
		text-decoration: none;
	}
	a.day:hover {
		background: var(--selected);
		text-decoration: underline;
	}
	i {
		font-style: normal;
		font-weight: 400;
		color: var(--zinc-7);
	}
	.name {
		position: sticky;
		left: 0;
		z-index: 1;
		display: flex;
		align-items: center;
		gap: 0.4rem;
		min-width: 0;
		min-height: 2.6rem;
		padding: 0.2rem 0.8rem;
		background: var(--paper);
		border-right: 1px solid var(--pitch);
		white-space: nowrap;
	}
	.cell {
		grid-row: 1;
		border-left: 1px solid var(--zinc-2);
	}
	.weekend {
		background: color-mix(in srgb, var(--limewash) 60%, transparent);
	}
	.today {
		background: var(--marigold-wash);
	}
	.over {
		background: var(--marigold);
	}
	.refused {
		background: repeating-linear-gradient(135deg, transparent 0 7px, var(--zinc-3) 7px 8px);
	}
	.bar {
		grid-row: 1;
		z-index: 0;
		margin: 0.5rem 2px;
		border: 1px solid var(--pitch);
		background: var(--sea);
		min-height: 1.1rem;
	}
	.bar.past {
		background: var(--oxide);
	}
	.bar.look {
		background: var(--rope);
	}
	.bar.sound,
	.bar.finished {
		background: var(--bottle);
	}
	.bar.before {
		margin-left: 0;
		border-left: 0;
	}
	.bar.after {
		margin-right: 0;
		border-right: 0;
	}
	@media screen and (max-width: 640px) {
		li,
		.head {
			grid-template-columns: 8.5rem minmax(calc(var(--days) * 1.7rem), 1fr);
		}
	}
</style>
