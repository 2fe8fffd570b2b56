<script lang="ts">
	/** Rows on their days: by month, by week, or along a line of days. */
	import { page } from '$app/state'
	import type { ScreenPath, ShownLine } from '$lib/core/requests/screens.ts'
	import { CALENDAR_VIEWS, periodHeldBy } from '$lib/core/schedule/shown-period.ts'
	import { usePressNote } from '../press-note.svelte.ts'
	import { withChosen } from '../screen-address.ts'
	import { CalendarMove } from './calendar-move.svelte.ts'
	import CalendarDays from './CalendarDays.svelte'
	import CalendarWeek from './CalendarWeek.svelte'

	type Props = { line: Extract<ShownLine, { kind: 'calendar' }>; path: ScreenPath; base: string; from: string }

	let { line, path, base, from }: Props = $props()

	const note = usePressNote()
	const move = new CalendarMove(() => ({ line, path }), note)

	/** More than these in a day of a month, and the month would not fit. */
	const LANES = 4
	const holds = $derived(periodHeldBy(line.id))
	const to = (key: string) => withChosen(page.url, holds, key)
	const heading = $derived(line.weeks[0]?.days ?? [])
</script>

<svelte:window onkeydown={(event) => event.key === 'Escape' && move.leave()} />

<div class="calendar" aria-label="{line.title}, {line.name}" role="group">
	<header>
		<a class="step" href={to(line.before)} data-sveltekit-noscroll aria-label="Before">‹</a>
		<h2>{line.name}</h2>
		<a class="step" href={to(line.after)} data-sveltekit-noscroll aria-label="After">›</a>
		{#if line.today !== line.key}<a class="btn" href={to(line.today)} data-sveltekit-noscroll>Today</a>{/if}
		<nav aria-label="How the days stand">
			{#each CALENDAR_VIEWS as view (view)}
				<a href={to(line.views[view])} data-sveltekit-noscroll aria-current={line.view === view ? 'true' : undefined}
					>{view.replace(/^a /, '')}</a
				>
			{/each}
		</nav>
	</header>
	{#if move.held && !move.held.isDragged}
		{#await import('./MoveEntry.svelte') then { default: MoveEntry }}
			{#key move.held.entry}<MoveEntry {line} entry={move.held.entry} {move} />{/key}
		{:catch}<p class="says" role="alert">This could not be loaded: no signal. Try again later.</p>{/await}
	{:else if move.held && move.refused !== null}<p class="says" role="status">{move.refused}</p>{/if}
	{#if line.view === 'a timeline'}
		{#await import('./CalendarTimeline.svelte') then { default: CalendarTimeline }}
			<CalendarTimeline {line} {base} {from} {move} />
		{:catch}<p class="says" role="alert">This could not be loaded: no signal. Try again later.</p>{/await}
	{:else}
		<div class="large">
			<div class="names" aria-hidden="true">
				<span></span>
				{#each heading as day (day.date)}<span
						>{day.says.slice(0, line.view === 'a week' ? undefined : 3).replace(/,.*/, '')}</span
					>{/each}
			</div>
			{#each line.weeks as week (week.key)}
				<CalendarWeek {line} {week} {base} {from} {move} {holds} lanes={line.view === 'a week' ? null : LANES} />
			{/each}
		</div>
		<CalendarDays {line} {base} {from} {move} />
	{/if}
	{#if line.isCut}<p class="quiet cut">
			More stand here than are shown. Look at a week, or narrow the screen down.
		</p>{/if}
</div>

<style>
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.3rem 0.6rem;
		padding: 0.6rem 1rem;
	}
	h2 {
		min-width: 11rem;
		text-align: center;
		font-size: 1.15rem;
	}
	.step {
		display: grid;
		place-items: center;
		min-width: 44px;
		min-height: 44px;
		font: 700 1.4rem var(--head);
		color: inherit;
		text-decoration: none;
		border: 1px solid var(--zinc-3);
		background: var(--paper);
	}
	nav {
		display: flex;
		margin-left: auto;
	}
	nav a {
		display: grid;
		align-items: center;
		min-height: 44px;
		padding: 0 0.9rem;
		color: inherit;
		text-decoration: none;
		border-bottom: 3px solid transparent;
		font-family: var(--head);
	}
	nav a[aria-current] {
		font-weight: 700;
		border-color: var(--marigold);
	}
	.names {
		display: grid;
		grid-template-columns: 2.4rem repeat(7, minmax(0, 1fr));
		background: var(--limewash);
		border-block: 1px solid var(--pitch);
	}
	.names span {
		padding: 0.25rem 0.5rem;
		font: 600 0.88rem var(--head);
	}
	.says {
		padding: 0.5rem 1rem;
		background: var(--oxide-wash);
		color: var(--oxide);
		font-weight: 600;
	}
	.cut {
		padding: 0.6rem 1rem;
	}
	@media screen and (min-width: 1024px) {
		.calendar :global(.small) {
			display: none;
		}
	}
	@media print {
		.calendar :global(.small),
		nav,
		.step,
		.btn {
			display: none;
		}
	}
	@media screen and (max-width: 1023px) {
		.large {
			display: none;
		}
		h2 {
			flex: 1;
			min-width: 0;
		}
		nav {
			flex-basis: 100%;
			margin: 0;
		}
	}
</style>
