<script lang="ts">
	/** What is in sight on the map, in words: the nearest first, once it is known where one is. */
	import { page } from '$app/state'
	import { sayDistance } from '$lib/core/map/mercator.ts'
	import type { ShownMap } from '$lib/core/requests/shown-rows.ts'
	import { besideList } from '../screen-address.ts'
	import type { Lying } from './lying.ts'
	import MapEntry from './MapEntry.svelte'

	type Props = {
		line: ShownMap
		lying: readonly Lying[]
		chosen: string | null
		base: string
		from: string
		onchoose: (row: string) => void
	}

	let { line, lying, chosen, base, from, onchoose }: Props = $props()

	const MOST = 60
	const shown = $derived(lying.slice(0, MOST))
</script>

<div class="rows">
	<p class="quiet" role="status">
		{line.points.length === 0
			? 'Nothing with a place is here yet.'
			: lying.length === 0
				? 'Nothing lies in this part of the map.'
				: `${lying.length} in sight`}
	</p>
	<ul>
		{#each shown as each (each.row)}
			<MapEntry
				{line}
				{each}
				href={line.opens === null
					? undefined
					: besideList(page.url, { to: `${base}/${line.opens}`, row: each.row, from })}
				isChosen={chosen === each.row}
				far={each.metres === undefined ? '' : sayDistance(each.metres)}
				{onchoose}
			/>
		{/each}
	</ul>
	{#if lying.length > MOST}<p class="quiet">and {lying.length - MOST} more: draw the map nearer.</p>{/if}
</div>

<style>
	.rows {
		min-height: 0;
		overflow: auto;
		border-left: 1px solid var(--zinc-3);
	}
	p {
		padding: 0.5rem 1rem;
	}
	ul {
		margin: 0;
		padding: 0;
		list-style: none;
	}
	@media screen and (max-width: 900px) {
		.rows {
			max-height: 26rem;
			border-left: 0;
			border-top: 1px solid var(--pitch);
		}
	}
	@media print {
		.rows {
			overflow: visible;
			border-left: 0;
		}
		ul {
			columns: 2;
		}
	}
</style>
