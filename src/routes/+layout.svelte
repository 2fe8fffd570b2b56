<script lang="ts">
	import '@fontsource-variable/archivo/wdth.css'
	import '@fontsource-variable/atkinson-hyperlegible-next'
	import '@fontsource-variable/martian-mono'
	import '../app.css'
	import { onMount } from 'svelte'
	import { typeAgain } from '$lib/ui/early-typing.ts'

	let { children } = $props()

	onMount(typeAgain)
</script>

{@render children()}
