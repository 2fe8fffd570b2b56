<script lang="ts">
	/** Things of one kind that wait, under their name. */
	import type { Snippet } from 'svelte'

	let { title, children }: { title: string; children: Snippet } = $props()

	const id = $props.id()
</script>

<section aria-labelledby={id}>
	<h2 {id}>{title}</h2>
	{@render children()}
</section>

<style>
	h2 {
		margin: 0;
		padding: 0.7rem 1rem 0.4rem;
		border-bottom: 1px solid var(--zinc-2);
		font: 700 0.95rem var(--head);
	}
</style>
