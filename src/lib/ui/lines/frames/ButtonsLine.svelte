<script lang="ts">
	/** Buttons beside one another, as many as there is room for. */
	import type { Snippet } from 'svelte'
	import type { ShownLine } from '$lib/core/requests/screens.ts'

	type Props = { line: Extract<ShownLine, { kind: 'buttons' }>; inner: Snippet<[readonly ShownLine[]]> }

	let { line, inner }: Props = $props()
</script>

<div class="buttons">{@render inner(line.lines)}</div>

<style>
	.buttons {
		display: flex;
		flex-wrap: wrap;
		align-items: stretch;
		gap: 0.8rem;
		padding: 0.8rem 1.2rem;
	}
	/* Each brings the margins of one that stands alone. */
	.buttons :global(.place) {
		padding: 0;
		height: 100%;
	}
	@media (max-width: 640px) {
		.buttons > :global(*) {
			flex: 1 1 40%;
		}
	}
</style>
