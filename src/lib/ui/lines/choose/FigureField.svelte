<script lang="ts">
	/** A number that other lines go by, typed as its column's are; what is none is said, and changes nothing. */
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import { draftOf, readDraft } from '../../cells/cell-draft.ts'

	type Props = {
		labelledby: string
		column: ShownColumn
		/** As it is held: plain digits; blank where nothing is. */
		chosen: string
		onchoose: (value: string) => void
	}

	let { labelledby, column, chosen, onchoose }: Props = $props()

	const id = $props.id()
	/** What stands there that is no number, until it is one. */
	let wrong = $state<{ text: string; message: string } | undefined>()

	const shown = $derived(chosen === '' ? '' : draftOf(column, Number(chosen)).text)

	function take({ currentTarget: { value: text } }: { currentTarget: HTMLInputElement }) {
		const reading = readDraft({ ...column, required: false }, { text })
		wrong = reading.ok ? undefined : { text, message: reading.message }
		if (reading.ok) onchoose(reading.value === null ? '' : String(reading.value))
	}
</script>

<span>
	<input
		class="field"
		inputmode="decimal"
		autocomplete="off"
		placeholder="any"
		aria-labelledby={labelledby}
		aria-invalid={wrong !== undefined}
		aria-describedby={wrong ? `${id}-wrong` : undefined}
		value={wrong?.text ?? shown}
		onchange={take}
	/>
	{#if column.unit}<span class="quiet">{column.unit}</span>{/if}
</span>
{#if wrong}<p class="says-wrong" id="{id}-wrong" role="alert">{wrong.message}</p>{/if}

<style>
	.field {
		width: 8rem;
		min-height: 48px;
		font-variant-numeric: tabular-nums;
	}
	span {
		display: flex;
		align-items: center;
		gap: 0.4rem;
	}
	p {
		margin: 0;
	}
</style>
