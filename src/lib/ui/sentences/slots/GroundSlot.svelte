<script lang="ts">
	/** The ground of a map: a file of one's own, or the coasts of the world where the rows lie. */
	import type { AppFile } from '$lib/core/document/parts.ts'
	import { send } from '../../send.ts'
	import AppFileSlot from './AppFileSlot.svelte'
	import type { SlotProps } from './slot-props.ts'

	let props: SlotProps<AppFile> = $props()

	let busy = $state(false)
	let wrong = $state('')

	async function takeCoasts() {
		// Whoever is done with the slot before they are drawn gets them all the same.
		const { onchange: fill, table = 0 } = props
		busy = true
		wrong = ''
		const taken = await send('POST', '/bench/coasts', { table })
		busy = false
		if (taken.ok) fill(taken.value.file)
		else wrong = taken.refusal.message
	}
</script>

<AppFileSlot {...props} />
<p>
	<button type="button" class="btn" disabled={busy} onclick={takeCoasts}>Take the coasts of the world</button>
</p>
<p class="quiet" role="status">
	{busy
		? 'Drawing them…'
		: 'Drawn from Natural Earth where the rows lie now: fit for a region, too coarse for one harbour.'}
</p>
{#if wrong}<p class="says-wrong" role="alert">{wrong}</p>{/if}

<style>
	p {
		margin: 0.4rem 0;
	}
</style>
