<script lang="ts">
	/** A column's heading: its name with its order, its type, and an edge that can be dragged. */
	import type { Snippet } from 'svelte'
	import { offersChoices } from '$lib/core/model/table.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import type { GridView } from './grid-view.svelte.ts'

	type Props = {
		column: ShownColumn
		view: GridView
		isKey: boolean
		/** The table that a reference points to, by name. */
		target: string | undefined
		/** Where it stands fast, if it does. */
		left: number | undefined
		open: boolean
		onmenu: () => void
		children: Snippet
	}

	let { column, view, isKey, target, left, open, onmenu, children }: Props = $props()

	const sort = $derived(view.sortOf(column.id))
	const filtered = $derived(view.filters.some((filter) => filter.column === column.id))
	const arrow = $derived(sort ? (sort.descending ? ' ↓' : ' ↑') + (sort.place > 0 ? sort.place + 1 : '') : '')

	function badge(): string {
		if (column.type === 'computed') return `= ${column.shows === 'yesno' ? 'yes/no' : column.shows}`
		if (column.type === 'reference') return `→ ${target ?? '…'}`
		if (offersChoices(column)) return `${column.type} of ${column.choices?.length ?? 0}`
		return column.unit ? `${column.type} ${column.unit}` : column.type
	}

	function drag(event: PointerEvent & { currentTarget: HTMLElement }) {
		const edge = event.currentTarget
		const [from, width] = [event.clientX, view.width(column)]
		edge.setPointerCapture(event.pointerId)
		edge.onpointermove = (move) => view.resize(column, width + move.clientX - from)
		edge.onpointerup = () => {
			edge.onpointermove = null
			view.save()
		}
	}
</script>

<div
	role="columnheader"
	class:sorted={sort !== undefined}
	class:frozen={left !== undefined}
	style:width="{view.width(column)}px"
	style:left={left === undefined ? undefined : `${left}px`}
	aria-sort={sort ? (sort.descending ? 'descending' : 'ascending') : 'none'}
>
	<button
		class="name"
		onclick={onmenu}
		aria-expanded={open}
		title={column.about ?? `Order, filter and more of ${column.name}`}
	>
		{column.name}{arrow}{filtered ? ' ⧩' : ''}
	</button>
	<span class="badge" class:ref={column.type === 'reference'}>{isKey ? `key ${badge()}` : badge()}</span>
	<!-- Widths can be changed from the menu too. -->
	<span class="edge" onpointerdown={drag} aria-hidden="true"></span>
	{#if open}<div class="pop">{@render children()}</div>{/if}
</div>

<style>
	div[role='columnheader'] {
		position: relative;
		flex: none;
		box-sizing: border-box;
		padding: 0.3rem 0.6rem;
		background: var(--paper);
		border-right: 1px solid var(--zinc-2);
	}
	.frozen {
		position: sticky !important;
		z-index: 3;
	}
	.sorted {
		box-shadow: inset 0 3px 0 var(--marigold);
	}
	.name {
		display: block;
		max-width: 100%;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
		border: 0;
		background: none;
		padding: 0;
		color: var(--pitch);
		font: 650 0.85rem var(--head);
		font-stretch: 90%;
		text-align: left;
	}
	.badge {
		display: inline-block;
		max-width: 100%;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
		border-radius: 2px;
		background: var(--limewash);
		color: var(--zinc-7);
		font: 500 0.68rem var(--mono);
		padding: 0.1rem 0.4rem;
		margin-top: 0.15rem;
		vertical-align: top;
	}
	.badge.ref {
		background: var(--sea-wash);
		color: var(--sea);
	}
	.edge {
		position: absolute;
		top: 0;
		right: -4px;
		width: 8px;
		height: 100%;
		cursor: col-resize;
		z-index: 1;
	}
	.pop {
		position: absolute;
		z-index: 9;
		top: 100%;
		left: 0;
	}
</style>
