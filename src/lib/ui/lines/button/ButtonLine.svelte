<script lang="ts">
	import type { Opening, ScreenPath } from '$lib/core/requests/screens.ts'
	import { usePressNote } from '../press-note.svelte.ts'

	type Props = {
		line: { id: string; label: string } & (Opening | { runs: string })
		path: ScreenPath
		base: string
		row: string | null
		from: string
	}

	let { line, path, base, row, from }: Props = $props()

	let busy = $state(false)
	const note = usePressNote()

	async function press() {
		if (row === null) return
		busy = true
		await note.press(path, { line: line.id, row, what: line.label })
		busy = false
	}
</script>

<div class="place">
	{#if 'opens' in line}
		{@const along = line.takesRow && row !== null ? `?row=${row}&from=${from}` : ''}
		<a class="btn main" href="{base}/{line.opens}{along}">{line.label}</a>
	{:else}
		<button class="btn main" onclick={press} disabled={busy}>{busy ? 'Working…' : line.label}</button>
	{/if}
</div>

<style>
	.place {
		padding: 0.8rem 1.2rem;
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.8rem;
	}
	.btn {
		min-height: 48px;
		padding: 0.5rem 1.4rem;
		font-size: 1rem;
	}
	@media (max-width: 640px) {
		.btn {
			width: 100%;
		}
	}
</style>
