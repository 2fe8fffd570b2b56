<script lang="ts">
	import '@fontsource-variable/archivo/wdth.css'
	import '@fontsource-variable/atkinson-hyperlegible-next'
	import '@fontsource-variable/martian-mono'
	import '../app.css'

	let { children } = $props()
</script>

{@render children()}
