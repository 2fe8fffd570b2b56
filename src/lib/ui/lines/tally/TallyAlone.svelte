<script lang="ts">
	/** A tally that stands on the screen itself, within its margins. */
	import type { ScreenPath, ShownTally } from '$lib/core/requests/screens.ts'
	import TallyLine from './TallyLine.svelte'

	let { line, path }: { line: ShownTally; path: ScreenPath } = $props()
</script>

<div><TallyLine {line} {path} /></div>

<style>
	div {
		padding: 0 1.2rem;
		max-width: 36rem;
	}
</style>
