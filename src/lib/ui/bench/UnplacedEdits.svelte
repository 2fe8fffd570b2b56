<script lang="ts">
	/** Places that two builders changed at once: both versions, for this one to choose by. */
	import { printEdit, vocabularyOf, type Names } from '$lib/core/app/printed.ts'
	import type { DraftState } from './draft.svelte.ts'

	type Props = { draft: DraftState; names: Names }

	let { draft, names }: Props = $props()

	const vocabulary = $derived(vocabularyOf(draft.document, names))
</script>

{#each draft.unplaced as conflict (conflict)}
	{@const { mine, theirs } = printEdit(draft.document, conflict.edit, vocabulary)}
	<section role="alert">
		<p>
			<strong>Another builder changed this while you did.</strong>
			{theirs === '' ? 'It is gone from the draft.' : 'It now says:'}
			{#if theirs !== ''}<q>{theirs}</q>{/if}
		</p>
		<p>
			{mine === '' ? 'You had removed it.' : 'You had made it:'}
			{#if mine !== ''}<q>{mine}</q>{/if}
		</p>
		<div class="ways">
			<button class="btn" onclick={() => draft.settle(conflict, true)}>
				{mine === '' ? 'Remove it all the same' : 'Put mine there'}
			</button>
			<button class="btn plain" onclick={() => draft.settle(conflict, false)}>Leave theirs</button>
		</div>
	</section>
{/each}

<style>
	section {
		display: grid;
		gap: 0.35rem;
		padding: 0.7rem 1.2rem;
		background: var(--marigold-wash);
		border-bottom: 1px solid var(--zinc-3);
	}
	q {
		font-weight: 600;
	}
	.ways {
		display: flex;
		gap: 0.5rem;
	}
</style>
