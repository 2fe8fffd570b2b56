<script lang="ts">
	/** What of a file does not come in, and why: rows left out, cells that could not be read, references not found. */
	import type { Comparison } from '$lib/core/exchange/comparison.ts'
	import type { Unread } from '$lib/core/exchange/plan.ts'
	import { countOf } from '$lib/core/text/count.ts'
	import { groupUnread } from './import-plan.ts'

	type Props = { comparison: Comparison; unread: readonly Unread[]; unreadCount: number }

	let { comparison, unread, unreadCount }: Props = $props()

	const kinds = $derived(groupUnread(unread))
	const sayRows = (rows: readonly number[]) => (rows.length === 1 ? `row ${rows[0]}` : `${rows.length} rows`)
</script>

{#if comparison.repeated > 0}
	<p class="note">
		{countOf(comparison.repeated, 'row')}
		{comparison.repeated === 1 ? 'is' : 'are'} left out, because what they are known by stands more than once: {comparison.samples.repeated
			.slice(0, 6)
			.join(', ')}.
	</p>
{/if}
{#if comparison.keyless > 0}
	<p class="note">
		{countOf(comparison.keyless, 'row')}
		{comparison.keyless === 1 ? 'is' : 'are'} left out, because what they are known by is blank.
	</p>
{/if}
{#if unreadCount > 0}
	<p class="note">
		{countOf(unreadCount, 'cell')} could not be read, and {unreadCount === 1 ? 'stays as it is' : 'stay as they are'}: {kinds
			.slice(0, 6)
			.map(({ column, text, rows }) => `${column} "${text}" (${sayRows(rows)})`)
			.join(', ')}{kinds.length > 6 ? ' and others' : ''}.
	</p>
{/if}
{#each comparison.unfound as lost (`${lost.column} ${lost.text}`)}
	<p class="note">
		<strong>{lost.column}</strong>: "{lost.text}" was not found ({countOf(lost.rows, 'row')}). Those cells stay as they
		are.
	</p>
{/each}

<style>
	.note {
		border-left: 4px solid var(--marigold);
		padding-left: 0.7rem;
	}
</style>
