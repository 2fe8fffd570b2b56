<script lang="ts">
	import '@fontsource-variable/archivo/wdth.css'
	import '@fontsource-variable/atkinson-hyperlegible-next'
	import '@fontsource-variable/martian-mono'
	import '../app.css'
	import { onMount } from 'svelte'
	import { browser } from '$app/environment'
	import { SessionWatch } from '$lib/ui/session/session-watch.svelte.ts'
	import SignedOut from '$lib/ui/session/SignedOut.svelte'
	import { doAgain, noteEarly } from '$lib/ui/early.ts'

	let { children, data } = $props()

	const session = new SessionWatch(
		() => data.draftsOf,
		() => window.location.replace('/')
	)
	onMount(() => session.begin())
	// With each page that is read the others learn who reads it.
	$effect(() => {
		void data.readAt
		session.tell()
	})

	// From here to the mounting nothing of the reader's comes between: what was typed until now is all that there is.
	if (browser) noteEarly()
	onMount(doAgain)
</script>

{@render children()}
{#if session.isOut}<SignedOut name={data.user?.name ?? ''} />{/if}
