<script lang="ts" generics="V">
	/** For a slot that is one of a few; nothing is one of them where its sentence has words for that. */
	import { entryOfSlot } from '$lib/core/sentence/slots/all.ts'
	import type { Choice } from '$lib/core/sentence/slots/entry.ts'
	import Choices from './Choices.svelte'
	import type { SlotProps } from './slot-props.ts'

	let { slot, value, vocabulary, table, onchoose }: SlotProps<V> = $props()

	// Its type of slot and its value's go together, as the record of editors has them.
	const offered = $derived((entryOfSlot(slot.type).choices?.({ vocabulary, table }) ?? []) as readonly Choice<V>[])
	const choices = $derived(slot.empty === undefined ? offered : [{ value: null, text: slot.empty }, ...offered])
</script>

<Choices {choices} {value} {onchoose} />
