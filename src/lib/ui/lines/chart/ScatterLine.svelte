<script lang="ts">
	/** Dots at two numbers of their rows. The table behind it holds the same keys, for who cannot point at a dot. */
	import type { AppBase, ScreenPath, ShownLine } from '$lib/core/requests/screens.ts'
	import { sayMore } from '$lib/core/chart/left-out.ts'
	import ChartLegend from './ChartLegend.svelte'
	import ChartFrame from './ChartFrame.svelte'

	type Props = { line: Extract<ShownLine, { kind: 'scatter' }>; path: ScreenPath; base: AppBase; from: string }

	let { line, path, base, from }: Props = $props()

	let opened = $state<string | undefined>()

	const pressed = $derived(line.dots.find(({ key }) => key === opened))
	const notes = $derived([
		...(line.blank === 0
			? []
			: [`${line.blank} ${line.blank === 1 ? 'row has' : 'rows have'} no number for one of the two`]),
		...sayMore(line.more)
	])
	const press = (key: string) => (opened = opened === key ? undefined : key)
</script>

<ChartFrame
	{...{ line, path, base, from, notes, pressed }}
	isEmpty={line.dots.length === 0}
	draw={async () => (await import('./scatter-svg.ts')).scatterAsSvg(line)}
>
	{#snippet plot()}
		{#if line.series.length > 0}
			<ChartLegend labels={line.series.map(({ label }) => label)}>
				{#snippet sign(i)}<span class="dot alone s{i}" aria-hidden="true"></span>{/snippet}
			</ChartLegend>
		{/if}
		<!-- For eyes and pointers; the table says the same in words and has a key for each. -->
		<div class="plot" aria-hidden="true">
			<strong class="up">{line.up.label}</strong>
			<div class="scale">
				{#each line.up.ticks as { at, text } (at)}<span style:bottom="{at}%">{text}</span>{/each}
			</div>
			<div class="ground">
				{#each line.up.ticks as { at } (at)}<i class="level" style:bottom="{at}%"></i>{/each}
				{#each line.across.ticks as { at } (at)}<i class="upright" style:left="{at}%"></i>{/each}
				{#each line.dots as { key, x, y, radius, series, says } (key)}
					<button
						tabindex="-1"
						class="dot s{series}"
						class:on={opened === key}
						style:left="{x}%"
						style:bottom="{y}%"
						style:width="{2 * radius}px"
						style:height="{2 * radius}px"
						title={says}
						onclick={() => press(key)}
					></button>
				{/each}
			</div>
			<div class="along">
				{#each line.across.ticks as { at, text } (at)}<span style:left="{at}%">{text}</span>{/each}
			</div>
			<strong class="across">{line.across.label}</strong>
		</div>
	{/snippet}
	{#snippet table()}
		<ul class="words">
			{#each line.dots as { key, says } (key)}
				<li><button class="link" aria-pressed={opened === key} onclick={() => press(key)}>{says}</button></li>
			{/each}
		</ul>
	{/snippet}
</ChartFrame>

<style>
	.dot.alone {
		position: static;
		width: 12px;
		height: 12px;
		transform: none;
	}
	.plot {
		display: grid;
		grid-template: auto 18rem 1.4rem auto / max-content minmax(0, 1fr);
		gap: 0.3rem 0.6rem;
		padding: 0 1rem 0 0;
		font-size: 0.85rem;
		font-variant-numeric: tabular-nums;
	}
	.up {
		grid-column: 1 / -1;
	}
	.across {
		grid-column: 2;
		text-align: right;
	}
	.scale {
		position: relative;
		min-width: 4rem;
		color: var(--zinc-7);
	}
	.scale span {
		position: absolute;
		right: 0;
		transform: translateY(50%);
		white-space: nowrap;
	}
	.along {
		grid-column: 2;
		position: relative;
		color: var(--zinc-7);
	}
	.along span {
		position: absolute;
		transform: translateX(-50%);
		white-space: nowrap;
	}
	.ground {
		position: relative;
		border: solid var(--zinc-5);
		border-width: 0 0 1px 1px;
	}
	i {
		position: absolute;
	}
	.level {
		left: 0;
		right: 0;
		border-top: 1px solid var(--zinc-2);
	}
	.upright {
		top: 0;
		bottom: 0;
		border-left: 1px solid var(--zinc-2);
	}
	.dot {
		position: absolute;
		padding: 0;
		border: 1px solid var(--paper);
		border-radius: 50%;
		transform: translate(-50%, 50%);
		print-color-adjust: exact;
	}
	.dot:hover,
	.dot.on {
		outline: 3px solid var(--marigold);
		z-index: 1;
	}
	.s0 {
		background: var(--bottle);
	}
	/* Told apart without colour too. */
	.s1 {
		background: var(--oxide);
		border-radius: 0;
	}
	.s2 {
		background: var(--paper);
		border: 3px solid var(--sea);
	}
	.s3 {
		background: var(--rope);
		border-radius: 0 50% 50% 50%;
	}
	.s4 {
		background: var(--paper);
		border: 3px solid var(--zinc-7);
		border-radius: 0;
	}
	.s5 {
		background: var(--pitch);
		border-radius: 50% 0;
	}
	.words {
		max-height: 24rem;
		overflow-y: auto;
		margin: 0;
		padding: 0;
		list-style: none;
		columns: 18rem;
	}
	.link {
		min-height: 44px;
		padding: 0;
		border: 0;
		background: none;
		color: inherit;
		text-align: left;
		text-decoration: underline;
	}
	@media (max-width: 640px) {
		.along span:nth-child(even) {
			visibility: hidden;
		}
	}
</style>
