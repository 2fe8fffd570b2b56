<script lang="ts">
	import type { Snippet } from 'svelte'
	import type { ShownLine } from '$lib/core/requests/screens.ts'

	type Props = { line: { title: string; lines: readonly ShownLine[] }; inner: Snippet<[readonly ShownLine[]]> }

	let { line, inner }: Props = $props()
</script>

<section>
	{#if line.title}<h2>{line.title}</h2>{/if}
	{@render inner(line.lines)}
</section>

<style>
	section {
		padding-bottom: 0.6rem;
	}
	h2 {
		padding: 1.1rem 1.2rem 0.4rem;
		font-size: 1.15rem;
	}
</style>
