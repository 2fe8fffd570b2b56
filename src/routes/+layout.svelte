<script lang="ts">
	import '@fontsource-variable/archivo/wdth.css'
	import '@fontsource-variable/atkinson-hyperlegible-next'
	import '@fontsource-variable/martian-mono'
	import '../app.css'
	import { onMount } from 'svelte'
	import { doAgain } from '$lib/ui/early.ts'

	let { children } = $props()

	onMount(doAgain)
</script>

{@render children()}
