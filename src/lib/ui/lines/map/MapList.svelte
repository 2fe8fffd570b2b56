<script lang="ts">
	/** What is in sight on the map, in words: the nearest first, once it is known where one is. */
	import { page } from '$app/state'
	import { sayDistance } from '$lib/core/map/mercator.ts'
	import type { ShownMap } from '$lib/core/requests/shown-rows.ts'
	import Mark from '../list/Mark.svelte'
	import { besideList } from '../screen-address.ts'
	import MapSign from './MapSign.svelte'
	import type { Lying } from './lying.ts'

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
			{@const mark = line.marks[each.mark ?? -1]}
			<li class:chosen={chosen === each.row}>
				<button
					aria-pressed={chosen === each.row}
					onclick={() => onchoose(each.row)}
					aria-label="Show {each.name} on the map"
				>
					{#if mark}<Mark tone={mark.tone} />{:else}<MapSign sign={each.sign} />{/if}
				</button>
				<span>
					{#if line.opens !== null}<a href={besideList(page.url, { to: `${base}/${line.opens}`, row: each.row, from })}
							>{each.name}</a
						>{:else}<strong>{each.name}</strong>{/if}
					{#if each.rest}<span class="quiet">{each.rest}</span>{/if}
					{#if mark}<b>{mark.word}</b>{/if}
				</span>
				{#if each.metres !== undefined}<span class="far">{sayDistance(each.metres)}</span>{/if}
			</li>
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
	li {
		display: grid;
		grid-template-columns: 44px minmax(0, 1fr) auto;
		align-items: center;
		min-height: 48px;
		padding-right: 1rem;
		border-top: 1px solid var(--zinc-2);
	}
	li.chosen {
		background: var(--marigold-wash);
		box-shadow: inset 4px 0 0 var(--marigold);
	}
	button {
		display: grid;
		place-items: center;
		min-height: 44px;
		border: 0;
		background: none;
	}
	a,
	strong {
		color: inherit;
		font-weight: 650;
	}
	.far {
		font-variant-numeric: tabular-nums;
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
		li {
			break-inside: avoid;
		}
	}
</style>
