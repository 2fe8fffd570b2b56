<script lang="ts">
	/**
	 * Goes back when nobody has touched the screen for a while, with a word before it does; the tablet is kept awake meanwhile, and
	 * nothing that was typed or chosen is left.
	 */
	import { onMount } from 'svelte'
	import { page } from '$app/state'
	import { dropDrafts } from '../form/drafts.ts'
	import { heldIn, opensWith } from '../screen-address.ts'
	import { Countdown } from './countdown.svelte.ts'

	type Props = { line: { seconds: number; keeps: readonly string[]; to: string | null }; base: string }

	let { line, base }: Props = $props()

	const countdown = new Countdown(() => line.seconds, leave)

	async function leave() {
		// What was typed is the last visitor's.
		await dropDrafts(String(page.data['draftsOf'])).catch(() => undefined)
		// A page of its own: nothing that the old one held is left.
		const keeps = line.keeps.map((name) => name.toLowerCase())
		const kept = Object.entries(heldIn(page.url)).filter(([name]) => keeps.includes(name.toLowerCase()))
		const to = line.to === null ? base : `${base}/${line.to}`
		window.location.replace(opensWith(to, { held: Object.fromEntries(kept), typed: {} }))
	}

	onMount(() => countdown.begin())
</script>

<svelte:window
	onpointerdown={() => countdown.touch()}
	onkeydown={() => countdown.touch()}
	onscroll={() => countdown.touch()}
/>
{#if countdown.isNear}
	<p role="status">
		Goes back in {countdown.left} s. <button class="btn" onclick={() => countdown.touch()}>Stay</button>
	</p>
{/if}

<style>
	p {
		position: fixed;
		z-index: 25;
		inset: auto 0 0 0;
		display: flex;
		justify-content: center;
		align-items: center;
		gap: 1rem;
		padding: 0.8rem 1rem;
		background: var(--marigold);
		color: #16201b;
		font-size: 1.1rem;
	}
	.btn {
		min-height: 48px;
	}
</style>
