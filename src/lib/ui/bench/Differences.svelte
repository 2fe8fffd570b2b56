<script lang="ts">
	/** What two versions of an app say otherwise, part by part. */
	import type { ChangedPart } from '$lib/core/app/compare-versions.ts'

	let { parts }: { parts: readonly ChangedPart[] } = $props()
</script>

{#each parts as { place, differences }, at (at)}
	<h3>{place}</h3>
	<ul>
		{#each differences as { kind, number, pieces }, at (at)}
			<li>
				<span class="number">{number}</span>
				<span class="kind">{kind}</span>
				<span
					>{#each pieces as piece, i (i)}{#if piece.kind === 'old'}<del>{piece.text}</del
							>{:else if piece.kind === 'new'}<ins>{piece.text}</ins>{:else}{piece.text}{/if}{/each}</span
				>
			</li>
		{/each}
	</ul>
{/each}

<style>
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
		border-top: 1px solid var(--zinc-2);
	}
	li {
		display: grid;
		grid-template-columns: 40px 5.5rem 1fr;
		border-bottom: 1px solid var(--zinc-2);
	}
	li > * {
		padding: 0.4rem 0.5rem;
	}
	/* Old is struck and new underlined, as on paper; the word says the rest. */
	.number {
		background: var(--limewash);
		color: var(--zinc-7);
		font: 500 0.72rem var(--mono);
		text-align: center;
		padding-top: 0.65rem;
	}
	.kind {
		font: 600 0.88rem var(--head);
	}
	del {
		color: var(--zinc-7);
		margin-right: 0.3em;
	}
	ins {
		font-weight: 600;
		text-decoration: underline 2px;
		text-underline-offset: 0.2em;
	}
</style>
