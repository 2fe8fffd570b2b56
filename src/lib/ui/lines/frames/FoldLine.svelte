<script lang="ts">
	import type { Snippet } from 'svelte'
	import type { ShownLine } from '$lib/core/requests/screens.ts'

	type Props = { line: { title: string; lines: readonly ShownLine[] }; inner: Snippet<[readonly ShownLine[]]> }

	let { line, inner }: Props = $props()
</script>

<details>
	<summary>{line.title}</summary>
	{@render inner(line.lines)}
</details>

<style>
	summary {
		min-height: 48px;
		padding: 0.8rem 1.2rem;
		border-block: 1px solid var(--zinc-2);
		background: var(--limewash);
		font: 650 1rem var(--head);
		cursor: pointer;
	}
</style>
