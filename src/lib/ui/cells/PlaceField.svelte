<script lang="ts">
	/** A place: typed as latitude and longitude, or taken from the device. */
	import { onMount } from 'svelte'
	import { isAtDesk } from '../signal.ts'
	import { whereIAm } from '../where-i-am.ts'

	type Props = {
		id: string
		text: string
		sample: string
		invalid: boolean
		onchange: (text: string) => void
	}

	let { id, text, sample, invalid, onchange }: Props = $props()

	/** Degrees with five places tell places a metre apart. */
	const PLACES = 5

	let busy = $state(false)
	let said = $state('')
	let standsIn = $state(false)
	onMount(() => (standsIn = isAtDesk()))

	async function take() {
		busy = true
		said = ''
		const found = await whereIAm()
		busy = false
		said = found.ok ? found.says : `${found.says} Or type the place.`
		if (!found.ok) return
		const { latitude, longitude } = found
		onchange(isAtDesk() ? `${latitude}, ${longitude}` : `${latitude.toFixed(PLACES)}, ${longitude.toFixed(PLACES)}`)
	}
</script>

<div>
	<input
		{id}
		class="field"
		autocomplete="off"
		placeholder={sample || '50.3121, -4.1102'}
		value={text}
		oninput={(event) => onchange(event.currentTarget.value)}
		aria-invalid={invalid}
		aria-describedby={invalid ? `${id}-wrong` : undefined}
	/>
	<button type="button" class="btn" disabled={busy} onclick={take}
		>{busy ? 'Finding it…' : standsIn ? 'Where I am (stand-in)' : 'Where I am'}</button
	>
</div>
{#if said}<p class="quiet" role="status">{said}</p>{/if}

<style>
	div {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem;
	}
	.field {
		flex: 1 1 12rem;
	}
	.btn {
		min-height: 48px;
	}
</style>
