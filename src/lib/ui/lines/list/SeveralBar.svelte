<script lang="ts">
	/** What can be done on all the rows that are chosen, and how many they are. */
	import type { RowAction, ScreenPath } from '$lib/core/requests/screens.ts'
	import { usePressNote } from '../press-note.svelte.ts'
	import { pressOf, type SeveralRows } from './several-rows.svelte.ts'

	type Props = {
		several: SeveralRows
		actions: readonly RowAction[]
		/** The rows that are shown, with their names. */
		rows: readonly { readonly id: string; readonly name: string }[]
		path: ScreenPath
	}

	let { several, actions, rows, path }: Props = $props()

	let busy = $state(false)
	const note = usePressNote()

	/** Of those that are still there. */
	const chosen = $derived(rows.filter(({ id }) => several.has(id)))

	async function press(action: RowAction) {
		if (chosen.length === 0) return
		busy = true
		const on = chosen.map(({ id, name }) => ({ press: pressOf(action, id), name }))
		await note.pressAll(path, on, action.label)
		busy = false
		several.end()
	}
</script>

<div class="bar">
	<p role="status"><strong>{chosen.length}</strong> of {rows.length} chosen</p>
	<button class="btn" onclick={() => several.chooseAll(rows.map(({ id }) => id))}
		>{chosen.length === rows.length ? 'None' : 'All'}</button
	>
	<span class="gap"></span>
	{#each actions as action (action.id + (action.tally ?? ''))}
		<button class="btn main" disabled={busy || chosen.length === 0} onclick={() => press(action)}>{action.label}</button
		>
	{/each}
	<button class="btn" disabled={busy} onclick={() => several.end()}>Leave it</button>
</div>

<style>
	.bar {
		position: sticky;
		z-index: 5;
		bottom: 0;
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.6rem;
		padding: 0.6rem 1.2rem;
		background: var(--limewash);
		border-top: 2px solid var(--marigold);
	}
	.gap {
		flex: 1;
	}
	.btn {
		min-height: 48px;
	}
	/* Above what stands under the thumb. */
	@media (max-width: 640px) {
		.bar {
			bottom: 57px;
		}
	}
</style>
