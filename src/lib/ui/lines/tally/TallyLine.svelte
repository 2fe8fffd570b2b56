<script lang="ts">
	/** A number of the row with its set amount: strong to add, quiet to take away. */
	import type { ScreenPath, ShownTally } from '$lib/core/requests/screens.ts'
	import { showCell } from '$lib/core/requests/show-cell.ts'
	import { usePressNote } from '../press-note.svelte.ts'

	type Props = { line: ShownTally; path: ScreenPath }

	let { line, path }: Props = $props()

	let busy = $state(false)
	const note = usePressNote()
	const there = $derived(showCell(line.column, line.value) || '0')

	async function press(less: boolean) {
		busy = true
		const what = `${line.label} ${less ? '−' : '+'}${line.amount}`
		await note.press(path, { kind: 'tally', line: line.id, row: line.row, less }, what)
		busy = false
	}
</script>

<div class="tally">
	<p><span class="label">{line.label}</span> <strong>{there}</strong></p>
	{#if line.takesAway}
		<button class="btn" disabled={busy} aria-label="Take {line.amount} from {line.label}" onclick={() => press(true)}
			>−{line.amount}</button
		>
	{/if}
	<button class="btn main" disabled={busy} aria-label="Add {line.amount} to {line.label}" onclick={() => press(false)}
		>+{line.amount}</button
	>
</div>

<style>
	.tally {
		display: flex;
		align-items: center;
		gap: 0.6rem;
		padding: 0.5rem 0;
		border-bottom: 1px solid var(--zinc-2);
	}
	p {
		flex: 1;
		display: flex;
		justify-content: space-between;
		gap: 1rem;
		max-width: 30rem;
	}
	.label {
		color: var(--zinc-7);
	}
	strong {
		font-size: 1.15rem;
		font-variant-numeric: tabular-nums;
	}
	.btn {
		min-width: 64px;
		min-height: 48px;
		font-size: 1.05rem;
		font-variant-numeric: tabular-nums;
	}
</style>
