<script lang="ts">
	/** Columns over a scale, each a key that shows its rows or sets what other lines go by; the table behind is one press away. */
	import { goto } from '$app/navigation'
	import type { AppBase, ScreenPath, ShownLine } from '$lib/core/requests/screens.ts'
	import type { ShownBar } from '$lib/core/requests/shown-rows.ts'
	import { sayLeftOut } from '../behind/left-out.ts'
	import { addressNow } from '../address-now.ts'
	import { withChosen, withTyped } from '../screen-address.ts'
	import ChartPlot from './ChartPlot.svelte'

	type Props = { line: Extract<ShownLine, { kind: 'chart' }>; path: ScreenPath; base: AppBase; from: string }

	let { line, path, base, from }: Props = $props()

	const id = $props.id()
	let isTable = $state(false)
	let opened = $state<string | undefined>()

	const bar = $derived(line.bars.find(({ key }) => key === opened))
	const notes = $derived([
		...(line.more > 0 ? [`${line.more} more ${line.more === 1 ? 'group is' : 'groups are'} not shown`] : []),
		...(line.leftOut > 0 ? [sayLeftOut(line.leftOut)] : [])
	])

	function press({ key }: ShownBar) {
		if (line.holds === '') return void (opened = opened === key ? undefined : key)
		const to = line.isWords ? withTyped : withChosen
		void goto(to(addressNow(), line.holds, key === line.chosen ? '' : key), { keepFocus: true, noScroll: true })
	}
</script>

<figure aria-labelledby="{id}-title">
	<figcaption>
		<h2 id="{id}-title">{line.title}</h2>
		<span class="quiet">{notes.join('; ')}</span>
		<span class="gap"></span>
		<button class="btn" aria-expanded={isTable} onclick={() => (isTable = !isTable)}
			>{isTable ? 'Show the chart' : 'Show the table'}</button
		>
		<details class="files">
			<summary class="btn">Picture</summary>
			<ul>
				{#each ['SVG', 'PNG'] as const as format (format)}
					<li>
						<button onclick={() => import('./chart-picture.ts').then(({ takePicture }) => takePicture(line, format))}
							>{format}</button
						>
					</li>
				{/each}
			</ul>
		</details>
	</figcaption>
	{#if line.bars.length === 0}
		<p class="quiet none">There is nothing to show yet.</p>
	{:else if isTable}
		{#await import('./ChartTable.svelte') then { default: ChartTable }}<ChartTable {line} />{:catch}
			<p class="says-wrong none">The table could not be loaded: no signal.</p>
		{/await}
	{:else}
		<ChartPlot {line} opened={line.holds === '' ? (opened ?? null) : line.chosen || null} onpress={press} />
	{/if}
	{#if bar}
		<div class="rows">
			<h3>{bar.says}</h3>
			{#await import('../behind/RowsBehind.svelte') then { default: RowsBehind }}
				{#key bar.key}<RowsBehind {line} {path} {base} {from} filters={bar.filters} />{/key}
			{:catch}
				<p class="says-wrong">Its rows could not be loaded: no signal.</p>
			{/await}
		</div>
	{/if}
</figure>

<style>
	figure {
		margin: 0;
		padding: 0.6rem 1.2rem 1rem;
	}
	figcaption {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.3rem 0.8rem;
		margin-bottom: 0.6rem;
	}
	h2 {
		font-size: 1.05rem;
	}
	h3 {
		font: 650 0.95rem var(--head);
		margin: 0.4rem 0 0.2rem;
	}
	.gap {
		flex: 1;
	}
	.btn {
		min-height: 44px;
	}
	.files {
		position: relative;
	}
	summary {
		list-style: none;
		cursor: pointer;
	}
	.files ul {
		position: absolute;
		right: 0;
		z-index: 9;
		margin: 0.2rem 0 0;
		padding: 0.3rem 0;
		list-style: none;
		background: var(--paper);
		border: 1px solid var(--pitch);
		border-radius: 3px;
		box-shadow: 0 10px 30px rgb(0 0 0 / 20%);
	}
	.files button {
		width: 100%;
		min-height: 44px;
		padding: 0.3rem 1.4rem;
		border: 0;
		background: none;
		color: inherit;
		text-align: left;
	}
	.none {
		padding: 1rem 0;
	}
	.rows {
		margin-top: 0.6rem;
		border-top: 2px solid var(--marigold);
	}
	/* Pictures are for a desk. */
	@media (max-width: 800px) {
		.files {
			display: none;
		}
	}
</style>
