<script lang="ts">
	/** A place: typed as latitude and longitude, or taken from the device. */
	import { onMount } from 'svelte'
	import { isAtDesk } from '../signal.ts'

	type Props = {
		id: string
		text: string
		sample: string
		invalid: boolean
		onchange: (text: string) => void
	}

	let { id, text, sample, invalid, onchange }: Props = $props()

	/** Off the quay of the demo's harbour: what a desk says where a phone would ask its satellites. */
	const STAND_IN = '50.3121, -4.1102'
	/** Degrees with five places tell places a metre apart. */
	const PLACES = 5
	const LONGEST_MS = 20_000

	let busy = $state(false)
	let said = $state('')
	let standsIn = $state(false)
	onMount(() => (standsIn = isAtDesk()))

	function take() {
		if (standsIn) {
			said = 'A stand-in for where the phone is: a desk has no place of its own.'
			return onchange(STAND_IN)
		}
		if (!('geolocation' in navigator)) return void (said = 'This device does not know where it is. Type the place.')
		busy = true
		said = ''
		navigator.geolocation.getCurrentPosition(
			({ coords: { latitude, longitude, accuracy } }) => {
				busy = false
				said = `Within ${Math.round(accuracy)} m.`
				onchange(`${latitude.toFixed(PLACES)}, ${longitude.toFixed(PLACES)}`)
			},
			({ code, PERMISSION_DENIED }) => {
				busy = false
				said =
					code === PERMISSION_DENIED
						? 'This app may not ask where you are. Allow it in the browser, or type the place.'
						: 'Where you are could not be found. Try again under the open sky, or type the place.'
			},
			{ enableHighAccuracy: true, timeout: LONGEST_MS, maximumAge: 10_000 }
		)
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
