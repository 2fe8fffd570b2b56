<script lang="ts">
	/** Other sheets of a file that come in with the one that is looked at, and, once all are in, how their tables hang together. */
	import { invalidate } from '$app/navigation'
	import { countOf } from '$lib/core/text/count.ts'
	import RelationOffers from '../structure/RelationOffers.svelte'
	import type { GivenSource } from './given-source.svelte.ts'

	type Props = { source: GivenSource }

	let { source }: Props = $props()

	const next = $derived(source.more[source.moreDone.length])
	const tablesIn = $derived([
		...(source.status.state === 'done' ? [source.status.table] : []),
		...source.moreDone.flatMap(({ outcome }) => ('table' in outcome ? [outcome.table] : []))
	])
</script>

{#if !source.into && source.others.length > 0 && source.status.state === 'given'}
	<fieldset class="told">
		<legend class="visually-hidden">Other sheets</legend>
		<p><strong>Other sheets</strong> come in as well, as proposed, each as a table of its own:</p>
		{#each source.others as sheet (sheet)}
			<label class="tick"><input type="checkbox" value={sheet} bind:group={source.ticked} /> {sheet}</label>
		{/each}
	</fieldset>
{/if}
{#each source.moreDone as { sheet, outcome } (sheet)}
	<p class="note">
		<strong>{sheet}</strong>: {'message' in outcome
			? outcome.message
			: `${countOf(outcome.rows, 'row')} ${outcome.rows === 1 ? 'is' : 'are'} in.`}
	</p>
{/each}
{#if source.status.state === 'done'}
	{#if next !== undefined}<p class="note" role="status"><strong>{next}</strong> is coming in…</p>
	{:else}<RelationOffers tables={tablesIn} onmade={() => void invalidate('app:bench')} />{/if}
{/if}
