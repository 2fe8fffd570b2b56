<script lang="ts">
	/** What the paints and shapes of a chart stand for. */
	import type { Snippet } from 'svelte'

	type Props = {
		labels: readonly string[]
		/** The sign of each, by its place. */
		sign: Snippet<[number]>
		/** What else is told, after them. */
		after?: Snippet
	}

	let { labels, sign, after }: Props = $props()
</script>

<ul>
	{#each labels as label, i (i)}<li>{@render sign(i)}{label}</li>{/each}
	{@render after?.()}
</ul>

<style>
	ul {
		display: flex;
		flex-wrap: wrap;
		gap: 0.2rem 1.2rem;
		margin: 0 0 0.5rem;
		padding: 0;
		list-style: none;
		font-weight: 600;
	}
	ul :global(li) {
		display: flex;
		align-items: center;
		gap: 0.4rem;
	}
</style>
