<script lang="ts">
	/** What stands in a column, counted and drawn as bars; a press on one filters by it. */
	import { scaleLinear } from 'd3-scale'
	import { onDestroy, onMount } from 'svelte'
	import type { Filter } from '$lib/core/query/filter.ts'
	import { isHiddenCell } from '$lib/core/query/wire.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import type { Groups } from '$lib/core/requests/rows.ts'
	import { showCell } from '$lib/core/requests/show-cell.ts'
	import { ask } from '../send.ts'
	import { filterOf, nameOf } from '../cells/column-values.ts'
	import type { Listing } from './grid-rows.svelte.ts'
	import { listingQuery } from './grid-rows.svelte.ts'
	import { showFigure } from '../count.ts'

	type Props = {
		table: number
		column: ShownColumn
		/** The filters that are set: only those rows are counted. */
		listing: Listing
		onfilter: (filter: Filter) => void
		onclose: () => void
	}

	let { table, column, listing, onfilter, onclose }: Props = $props()

	let groups = $state.raw<Groups | null | undefined>()
	let wrong = $state('')
	const ending = new AbortController()
	onDestroy(() => ending.abort())

	onMount(async () => {
		const answer = await ask(`/rows/${table}/groups?column=${column.id}&${listingQuery(listing)}`, {
			signal: ending.signal
		})
		if (answer.ok) groups = answer.value
		else if (!ending.signal.aborted) wrong = answer.refusal.message
	})

	const count = (rows: number) => `${showFigure(rows)} ${rows === 1 ? 'row' : 'rows'}`
	const longest = $derived(Math.max(1, groups?.blank ?? 0, ...(groups?.groups.map(({ rows }) => rows) ?? [])))
	/** In hundredths of the bar's place; whatever there is at all can be seen. */
	const length = $derived(scaleLinear([0, longest], [0, 100]))
	const others = $derived(groups && groups.by === 'value' ? groups.values - groups.groups.length : 0)
	const isSpread = $derived(groups !== undefined && groups !== null && groups.least !== null)

	const blank = $derived<Filter>({ column: column.id, is: 'blank', text: '' })

	function focus(node: HTMLElement) {
		node.focus()
	}
</script>

{#snippet bar(name: string, rows: number, filter: Filter | undefined, quiet: boolean)}
	<li class:quiet>
		{#if filter}
			<button class="name" title="Show only these rows" onclick={() => onfilter(filter)}>{name}</button>
		{:else}
			<span class="name">{name}</span>
		{/if}
		<span class="place" aria-hidden="true"><span class="bar" style:width="{Math.max(1, length(rows))}%"></span></span>
		<span class="num">{showFigure(rows)}</span>
	</li>
{/snippet}

<header>
	<h2>What is in {column.name}</h2>
	<button class="btn plain" use:focus onclick={onclose}>Close</button>
</header>
{#if wrong}
	<p class="says-wrong" role="alert">{wrong}</p>
{:else if groups === undefined}
	<p role="status">Counting…</p>
{:else if groups === null}
	<p>
		The values of this column are not counted. Words, choices, numbers, dates and references are, unless they are worked
		out from other rows for each reader.
	</p>
{:else}
	{@const shown = { column, by: groups.by }}
	<p class="quiet" role="status">
		{count(groups.rows)}{listing.filters.length > 0 ? ' found' : ''} · {showFigure(groups.values)} different
		{groups.values === 1 ? 'value' : 'values'}{groups.unseen > 0 ? ` · kept from you in ${count(groups.unseen)}` : ''}
	</p>
	{#if isSpread}
		<dl>
			<div>
				<dt>{groups.mean === null ? 'earliest' : 'least'}</dt>
				<dd>{showCell(column, groups.least)}</dd>
			</div>
			<div>
				<dt>{groups.mean === null ? 'latest' : 'most'}</dt>
				<dd>{showCell(column, groups.most)}</dd>
			</div>
			{#if groups.mean !== null}<div>
					<dt>mean</dt>
					<dd>{showCell(column, Number(groups.mean.toPrecision(6)))}</dd>
				</div>{/if}
		</dl>
	{/if}
	{#if groups.rows === 0}<p>There are no rows to count.</p>{/if}
	<ul>
		{#each groups.groups as group, i (i)}
			{@render bar(nameOf(shown, group), group.rows, filterOf(shown, group), isHiddenCell(group.value))}
		{/each}
		{#if groups.blank > 0}{@render bar('blank', groups.blank, blank, true)}{/if}
	</ul>
	{#if others > 0}<p class="quiet">and {showFigure(others)} more, each in fewer rows</p>{/if}
{/if}

<style>
	header {
		display: flex;
		justify-content: space-between;
		align-items: baseline;
		gap: 1rem;
	}
	ul {
		list-style: none;
		margin: 0.6rem 0 0;
		padding: 0;
		display: grid;
		gap: 2px;
	}
	li {
		display: grid;
		grid-template-columns: minmax(6rem, 11rem) minmax(0, 1fr) auto;
		gap: 0.6rem;
		align-items: center;
		min-height: 28px;
	}
	.name {
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
		text-align: left;
		border: 0;
		background: none;
		padding: 0;
		font: inherit;
		color: var(--pitch);
	}
	button.name {
		text-decoration: underline;
		text-decoration-color: var(--zinc-5);
		text-underline-offset: 3px;
		cursor: pointer;
	}
	.quiet .name {
		color: var(--zinc-7);
	}
	.place {
		height: 14px;
		border-left: 1px solid var(--zinc-5);
	}
	.bar {
		display: block;
		height: 100%;
		background: var(--sea);
	}
	.quiet .bar {
		background: var(--zinc-3);
	}
	.num {
		font-variant-numeric: tabular-nums;
		text-align: right;
	}
	dl {
		display: flex;
		gap: 1.4rem;
		margin: 0.5rem 0 0;
	}
	dl div {
		display: grid;
	}
	dt {
		color: var(--zinc-7);
		font-size: 0.85rem;
	}
	dd {
		margin: 0;
		font-weight: 700;
		font-variant-numeric: tabular-nums;
	}
</style>
