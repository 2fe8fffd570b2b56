<script lang="ts" generics="V">
	/** What is typed and read as the slot reads it; what could be typed is offered, what cannot be read is said. */
	import { entryOfSlot } from '$lib/core/sentence/slots/all.ts'
	import type { SlotEntry } from '$lib/core/sentence/slots/entry.ts'
	import type { SlotProps } from './slot-props.ts'

	let { slot, value, vocabulary, table, labelledby, onchange, onchoose }: SlotProps<V> = $props()

	const id = $props.id()
	// Its type of slot and its value's go together, as the record of editors has them.
	const entry = $derived(entryOfSlot(slot.type) as SlotEntry<V>)
	const place = $derived({ vocabulary, table })
	const offered = $derived(entry.choices?.(place) ?? [])
	let wrong = $state('')

	const focus = (node: HTMLElement) => node.focus()

	function take(text: string, then: (value: V) => void) {
		const reading = entry.read(text, place)
		wrong = 'message' in reading ? reading.message : ''
		if ('value' in reading) then(reading.value)
	}
</script>

<input
	class="field"
	use:focus
	aria-labelledby={labelledby}
	aria-invalid={wrong !== ''}
	aria-describedby={wrong === '' ? undefined : `${id}-wrong`}
	value={value === null ? '' : entry.print(value, place)}
	onchange={(event) => take(event.currentTarget.value, onchange)}
	onkeydown={(event) => event.key === 'Enter' && take(event.currentTarget.value, onchoose)}
/>
{#if offered.length > 0}
	<p class="offered">
		{#each offered as choice (choice.text)}
			<button type="button" onclick={() => onchoose(choice.value)}>{choice.text}</button>
		{/each}
	</p>
{/if}
{#if wrong}<p class="says-wrong" id="{id}-wrong" role="alert">{wrong}</p>{/if}

<style>
	.offered {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem;
		margin-top: 0.5rem;
	}
	.offered button {
		border: 1px dashed var(--zinc-5);
		border-radius: 3px;
		background: none;
		color: var(--zinc-7);
		font: inherit;
		font-size: 0.92rem;
		padding: 0.15rem 0.5rem;
	}
	.offered button:hover {
		border-style: solid;
		color: var(--pitch);
	}
</style>
