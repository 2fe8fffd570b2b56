<script lang="ts">
	/** Two versions of the app compared in sentences; by the draft's side stands what its release would change for staff. */
	import type { AppDocument } from '$lib/core/app/document.ts'
	import { compareVersions } from '$lib/core/app/compare-versions.ts'
	import type { Names } from '$lib/core/app/printed.ts'

	type Props = {
		/** `to`: 0 for the draft; a document that is null is not there. */
		compared: { from: number; to: number; before: AppDocument | null; after: AppDocument | null }
		releases: readonly { readonly number: number }[]
		names: Names
	}

	let { compared, releases, names }: Props = $props()

	const { from, to, before, after } = $derived(compared)
	const parts = $derived(before && after ? compareVersions(before, after, names) : [])
</script>

<section>
	<h2>What changes</h2>
	<form method="GET">
		<label
			>From
			<select name="from" onchange={(event) => event.currentTarget.form?.requestSubmit()}>
				{#each releases as { number } (number)}<option value={number} selected={number === from}
						>release {number}</option
					>{/each}
			</select></label
		>
		<label
			>to
			<select name="to" onchange={(event) => event.currentTarget.form?.requestSubmit()}>
				<option value="0" selected={to === 0}>the draft</option>
				{#each releases as { number } (number)}<option value={number} selected={number === to}>release {number}</option
					>{/each}
			</select></label
		>
		<noscript><button class="btn">Compare</button></noscript>
	</form>
	{#if !before || !after}
		<p class="quiet">One of the two is not there. Choose another.</p>
	{:else if parts.length === 0}
		<p class="quiet">Nothing: both say the same.</p>
	{/if}
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
</section>

<style>
	section {
		display: grid;
		gap: 0.5rem;
	}
	form {
		display: flex;
		gap: 0.8rem;
		align-items: baseline;
	}
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
