<script lang="ts">
	import '@fontsource-variable/archivo/wdth.css'
	import '@fontsource-variable/atkinson-hyperlegible-next'
	import '@fontsource-variable/martian-mono'
	import '../app.css'
	import { onMount } from 'svelte'
	import { browser } from '$app/environment'
	import { doAgain, noteEarly } from '$lib/ui/early.ts'

	let { children } = $props()

	// From here to the mounting nothing of the reader's comes between: what was typed until now is all that there is.
	if (browser) noteEarly()
	onMount(doAgain)
</script>

{@render children()}
