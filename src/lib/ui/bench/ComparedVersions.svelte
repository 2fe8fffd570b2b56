<script lang="ts">
	/** Two versions of the app compared in sentences; by the draft's side stands what its release would change for staff. */
	import type { AppDocument } from '$lib/core/app/document.ts'
	import { compareVersions } from '$lib/core/app/compare-versions.ts'
	import type { Names } from '$lib/core/app/printed.ts'
	import Differences from './Differences.svelte'

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
	<Differences {parts} />
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
</style>
