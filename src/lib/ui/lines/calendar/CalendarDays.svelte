<script lang="ts">
	/** On a small screen: the days as a small month that says how much stands on each, and under it what that is. */
	import type { ShownCalendar } from '$lib/core/requests/shown-rows.ts'
	import CalendarEntry from './CalendarEntry.svelte'
	import type { CalendarMove } from './calendar-move.svelte.ts'

	type Props = { line: ShownCalendar & { id: string }; base: string; from: string; move: CalendarMove }

	let { line, base, from, move }: Props = $props()

	const days = $derived(line.weeks.flatMap((week) => week.days))
	const onDay = (date: string) => line.entries.filter((entry) => entry.from <= date && date <= entry.to)
	const held = $derived(days.filter(({ date, isInside }) => isInside && onDay(date).length > 0))
	const idOf = (date: string) => `${line.id}-${date}`
</script>

<div class="small">
	<div class="days" aria-hidden="true">
		{#each ['M', 'T', 'W', 'T', 'F', 'S', 'S'] as letter, i (i)}<span class="letter">{letter}</span>{/each}
		{#each days as { date, isInside, isToday } (date)}
			{@const count = isInside ? onDay(date).length : 0}
			<button
				type="button"
				tabindex="-1"
				class:outside={!isInside}
				class:today={isToday}
				disabled={count === 0}
				onclick={() => document.getElementById(idOf(date))?.scrollIntoView({ block: 'start' })}
			>
				<span class="no">{Number(date.slice(8))}</span>
				<span class="count">{count || ''}</span>
			</button>
		{/each}
	</div>
	{#each held as { date, says, isToday } (date)}
		<section id={idOf(date)} aria-label={says}>
			<h3 class:today={isToday}>
				{says}{isToday ? ', today' : ''}
				{#if line.adds}<a class="adds" href="{base}/{line.adds}?h.day={date}&from={from}" aria-label="Add on {says}"
						>Add</a
					>{/if}
			</h3>
			<ul>
				{#each onDay(date) as entry (entry.row.id)}
					<li>
						<CalendarEntry
							{line}
							{entry}
							{base}
							{from}
							isWhole
							onmove={line.canMove ? () => move.choose(entry) : undefined}
						/>
					</li>
				{/each}
			</ul>
		</section>
	{:else}<p class="quiet none">Nothing stands in this time.</p>{/each}
	{#if line.adds}<p class="other"><a class="btn" href="{base}/{line.adds}?from={from}">Add on another day</a></p>{/if}
</div>

<style>
	.days {
		display: grid;
		grid-template-columns: repeat(7, 1fr);
		border-top: 1px solid var(--pitch);
	}
	.letter {
		text-align: center;
		font-size: 0.85rem;
		color: var(--zinc-7);
		padding: 0.25rem 0;
	}
	button {
		display: grid;
		justify-items: center;
		align-content: start;
		min-height: 48px;
		padding: 0.2rem 0;
		border: 0;
		border-top: 1px solid var(--zinc-2);
		background: none;
		color: inherit;
		font: inherit;
	}
	.no {
		font: 600 1rem var(--head);
	}
	.outside .no {
		color: var(--zinc-5);
		font-weight: 400;
	}
	.count {
		min-width: 1.5rem;
		font-size: 0.85rem;
		text-align: center;
	}
	.count:not(:empty) {
		background: var(--limewash);
		border: 1px solid var(--zinc-3);
	}
	button.today {
		box-shadow: inset 0 4px 0 var(--marigold);
	}
	section {
		scroll-margin-top: 3.5rem;
	}
	h3 {
		padding: 0.5rem 1rem;
		font-size: 1rem;
		background: var(--limewash);
		border-block: 1px solid var(--pitch);
	}
	.other {
		padding: 0.8rem 1rem;
	}
	.adds {
		float: right;
		font-size: 0.95rem;
	}
	h3.today {
		box-shadow: inset 4px 0 0 var(--marigold);
	}
	ul {
		margin: 0;
		padding: 0;
		list-style: none;
	}
	li {
		display: flex;
		gap: 0.7rem;
		align-items: center;
		min-height: 52px;
		padding: 0.3rem 1rem;
		border-bottom: 1px solid var(--zinc-2);
	}
	.none {
		padding: 1rem;
	}
</style>
