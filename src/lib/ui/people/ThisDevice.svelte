<script lang="ts">
	/** Being told in this browser while no page is open: asked for by a press, and ended by one. */
	import { onMount } from 'svelte'
	import { ThisDevice } from './this-device.svelte.ts'

	let { pushKey }: { pushKey: string } = $props()

	// svelte-ignore state_referenced_locally
	const device = new ThisDevice(pushKey)
	onMount(() => void device.look())
</script>

<h3>In this browser, while it is closed</h3>
{#if device.state === 'cannot'}
	<p class="quiet">
		This browser cannot be told while it is closed. On a phone or a tablet, put the app on its first screen and open it
		from there.
	</p>
{:else if device.state === 'denied'}
	<p class="quiet">
		This browser was told to let no notices in. Allow them for this address in its settings, then load the page again.
	</p>
{:else}
	<p class="quiet">
		The subject of a notice is shown, also on a locked screen. It ends when you sign out here, and keeps your quiet
		hours.
	</p>
	{#if device.state === 'on'}
		<p class="done" role="status">You are told here.</p>
		<button class="btn" onclick={() => device.end()}>Tell me here no more</button>
	{:else}
		<button class="btn" disabled={device.state === 'unknown'} onclick={() => device.begin()}>Tell me here too</button>
	{/if}
{/if}
{#if device.says}<p class="says-wrong" role="alert">{device.says}</p>{/if}

<style>
	h3 {
		margin: 1.4rem 0 0;
		font: 650 1rem var(--head);
	}
	.done {
		background: var(--bottle-wash);
		color: var(--bottle);
		padding: 0.5rem 0.8rem;
	}
</style>
