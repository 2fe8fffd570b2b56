<script lang="ts">
	/** The map itself: signs on their ground, moved by hand or by the arrows, drawn nearer by keys. */
	import { untrack } from 'svelte'
	import { inOrder } from '$lib/core/map/stops.ts'
	import { flatten, sayDistance, type Place } from '$lib/core/map/mercator.ts'
	import type { Cluster } from '$lib/core/map/cluster.ts'
	import type { Outline } from '$lib/core/map/outline.ts'
	import type { ShownMap } from '$lib/core/requests/shown-rows.ts'
	import Mark from '../list/Mark.svelte'
	import { withTurn, type Lying } from './lying.ts'
	import { MapHand } from './map-hand.ts'
	import MapGround from './MapGround.svelte'
	import MapSign from './MapSign.svelte'
	import type { MapView } from './map-view.svelte.ts'

	type Props = {
		line: ShownMap
		all: readonly Lying[]
		view: MapView
		outlines: readonly Outline[]
		/** Where the reader is. */
		here: Place | undefined
		chosen: string | null
		onchoose: (row: string | null) => void
	}

	let { line, all, view, outlines, here, chosen, onchoose }: Props = $props()

	const calls = $derived(line.order ? inOrder(withTurn(all)) : [])
	const route = $derived(
		calls
			.map(({ place }) => view.place(flatten(place)))
			.map(({ x, y }) => `${x},${y}`)
			.join(' ')
	)
	/** Which call a place is. */
	const turnOf = $derived(new Map(calls.map(({ row }, i) => [row, i + 1])))
	const myself = $derived(here && view.place(flatten(here)))

	function press(cluster: Cluster) {
		const [only] = cluster.members
		if (cluster.members.length === 1 && only !== undefined) onchoose(all[only]?.row ?? null)
		// What lies at one place is told apart in the list alone.
		else if (!view.open(cluster)) onchoose(all[only ?? 0]?.row ?? null)
	}

	const hand = untrack(() => new MapHand(view))

	const MOVES: Readonly<Record<string, readonly [number, number]>> = {
		ArrowLeft: [60, 0],
		ArrowRight: [-60, 0],
		ArrowUp: [0, 60],
		ArrowDown: [0, -60]
	}
	function onkeydown(event: KeyboardEvent) {
		const move = MOVES[event.key]
		if (!move && event.key !== '+' && event.key !== '-') return
		event.preventDefault()
		if (move) view.move(...move)
		else view.zoom(event.key === '+' ? 1.5 : 1 / 1.5)
	}

	/** With the key that browsers enlarge a page by, so that a page is scrolled over it. */
	function onwheel(event: WheelEvent & { currentTarget: HTMLElement }) {
		if (!event.ctrlKey) return
		event.preventDefault()
		const { left, top } = event.currentTarget.getBoundingClientRect()
		view.zoom(event.deltaY < 0 ? 1.25 : 0.8, { x: event.clientX - left, y: event.clientY - top })
	}

	const nameOf = (i: number | undefined) => all[i ?? -1]?.name ?? ''
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
<div
	class="frame"
	style:--wide={view.width}
	style:--high={view.height}
	role="group"
	aria-label="Map of {line.title}; arrows move it, plus and minus draw it nearer"
	tabindex="0"
	bind:clientWidth={view.width}
	bind:clientHeight={view.height}
	{onkeydown}
	{onwheel}
	onpointerdown={(event) => {
		// A sign is pressed, unless it is under the second of two fingers.
		if (!hand.isDown && event.target instanceof Element && event.target.closest('button')) return
		hand.down(event)
		event.currentTarget.setPointerCapture(event.pointerId)
	}}
	onpointermove={(event) => hand.move(event, event.currentTarget.getBoundingClientRect())}
	onpointerup={(event) => hand.up(event)}
	onpointercancel={(event) => hand.up(event)}
>
	<MapGround {outlines} {view} />
	{#if route}<svg class="route" aria-hidden="true"><polyline points={route} /></svg>{/if}
	{#each view.clusters as cluster (cluster.members[0])}
		<!-- By the keys the map is moved and drawn nearer; what lies on it is reached in the list beside it. -->
		{@const [first] = cluster.members}
		{@const one = all[first ?? -1]}
		<button
			class="point"
			tabindex="-1"
			class:many={cluster.members.length > 1}
			class:chosen={cluster.members.some((i) => all[i]?.row === chosen)}
			style:transform="translate({cluster.x}px, {cluster.y}px)"
			title={cluster.members.length > 1 ? undefined : nameOf(first)}
			onclick={() => press(cluster)}
		>
			{#if cluster.members.length > 1}{cluster.members.length}<span class="visually-hidden"> together</span>
			{:else if one?.mark !== undefined && line.marks[one.mark]}
				<Mark tone={line.marks[one.mark]?.tone ?? 'sound'} /><span class="visually-hidden">{one.name}</span>
			{:else}<MapSign sign={one?.sign ?? null} /><span class="visually-hidden">{nameOf(first)}</span>{/if}
			{#if one && cluster.members.length === 1 && turnOf.has(one.row)}<span class="turn">{turnOf.get(one.row)}</span
				>{/if}
		</button>
	{/each}
	{#if myself}<span class="me" style:transform="translate({myself.x}px, {myself.y}px)"
			><span class="visually-hidden">You are here</span></span
		>{/if}
	<span class="bar" style:width="{view.bar.pixels}px">{sayDistance(view.bar.metres)}</span>
	<span class="nearer">
		<button class="btn" aria-label="Nearer" onclick={() => view.zoom(1.6)}>+</button>
		<button class="btn" aria-label="Further" onclick={() => view.zoom(1 / 1.6)}>−</button>
	</span>
</div>

<style>
	.frame {
		position: relative;
		overflow: hidden;
		background: var(--map-water);
		touch-action: none;
		cursor: grab;
		user-select: none;
	}
	.frame:active {
		cursor: grabbing;
	}
	.point {
		position: absolute;
		top: -22px;
		left: -22px;
		display: grid;
		place-items: center;
		width: 44px;
		height: 44px;
		padding: 0;
		border: 0;
		background: none;
	}
	.point.many {
		top: -17px;
		left: -17px;
		width: 34px;
		height: 34px;
		border: 2px solid var(--pitch);
		border-radius: 50%;
		background: var(--paper);
		color: var(--pitch);
		font: 700 0.92rem var(--head);
		font-variant-numeric: tabular-nums;
	}
	.point.chosen {
		z-index: 1;
		border-radius: 50%;
		box-shadow: inset 0 0 0 4px var(--marigold);
	}
	.route {
		position: absolute;
		inset: 0;
		width: 100%;
		height: 100%;
		pointer-events: none;
	}
	.route polyline {
		fill: none;
		stroke: var(--bottle);
		stroke-width: 2.5;
		stroke-dasharray: 7 5;
	}
	.turn {
		position: absolute;
		top: -4px;
		right: -2px;
		min-width: 1.4rem;
		border: 2px solid var(--paper);
		border-radius: 1rem;
		background: var(--bottle);
		color: var(--paper);
		font: 700 0.85rem/1.2rem var(--head);
		text-align: center;
	}
	.me {
		position: absolute;
		top: -9px;
		left: -9px;
		width: 18px;
		height: 18px;
		border: 4px solid var(--paper);
		border-radius: 50%;
		background: var(--marigold);
		box-shadow: 0 0 0 2px var(--pitch);
		pointer-events: none;
	}
	.bar {
		position: absolute;
		bottom: 0.6rem;
		left: 0.8rem;
		padding-left: 0.2rem;
		border: 2px solid var(--pitch);
		border-top: 0;
		font: 600 0.85rem var(--head);
		white-space: nowrap;
		pointer-events: none;
	}
	.nearer {
		position: absolute;
		right: 0.6rem;
		bottom: 0.6rem;
		display: grid;
	}
	.nearer .btn {
		min-width: 44px;
		min-height: 44px;
		font-size: 1.3rem;
	}
	@media screen and (max-width: 900px) {
		.frame {
			height: 56vh;
		}
	}
	/* On paper it stands whole, as it is on the screen. */
	@media print {
		.frame {
			width: calc(var(--wide) * 1px);
			height: calc(var(--high) * 1px);
			zoom: calc(690 / var(--wide));
			break-inside: avoid;
		}
		.nearer {
			display: none;
		}
	}
</style>
