<script lang="ts">
	/** What opens under a slot: its title, the editor that fits what may stand in it, and the way out. */
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
		onchange: (value: unknown) => void
		onclose: () => void
	}

	let { slot, value, line, vocabulary, table, onchange, onclose }: Props = $props()

	const id = $props.id()
	const labelledby = `${id}-title`
	const Editor = $derived(editorOf(slot.type))

	function choose(next: unknown) {
		onchange(next)
		onclose()
	}
</script>

<p class="title" id={labelledby}>{slot.title}</p>
<Editor {slot} value={value ?? null} {vocabulary} {table} {labelledby} {onchange} onchoose={choose} />
<p class="end">
	<span class="quiet">{line['id'] ? 'Kept as you go.' : ''}</span>
	{#if slot.clause !== undefined && !isBlank(value)}
		<button class="btn plain" onclick={() => choose(emptied(value))}>Take this off</button>
	{/if}
	<button class="btn" onclick={onclose}>Done</button>
</p>

<style>
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
