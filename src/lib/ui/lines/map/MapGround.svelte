<script lang="ts">
	/** The land and water of a map, as its builder's file has them, drawn for what is in sight. */
	import type { Outline } from '$lib/core/map/outline.ts'
	import type { MapView } from './map-view.svelte.ts'

	type Props = { outlines: readonly Outline[]; view: MapView }

	let { outlines, view }: Props = $props()

	/** Of a shape, once: in a plane of its own that is only moved and stretched afterwards. */
	const drawn = $derived.by(() => {
		const first = outlines[0]?.rings[0]?.[0]
		if (!first) return { from: { x: 0, y: 0 }, shapes: [] }
		const shapes = outlines.map(({ kind, name, isWater, rings }) => ({
			...{ kind, name, isWater },
			path: rings
				.map(
					(ring) =>
						`M${ring.map(({ x, y }) => `${((x - first.x) * PLANE).toFixed(2)} ${((y - first.y) * PLANE).toFixed(2)}`).join('L')}${kind === 'area' ? 'Z' : ''}`
				)
				.join('')
		}))
		return { from: first, shapes }
	})
	/** So wide is the world in that plane: two digits after the point are then some ten centimetres. */
	const PLANE = 1e6

	const at = $derived(view.place(drawn.from))
	const by = $derived(view.scale / PLANE)
</script>

<svg width={view.width} height={view.height} aria-hidden="true">
	<g transform="translate({at.x} {at.y}) scale({by})">
		{#each drawn.shapes as { kind, name, isWater, path }, i (i)}<path d={path} class={kind} class:water={isWater}
				>{#if name}<title>{name}</title>{/if}</path
			>{/each}
	</g>
</svg>

<style>
	svg {
		position: absolute;
		inset: 0;
	}
	path {
		vector-effect: non-scaling-stroke;
	}
	.area {
		fill: var(--limewash);
		stroke: var(--zinc-5);
		stroke-width: 1;
		fill-rule: evenodd;
	}
	.area.water {
		fill: var(--map-water);
		stroke: var(--zinc-3);
	}
	.line {
		fill: none;
		stroke: var(--zinc-5);
		stroke-width: 1.5;
	}
</style>
