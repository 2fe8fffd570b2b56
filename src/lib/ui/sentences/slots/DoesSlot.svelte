<script lang="ts">
	/** What a button does: one of what the app has, or an address that is typed. */
	import type { Does } from '$lib/core/sentence/slots/does.ts'
	import ChoiceSlot from './ChoiceSlot.svelte'
	import type { SlotProps } from './slot-props.ts'

	let props: SlotProps<Does> = $props()

	const address = $derived(props.value?.kind === 'link' ? props.value.address : '')

	function lead(text: string) {
		if (text.trim() !== '') props.onchoose({ kind: 'link', address: text.trim() })
	}
</script>

<ChoiceSlot {...props} />
<label>
	or leads to an address
	<input
		class="field"
		value={address}
		placeholder="https://tides.example, mailto:office@varrow.example, tel:+44 20 7946 0000"
		onchange={(event) => lead(event.currentTarget.value)}
	/>
</label>

<style>
	label {
		display: block;
		margin-top: 0.8rem;
	}
</style>
