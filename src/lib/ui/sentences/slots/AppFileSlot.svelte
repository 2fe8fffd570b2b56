<script lang="ts">
	/** A picture, a film or the ground of a map, chosen from one's own files. */
	import type { AppFile } from '$lib/core/document/parts.ts'
	import { appFileAddress } from '$lib/core/requests/app-files.ts'
	import { giveAppFile } from '../../give-app-file.ts'
	import type { SlotProps } from './slot-props.ts'

	let { slot, value, labelledby, onchange }: SlotProps<AppFile> = $props()

	const kind = $derived(slot.type === 'film' || slot.type === 'ground' ? slot.type : 'picture')
	const ACCEPTS = { picture: 'image/*', film: 'video/mp4,video/webm', ground: '.geojson,.json,application/geo+json' }
	const SAYS = {
		picture: 'Made as small as a screen needs; where it was taken is left out.',
		film: 'An MP4 or WebM file of at most 25 MB.',
		ground: 'A GeoJSON file of areas and lines, at most 4 MB; an area with the property water is drawn as water.'
	}
	let busy = $state(false)
	let wrong = $state('')

	async function choose(input: HTMLInputElement) {
		const [file] = input.files ?? []
		if (!file) return
		// Whoever is done with the slot before it has arrived gets it all the same.
		const fill = onchange
		busy = true
		wrong = ''
		const taken = await giveAppFile(kind, file)
		busy = false
		input.value = ''
		if (taken.ok) fill(taken.value.file)
		else wrong = taken.refusal.message
	}
</script>

{#if value && kind === 'picture'}<img src={appFileAddress(value.sha)} alt="" />{/if}
{#if value}<p>{value.name}</p>{/if}
<input
	type="file"
	class="field"
	aria-labelledby={labelledby}
	accept={ACCEPTS[kind]}
	disabled={busy}
	onchange={(event) => choose(event.currentTarget)}
/>
<p class="quiet" role="status">
	{busy ? 'Taking it in…' : SAYS[kind]}
</p>
{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}

<style>
	img {
		display: block;
		max-width: 100%;
		max-height: 12rem;
		border: 1px solid var(--zinc-3);
		border-radius: 3px;
	}
	p {
		margin: 0.4rem 0;
	}
</style>
