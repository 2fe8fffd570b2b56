<script lang="ts">
	/** What opens under a slot: its title, the editor that fits what may stand in it, and the way out. */
	import { readSlot } from '$lib/core/sentence/line-values.ts'
	import { emptied, isBlank } from '$lib/core/sentence/print.ts'
	import type { LineValue, Slot } from '$lib/core/sentence/types.ts'
	import type { Vocabulary } from '$lib/core/sentence/vocabulary.ts'
	import { editorOf } from './slots/editors.ts'

	type Props = {
		slot: Slot
		value: unknown
		line: LineValue
		vocabulary: Vocabulary
		table: number | undefined
		/** The table of the row around that of the line. */
		outer: number | undefined
		onchange: (value: unknown) => void
		onclose: () => void
	}

	let { slot, value, line, vocabulary, table, outer, onchange, onclose }: Props = $props()

	const id = $props.id()
	const labelledby = `${id}-title`
	const Editor = $derived(editorOf(slot.type))
	/** Where its formula stands on what a reference may name, the rows of that table. */
	const reached = $derived.by(() => {
		const by = slot.through === undefined ? undefined : readSlot(line, slot.through)
		const columns = vocabulary.tables.find((each) => each.id === table)?.columns
		return columns?.find(({ id }) => id === by)?.to
	})
	const around = $derived(
		slot.isOuter ? [] : [outer, reached === undefined ? undefined : table].filter((each) => each !== undefined)
	)

	function choose(next: unknown) {
		onchange(next)
		onclose()
	}
</script>

<div class="editor">
	<p class="title" id={labelledby}>{slot.title}</p>
	<Editor
		{slot}
		value={value ?? null}
		{vocabulary}
		table={slot.isOuter ? outer : (reached ?? table)}
		{around}
		{labelledby}
		{onchange}
		onchoose={choose}
	/>
	<p class="end">
		<span class="quiet">{line['id'] ? 'Kept as you go.' : ''}</span>
		{#if slot.clause !== undefined && !isBlank(value)}
			<button class="btn plain" onclick={() => choose(emptied(value))}>Take this off</button>
		{/if}
		<button class="btn" onclick={onclose}>Done</button>
	</p>
</div>

<style>
	.editor {
		margin: 0.5rem 0 0.4rem;
		padding: 0.9rem 1rem;
		max-width: 34rem;
		background: var(--paper);
		border: 1px solid var(--pitch);
		border-radius: 3px;
		box-shadow: 0 8px 24px rgb(0 0 0 / 14%);
	}
	.title {
		font: 650 0.95rem var(--head);
		margin-bottom: 0.5rem;
		color: var(--pitch);
	}
	.title::first-letter {
		text-transform: uppercase;
	}
	.end {
		display: flex;
		justify-content: space-between;
		align-items: center;
		margin-top: 0.8rem;
	}
</style>
