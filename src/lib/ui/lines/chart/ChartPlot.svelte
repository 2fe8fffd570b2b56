<script lang="ts">
	/** The columns themselves: drawn by percent, so that words stay words at any width and size. */
	import { areaOf } from './area.ts'
	import { layOutEnds } from '$lib/core/chart/end-labels.ts'
	import type { ShownBar, ShownChart } from '$lib/core/requests/shown-rows.ts'
	import ChartLegend from './ChartLegend.svelte'

	type Props = {
		line: ShownChart
		/** The key of the bar that is pressed. */
		opened: string | null
		onpress: (bar: ShownBar) => void
	}

	let { line, opened, onpress }: Props = $props()

	const isLines = $derived(line.as === 'as lines')
	const isAreas = $derived(line.as === 'as areas')
	const isAbreast = $derived(line.as === 'side by side')
	const middle = (at: number) => (100 * (at + 0.5)) / line.bars.length
	/** A line through the middles of its columns; it breaks where nothing was measured. */
	const pathOf = (series: number) =>
		line.bars
			.map(({ parts }, i) => {
				const part = parts.find((each) => each.series === series)
				if (!part) return ''
				const isOn = line.bars[i - 1]?.parts.some((each) => each.series === series)
				return `${isOn ? 'L' : 'M'}${middle(i)} ${100 - endOf(part)}`
			})
			.join('')
	const endOf = ({ from, to }: { from: number; to: number }) => (to > line.foot ? to : from)
	/** How far names at the ends of lines stand apart: one line of words, of the 15 rem that the plot is high. */
	const APART = 8
	const ends = $derived(
		(isLines || isAreas) && line.series.length > 0
			? layOutEnds(
					line.series.map((_part, s) => {
						const last = line.bars.flatMap(({ parts }) => parts.filter(({ series }) => series === s)).at(-1)
						if (!last) return null
						return isAreas ? (last.from + last.to) / 2 : endOf(last)
					}),
					APART
				)
			: []
	)
	const names = $derived(line.series.length > 0 ? line.series.map(({ label }) => label) : [''])
</script>

{#if line.series.length > 0}
	<div class:small={isLines || isAreas}>
		<ChartLegend labels={names}>
			{#snippet sign(i)}<span class="swatch s{i}" aria-hidden="true"></span>{/snippet}
		</ChartLegend>
	</div>
{/if}
<div class="plot" class:named={ends.length > 0} style:--bars={line.bars.length}>
	<div class="scale" aria-hidden="true">
		{#each line.ticks as { at, text } (at)}<span style:bottom="{at}%">{text}</span>{/each}
	</div>
	<div class="ground">
		{#each line.ticks as { at } (at)}<i class:foot={at === line.foot} style:bottom="{at}%"></i>{/each}
		{#if isAreas}
			<svg viewBox="0 0 100 100" preserveAspectRatio="none" aria-hidden="true">
				{#each names as _name, i (i)}<path
						class="a{i}"
						d={areaOf(line.bars, i, { x: middle, y: (at) => 100 - at })}
					/>{/each}
			</svg>
		{/if}
		{#if isLines}
			<svg viewBox="0 0 100 100" preserveAspectRatio="none" aria-hidden="true">
				{#each names as _name, i (i)}<path class="l{i}" d={pathOf(i)} />{/each}
			</svg>
		{/if}
		<div class="bars">
			{#each line.bars as bar, at (at)}
				<button
					aria-label={bar.says}
					aria-pressed={opened === bar.key}
					class:on={opened === bar.key}
					onclick={() => onpress(bar)}
				>
					{#if bar.total}<span class="total" style:bottom="{bar.top}%">{bar.total}</span>{/if}
					{#each bar.parts as part (part.series)}
						{#if isLines}<span class="dot s{part.series}" style:bottom="{endOf(part)}%"></span>
						{:else if !isAreas}<span
								class="part s{part.series}"
								style:bottom="{part.from}%"
								style:height="{part.to - part.from}%"
								style:left={isAbreast ? `${12 + (76 * part.series) / names.length}%` : undefined}
								style:width={isAbreast ? `${76 / names.length}%` : undefined}
							></span>{/if}
					{/each}
				</button>
			{/each}
		</div>
	</div>
	{#if ends.length > 0}
		<div class="ends" aria-hidden="true">
			{#each ends as at, i (i)}
				{#if at !== null}<span style:bottom="{at}%"><i class="swatch s{i}"></i>{names[i]}</span>{/if}
			{/each}
		</div>
	{/if}
	<div class="names" aria-hidden="true">
		{#each line.bars as { key, label }, at (at)}<span class:on={opened === key}>{label}</span>{/each}
	</div>
</div>

<style>
	.swatch {
		width: 1rem;
		height: 1rem;
	}
	.plot {
		display: grid;
		grid-template: 15rem auto / max-content minmax(0, 1fr);
		gap: 0.3rem 0.6rem;
		padding-top: 1.4rem;
	}
	.plot.named {
		grid-template-columns: max-content minmax(0, 1fr) max-content;
	}
	/* Each line is named where it ends; what would read the same over the plot is for phones. */
	.small {
		display: none;
	}
	.ends {
		position: relative;
		width: 8.5rem;
		font-size: 0.9rem;
		font-weight: 600;
	}
	.ends span {
		position: absolute;
		left: 0;
		right: 0;
		display: flex;
		align-items: center;
		gap: 0.35rem;
		transform: translateY(50%);
		overflow: hidden;
		white-space: nowrap;
		text-overflow: ellipsis;
	}
	.ends i {
		flex: none;
		width: 0.8rem;
		height: 0.8rem;
		border-radius: 50%;
	}
	.scale {
		position: relative;
		min-width: 3.2rem;
		font-size: 0.85rem;
		font-variant-numeric: tabular-nums;
		color: var(--zinc-7);
	}
	.scale span {
		position: absolute;
		right: 0;
		transform: translateY(50%);
		white-space: nowrap;
	}
	.ground {
		position: relative;
	}
	.ground i {
		position: absolute;
		left: 0;
		right: 0;
		border-top: 1px solid var(--zinc-2);
	}
	.ground i.foot {
		border-top-color: var(--pitch);
	}
	svg {
		position: absolute;
		inset: 0;
		width: 100%;
		height: 100%;
		overflow: visible;
	}
	path {
		fill: none;
		stroke-width: 2.5;
		vector-effect: non-scaling-stroke;
	}
	.bars,
	.names {
		display: grid;
		grid-template-columns: repeat(var(--bars), minmax(0, 1fr));
	}
	.bars {
		position: absolute;
		inset: 0;
	}
	.names {
		grid-column: 2;
		font-size: 0.85rem;
		text-align: center;
	}
	.names span {
		overflow: hidden;
		text-overflow: ellipsis;
		padding: 0 0.1rem;
	}
	.names .on {
		font-weight: 700;
	}
	button {
		position: relative;
		min-width: 0;
		padding: 0;
		border: 0;
		background: none;
	}
	button:hover,
	button.on {
		background: var(--selected);
	}
	button.on {
		box-shadow: inset 0 4px 0 var(--marigold);
	}
	.part {
		position: absolute;
		/* One that stands alone is no wall. */
		left: calc(50% - min(28%, 3.5rem));
		width: min(56%, 7rem);
	}
	.total {
		position: absolute;
		left: -0.6rem;
		right: -0.6rem;
		padding-bottom: 0.15rem;
		text-align: center;
		font-size: 0.85rem;
		font-weight: 650;
		font-variant-numeric: tabular-nums;
		white-space: nowrap;
	}
	.dot {
		position: absolute;
		left: calc(50% - 5px);
		width: 10px;
		height: 10px;
		transform: translateY(50%);
		border-radius: 50%;
	}
	/* On paper too: without its ground there is no bar. */
	.part,
	.dot,
	.swatch {
		print-color-adjust: exact;
	}
	/* Six that are told apart without colour too. */
	.s0 {
		background: var(--bottle);
	}
	.s1 {
		background: repeating-linear-gradient(135deg, var(--rope) 0 2px, var(--rope-wash) 2px 6px);
		border: 1px solid var(--rope);
	}
	.s2 {
		background: var(--oxide);
	}
	.s3 {
		background: radial-gradient(var(--sea) 30%, transparent 34%) 0 0 / 6px 6px var(--sea-wash);
		border: 1px solid var(--sea);
	}
	.s4 {
		background: repeating-linear-gradient(0deg, var(--zinc-7) 0 2px, var(--zinc-2) 2px 5px);
		border: 1px solid var(--zinc-7);
	}
	.s5 {
		background: repeating-linear-gradient(90deg, var(--pitch) 0 1px, var(--paper) 1px 4px);
		border: 1px solid var(--pitch);
	}
	/* Told apart without colour by their names at the end, and by an edge of their own. */
	.a0 {
		fill: var(--bottle);
	}
	.a1 {
		fill: var(--rope-wash);
		stroke: var(--rope);
	}
	.a2 {
		fill: var(--oxide);
	}
	.a3 {
		fill: var(--sea-wash);
		stroke: var(--sea);
	}
	.a4 {
		fill: var(--zinc-2);
		stroke: var(--zinc-7);
	}
	.a5 {
		fill: var(--paper);
		stroke: var(--pitch);
	}
	.l0 {
		stroke: var(--bottle);
	}
	.l1 {
		stroke: var(--rope);
		stroke-dasharray: 8 4;
	}
	.l2 {
		stroke: var(--oxide);
		stroke-dasharray: 2 3;
	}
	.l3 {
		stroke: var(--sea);
		stroke-dasharray: 12 4 2 4;
	}
	.l4 {
		stroke: var(--zinc-7);
	}
	.l5 {
		stroke: var(--pitch);
		stroke-dasharray: 4 4;
	}
	/* Of many columns a phone has room for every other name. */
	@media (max-width: 640px) {
		.small {
			display: block;
		}
		.ends {
			display: none;
		}
		.names span {
			font-size: 0.72rem;
		}
		.names span:nth-child(even) {
			visibility: hidden;
		}
		.total {
			font-size: 0.72rem;
		}
	}
</style>
