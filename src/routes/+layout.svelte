<script lang="ts">
	import '@fontsource-variable/archivo/wdth.css'
	import '@fontsource-variable/atkinson-hyperlegible-next'
	import '@fontsource-variable/martian-mono'
	import '../app.css'
	import { onMount, untrack } from 'svelte'
	import { browser } from '$app/environment'
	import { SessionWatch } from '$lib/ui/session/session-watch.svelte.ts'
	import { writeAs } from '$lib/ui/writing.ts'
	import { doAgain, noteEarly } from '$lib/ui/early.ts'

	let { children, data } = $props()
	untrack(() => writeAs(data.writing))
	// A steward may have it written otherwise while this page is open.
	$effect.pre(() => writeAs(data.writing))

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
{#if session.isOut}
	{#await import('$lib/ui/session/SignedOut.svelte') then { default: SignedOut }}<SignedOut
			name={data.user?.name ?? ''}
		/>{:catch}
		<p class="says-wrong" role="alert">You are signed out. Load the page again to sign in; what you typed is kept.</p>
	{/await}
{/if}
