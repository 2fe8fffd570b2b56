<script lang="ts">
	/** One place of a map in words: a press shows it there. */
	import type { Snippet } from 'svelte'
	import type { HTMLLiAttributes } from 'svelte/elements'
	import type { ShownMap } from '$lib/core/requests/shown-rows.ts'
	import Mark from '../list/Mark.svelte'
	import MapSign from './MapSign.svelte'
	import type { Lying } from './lying.ts'

	type Props = {
		line: ShownMap
		each: Lying
		/** Where it opens; nowhere, where it is left out. */
		href: string | undefined
		isChosen: boolean
		/** Which call it is. */
		number?: number
		/** Whether another is held over it, which would go before it. */
		isOver?: boolean
		far: string
		onchoose: (row: string) => void
		children?: Snippet
	} & HTMLLiAttributes

	let { line, each, href, isChosen, number, isOver = false, far, onchoose, children, ...rest }: Props = $props()

	const mark = $derived(line.marks[each.mark ?? -1])
</script>

<li class:chosen={isChosen} class:over={isOver} {...rest}>
	<button aria-pressed={isChosen} onclick={() => onchoose(each.row)} aria-label="Show {each.name} on the map">
		{#if number !== undefined}<span class="number">{number}</span>
		{:else if mark}<Mark tone={mark.tone} />{:else}<MapSign sign={each.sign} />{/if}
	</button>
	<span>
		{#if href !== undefined}<a {href} draggable="false">{each.name}</a>{:else}<strong>{each.name}</strong>{/if}
		{#if each.rest}<span class="quiet">{each.rest}</span>{/if}
		{#if mark}<b>{mark.word}</b>{/if}
	</span>
	{#if far}<span class="far">{far}</span>{/if}
	{#if children}<div class="more">{@render children()}</div>{/if}
</li>

<style>
	li {
		display: grid;
		grid-template-columns: 44px minmax(0, 1fr) auto;
		align-items: center;
		gap: 0 0.6rem;
		min-height: 48px;
		padding: 0.3rem 1rem 0.3rem 0;
		border-top: 1px solid var(--zinc-2);
	}
	li.chosen {
		background: var(--marigold-wash);
		box-shadow: inset 4px 0 0 var(--marigold);
	}
	li.over {
		box-shadow: inset 0 4px 0 var(--marigold);
	}
	li[draggable='true'] {
		cursor: grab;
	}
	button {
		display: grid;
		place-items: center;
		min-height: 44px;
		border: 0;
		background: none;
		color: inherit;
	}
	.number {
		display: grid;
		place-items: center;
		min-width: 1.7rem;
		height: 1.7rem;
		border-radius: 1rem;
		background: var(--bottle);
		color: var(--paper);
		font: 700 0.92rem var(--head);
		font-variant-numeric: tabular-nums;
	}
	a,
	strong {
		color: inherit;
		font-weight: 650;
	}
	.far {
		font-variant-numeric: tabular-nums;
	}
	.more {
		grid-column: 2 / -1;
	}
	@media print {
		li {
			break-inside: avoid;
		}
	}
</style>
