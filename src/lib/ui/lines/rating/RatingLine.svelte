<script lang="ts">
	/** A mark from 1 up, one key each; the one that is given already takes it back. */
	import type { ScreenPath, ShownLine } from '$lib/core/requests/screens.ts'
	import { usePressNote } from '../press-note.svelte.ts'

	type Props = { line: Extract<ShownLine, { kind: 'rating' }>; path: ScreenPath }

	let { line, path }: Props = $props()

	const id = $props.id()
	let busy = $state(false)
	const note = usePressNote()
	const marks = $derived(Array.from({ length: line.most }, (_, i) => i + 1))

	async function give(mark: number) {
		busy = true
		const given = mark === line.mark ? null : mark
		const what = given === null ? `${line.label}: taken back` : `${line.label}: ${given} of ${line.most}`
		await note.press(path, { kind: 'rate', line: line.id, row: line.row, mark: given }, what)
		busy = false
	}
</script>

<div class="rating" role="group" aria-labelledby="{id}-label">
	<p>
		<span class="label" id="{id}-label">{line.label}</span>
		<span class="said">{line.mark === null ? 'not marked yet' : `${line.mark} of ${line.most}`}</span>
	</p>
	<div class="marks">
		{#each marks as mark (mark)}
			<button
				class:full={line.mark !== null && mark <= line.mark}
				aria-pressed={mark === line.mark}
				aria-label="{mark} of {line.most}"
				disabled={busy}
				onclick={() => give(mark)}>{mark}</button
			>
		{/each}
	</div>
</div>

<style>
	.rating {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.4rem 1.2rem;
		padding: 0.6rem 1.2rem;
	}
	p {
		display: grid;
	}
	.label {
		font-weight: 600;
	}
	.said {
		color: var(--zinc-7);
		font-size: 0.92rem;
	}
	.marks {
		display: flex;
		border: 1px solid var(--zinc-5);
		border-radius: 3px;
		overflow: hidden;
	}
	button {
		min-width: 48px;
		min-height: 48px;
		border: 0;
		background: var(--paper);
		color: var(--pitch);
		font: 650 1rem var(--head);
		font-variant-numeric: tabular-nums;
	}
	button + button {
		border-left: 1px solid var(--zinc-3);
	}
	/* All up to the one that was given, like a gauge. */
	button.full {
		background: var(--selected);
		box-shadow: inset 0 -5px 0 var(--marigold);
	}
	@media (max-width: 640px) {
		.marks {
			width: 100%;
		}
		button {
			flex: 1;
			min-width: 0;
		}
	}
</style>
