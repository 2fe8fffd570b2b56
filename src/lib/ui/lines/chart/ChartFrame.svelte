<script lang="ts" module>
	/** What somebody pressed in a chart: what it says, and by what its rows are found. */
	export interface Pressed {
		readonly key: string
		readonly says: string
		readonly filters: readonly Filter[]
	}
</script>

<script lang="ts">
	/** What stands around every chart: its title, what it leaves out, its table, its picture, and the rows of what was pressed. */
	import type { Snippet } from 'svelte'
	import type { Filter } from '$lib/core/query/filter.ts'
	import type { AppBase, ScreenPath } from '$lib/core/requests/screens.ts'
	import { page } from '$app/state'
	import { ALL_COUNTED, countedHeldBy } from '$lib/core/chart/most-counted.ts'
	import type { Charted } from '$lib/core/requests/shown-rows.ts'
	import { sayLeftOut, SAYS_PART } from '$lib/core/chart/left-out.ts'
	import { withChosen } from '../screen-address.ts'

	type Props = {
		line: Charted & { readonly id: string }
		path: ScreenPath
		base: AppBase
		from: string
		isEmpty: boolean
		/** What is left out of it, in words. */
		notes: readonly string[]
		pressed: Pressed | undefined
		/** Of it as a picture. */
		draw: () => Promise<string>
		plot: Snippet
		table: Snippet
	}

	let { line, path, base, from, isEmpty, notes, pressed, draw, plot, table }: Props = $props()

	const id = $props.id()
	let isTable = $state(false)

	const says = $derived([...notes, ...(line.leftOut > 0 ? [sayLeftOut(line.leftOut)] : [])])

	async function take(format: 'SVG' | 'PNG') {
		const [{ takePicture }, svg] = await Promise.all([import('./take-picture.ts'), draw()])
		await takePicture(line.title, svg, format)
	}
</script>

<figure aria-labelledby="{id}-title">
	<figcaption>
		<h2 id="{id}-title">{line.title}</h2>
		<span class="quiet">{says.join('; ')}</span>
		{#if line.isPart}
			<span class="quiet">{SAYS_PART}</span>
			<a
				class="btn"
				href={withChosen(page.url, countedHeldBy(line.id), ALL_COUNTED)}
				data-sveltekit-noscroll
				data-sveltekit-keepfocus>Count all rows</a
			>
		{/if}
		<span class="gap"></span>
		<button class="btn" aria-expanded={isTable} onclick={() => (isTable = !isTable)}
			>{isTable ? 'Show the chart' : 'Show the table'}</button
		>
		<details class="files">
			<summary class="btn">Picture</summary>
			<ul>
				{#each ['SVG', 'PNG'] as const as format (format)}
					<li><button onclick={() => take(format)}>{format}</button></li>
				{/each}
			</ul>
		</details>
	</figcaption>
	{#if isEmpty}
		<p class="quiet none">There is nothing to show yet.</p>
	{:else if isTable}{@render table()}
	{:else}{@render plot()}{/if}
	{#if pressed}
		<div class="rows">
			<h3>{pressed.says}</h3>
			{#await import('../behind/RowsBehind.svelte') then { default: RowsBehind }}
				{#key pressed.key}<RowsBehind {line} {path} {base} {from} filters={pressed.filters} />{/key}
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
