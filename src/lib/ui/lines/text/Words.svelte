<script lang="ts">
	/** Words that the server made out of Markdown. */
	let { html }: { html: string } = $props()
</script>

<!-- Made by the server out of Markdown, in which HTML, pictures and what values hold are plain words. -->
<!-- eslint-disable-next-line svelte/no-at-html-tags -->
<div class="words">{@html html}</div>

<style>
	.words {
		padding: 0.5rem 1.2rem;
		max-width: 46rem;
		line-height: 1.5;
	}
	.words :global(:is(h1, h2, h3)) {
		margin: 0.8rem 0 0.3rem;
	}
	.words :global(p) {
		margin: 0.4rem 0;
	}
	.words :global(:is(ul, ol)) {
		margin: 0.4rem 0;
		padding-left: 1.4rem;
	}
	.words :global(ol) {
		list-style: decimal;
	}
	.words :global(ul) {
		list-style: disc;
	}
	.words :global(blockquote) {
		margin: 0.6rem 0;
		padding-left: 0.9rem;
		border-left: 3px solid var(--zinc-3);
	}
	.words :global(table) {
		border-collapse: collapse;
	}
	.words :global(:is(td, th)) {
		padding: 0.3rem 0.7rem;
		border-bottom: 1px solid var(--zinc-2);
		text-align: left;
	}
</style>
