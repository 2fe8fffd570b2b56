<script lang="ts">
	/** Rows where they lie: signs on a ground that can be moved and drawn nearer, and beside it what is in sight in words. */
	import { untrack } from 'svelte'
	import { appFileAddress } from '$lib/core/requests/app-files.ts'
	import { flatten, type Place } from '$lib/core/map/mercator.ts'
	import type { Outline } from '$lib/core/map/outline.ts'
	import type { AppBase, ScreenPath, ShownLine } from '$lib/core/requests/screens.ts'
	import Mark from '../list/Mark.svelte'
	import { byDistance, lyingOn } from './lying.ts'
	import MapFrame from './MapFrame.svelte'
	import MapList from './MapList.svelte'
	import MapSign from './MapSign.svelte'
	import { MapView } from './map-view.svelte.ts'

	type Props = { line: Extract<ShownLine, { kind: 'map' }>; path: ScreenPath; base: AppBase; from: string }

	let { line, path, base, from }: Props = $props()

	const all = $derived(lyingOn(line))
	const flat = $derived(all.map(({ place }) => flatten(place)))
	let outlines = $state.raw<readonly Outline[]>([])
	const edges = $derived(outlines.flatMap(({ rings }) => rings.flat()))
	const view = new MapView(
		() => flat,
		() => edges
	)
	let wrong = $state('')
	let here = $state.raw<Place | undefined>()
	let said = $state('')
	let chosen = $state<string | null>(null)

	const inSight = $derived(all.filter(({ place }) => view.isInSight(place)))
	const listed = $derived(
		here
			? byDistance(inSight, here)
			: inSight.toSorted((one, other) => one.name.localeCompare(other.name, undefined, { numeric: true }))
	)

	// The file of the ground is read once, from the app's own files.
	$effect(() => {
		const { ground } = line
		if (ground === null) outlines = []
		else void untrack(() => readGround(ground))
	})

	async function readGround(sha: string) {
		const [{ readOutlines }, answer] = await Promise.all([
			import('$lib/core/map/outline.ts'),
			fetch(appFileAddress(sha, base)).catch(() => undefined)
		])
		const read = answer?.ok ? readOutlines(await answer.text()) : undefined
		// Another one may have been taken meanwhile.
		if (line.ground !== sha) return
		wrong = read?.ok ? '' : 'The ground of this map could not be read. What lies on it is right.'
		if (read?.ok) outlines = read.outlines
	}

	$effect(() => {
		void [flat, edges, view.width, view.height]
		untrack(() => view.fitAll())
	})

	async function findMe() {
		const { whereIAm } = await import('../../where-i-am.ts')
		said = 'Finding where you are…'
		const found = await whereIAm()
		said = found.says
		if (!found.ok) return
		here = { latitude: found.latitude, longitude: found.longitude }
		const near = byDistance(all, here).slice(0, 8)
		view.show([flatten(here), ...near.map(({ place }) => flatten(place))])
	}

	function choose(row: string) {
		chosen = row
		const place = all.find((each) => each.row === row)?.place
		if (place) view.centre(flatten(place))
	}
</script>

<div class="map">
	<header>
		{#each line.signs as sign, i (i)}<span class="sign"><MapSign sign={i} />{sign}</span>{/each}
		{#each line.marks as mark, i (i)}<span class="sign"><Mark tone={mark.tone} />{mark.word}</span>{/each}
		<span class="gap"></span>
		<button class="btn" onclick={findMe}>Near me</button>
		<button class="btn" onclick={() => view.showAll()}>All</button>
	</header>
	{#if said}<p class="quiet says" role="status">{said}</p>{/if}
	<div class="both">
		<MapFrame {line} {all} {view} {outlines} {here} {chosen} onchoose={(row) => (chosen = row)} />
		{#if line.order}
			{#await import('./MapStops.svelte') then { default: MapStops }}
				<MapStops {line} {all} {chosen} {path} {base} {from} onchoose={choose} />
			{:catch}
				<p class="says-wrong">The order of the calls could not be loaded: no signal.</p>
			{/await}
		{:else}<MapList {line} lying={listed} {chosen} {base} {from} onchoose={choose} />{/if}
	</div>
	{#if wrong}<p class="says-wrong">{wrong}</p>{/if}
	{#if line.isCut}<p class="quiet says">
			Only the first {all.length.toLocaleString()} are shown. Narrow the screen down.
		</p>{/if}
	{#if line.nowhere > 0}<p class="quiet says">
			{line.nowhere} without a place {line.nowhere === 1 ? 'is' : 'are'} not on the map.
		</p>{/if}
</div>

<style>
	.map {
		--map-water: color-mix(in srgb, var(--sea) 18%, var(--paper));
	}
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.4rem 1.1rem;
		padding: 0.5rem 1rem;
	}
	.sign {
		display: flex;
		align-items: center;
		gap: 0.4rem;
	}
	.gap {
		flex: 1;
	}
	.says {
		padding: 0.4rem 1rem;
	}
	.both {
		display: grid;
		grid-template-columns: minmax(0, 1fr) minmax(15rem, 21rem);
		height: clamp(22rem, calc(100vh - 15rem), 52rem);
		border-block: 1px solid var(--pitch);
	}
	@media screen and (max-width: 900px) {
		.both {
			grid-template-columns: minmax(0, 1fr);
			height: auto;
		}
	}
	@media print {
		.both {
			display: block;
			height: auto;
		}
		.btn {
			display: none;
		}
	}
</style>
