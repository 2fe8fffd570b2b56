<script lang="ts">
	/** A box for words that other lines go by. They stand in the fragment of the address: in a link, and in no log. */
	import { onMount } from 'svelte'
	import { goto } from '$app/navigation'
	import { page } from '$app/state'
	import type { ShownLine } from '$lib/core/requests/screens.ts'
	import { MOST_HELD_TEXT } from '$lib/core/app/held-text.ts'
	import { heldIn, withTyped } from '../screen-address.ts'
	import { addressNow } from '../address-now.ts'

	let { line }: { line: Extract<ShownLine, { kind: 'search' }> } = $props()

	/** Long enough to go on typing in. */
	const PAUSE_MS = 250

	const id = $props.id()
	let text = $state('')
	let isTyping = false
	let typing: ReturnType<typeof setTimeout> | undefined

	const held = $derived(heldIn(page.url)[line.holds] ?? '')
	const label = $derived(line.label || 'Search')

	// The server never sees the fragment, so the box is filled once the page has come to life.
	onMount(() => (text = held))
	$effect(() => {
		if (!isTyping) text = held
	})

	function type() {
		isTyping = true
		clearTimeout(typing)
		typing = setTimeout(look, PAUSE_MS)
	}

	function look() {
		isTyping = false
		void goto(withTyped(addressNow(), line.holds, text), { keepFocus: true, noScroll: true, replaceState: true })
	}
</script>

<p>
	<label for={id}>{label}</label>
	<input
		{id}
		type="search"
		class="field"
		placeholder={line.sample}
		maxlength={MOST_HELD_TEXT}
		autocomplete="off"
		bind:value={text}
		oninput={type}
	/>
</p>

<style>
	p {
		display: grid;
		gap: 0.2rem;
		padding: 0.4rem 1.2rem;
	}
	label {
		font-weight: 600;
	}
	.field {
		width: 20rem;
		max-width: 100%;
		min-height: 48px;
	}
</style>
