<script lang="ts">
	/** Days as a year planner has them: a row for each month, and each day a key, the deeper the more there is of it. */
	import type { AppBase, ScreenPath, ShownLine } from '$lib/core/requests/screens.ts'
	import type { PlannedDay } from '$lib/core/requests/shown-rows.ts'
	import ChartLegend from './ChartLegend.svelte'
	import ChartFrame from './ChartFrame.svelte'
	import { setHeld } from './press.ts'

	type Props = { line: Extract<ShownLine, { kind: 'days' }>; path: ScreenPath; base: AppBase; from: string }

	let { line, path, base, from }: Props = $props()

	let opened = $state<string | undefined>()

	const numbers = Array.from({ length: 31 }, (_each, i) => i + 1)
	const all = $derived(line.months.flatMap(({ days }) => days))
	const pressed = $derived(all.find(({ key }) => key === opened))
	const on = $derived(line.holds === '' ? opened : line.chosen)
	const notes = $derived(
		line.more === 0
			? []
			: [`${line.more ?? 'thousands of'} earlier ${line.more === 1 ? 'day is' : 'days are'} not shown`]
	)

	function press({ key }: PlannedDay) {
		if (line.holds === '') opened = opened === key ? undefined : key
		else setHeld(line, key)
	}
</script>

<ChartFrame
	{...{ line, path, base, from, notes, pressed }}
	isEmpty={line.months.length === 0}
	draw={async () => (await import('./days-svg.ts')).daysAsSvg(line)}
>
	{#snippet plot()}
		<ChartLegend labels={line.depths.map(({ text }) => `up to ${text}`)}>
			{#snippet sign(i)}<span class="swatch d{line.depths[i]?.depth}" aria-hidden="true"></span>{/snippet}
			{#snippet after()}<li><span class="week" aria-hidden="true"></span>a week begins</li>{/snippet}
		</ChartLegend>
		<div class="scroll">
			<table>
				<thead aria-hidden="true"
					><tr
						><td></td>{#each numbers as number (number)}<th>{number}</th>{/each}</tr
					></thead
				>
				<tbody>
					{#each line.months as { label, days } (label)}
						<tr>
							<th scope="row">{label}</th>
							{#each days as day (day.key)}
								<td class:monday={day.isMonday}>
									<button
										class="d{day.depth}"
										aria-label={day.says}
										title={day.says}
										aria-pressed={on === day.key}
										onclick={() => press(day)}>{day.text}</button
									>
								</td>
							{/each}
						</tr>
					{/each}
				</tbody>
			</table>
		</div>
	{/snippet}
	{#snippet table()}
		<div class="scroll tall">
			<table class="ruled">
				<tbody>
					{#each all.filter(({ depth }) => depth > 0) as { key, says } (key)}
						<tr><th scope="row">{says.slice(0, says.indexOf(':'))}</th><td>{says.slice(says.indexOf(':') + 2)}</td></tr>
					{/each}
				</tbody>
			</table>
		</div>
	{/snippet}
</ChartFrame>

<style>
	.swatch {
		width: 1rem;
		height: 1rem;
	}
	.scroll {
		overflow-x: auto;
	}
	.tall {
		max-height: 24rem;
	}
	table:not(.ruled) {
		width: 100%;
		table-layout: fixed;
		border-collapse: collapse;
		font-variant-numeric: tabular-nums;
	}
	thead td,
	tbody th {
		width: 4.6rem;
	}
	.ruled tbody th {
		width: 12rem;
	}
	th {
		padding: 0;
		font-size: 0.85rem;
		font-weight: 600;
		text-align: left;
		white-space: nowrap;
	}
	thead th {
		text-align: center;
		font-weight: 400;
		color: var(--zinc-7);
	}
	td {
		padding: 1px;
	}
	.monday,
	.week {
		border-left: 2px solid var(--pitch);
	}
	.week {
		height: 1rem;
	}
	button {
		display: block;
		width: 100%;
		height: 1.9rem;
		padding: 0;
		border: 0;
		overflow: hidden;
		font-size: 0.78rem;
		color: var(--pitch);
		background: var(--limewash);
	}
	button[aria-pressed='true'] {
		box-shadow: inset 0 0 0 3px var(--marigold);
	}
	.d1,
	.d2,
	.d3,
	.d4 {
		print-color-adjust: exact;
	}
	.d1 {
		background: color-mix(in oklab, var(--bottle) 18%, var(--paper));
	}
	.d2 {
		background: color-mix(in oklab, var(--bottle) 45%, var(--paper));
	}
	.d3 {
		color: var(--paper);
		background: color-mix(in oklab, var(--bottle) 92%, var(--paper));
	}
	.d4 {
		color: var(--paper);
		background: color-mix(in oklab, var(--bottle) 55%, var(--pitch));
	}
	@media (max-width: 800px) {
		table:not(.ruled) {
			min-width: 46rem;
		}
	}
</style>
