<script lang="ts">
	/** What bringing a file into a table would come to: counts, and the rows that would change, cell by cell. */
	import type { Comparison } from '$lib/core/exchange/comparison.ts'
	import type { MergeInto, Unread } from '$lib/core/exchange/plan.ts'
	import LeftOutRows from './LeftOutRows.svelte'
	import MergeCounts from './MergeCounts.svelte'
	import { showFigure } from '../count.ts'

	type Props = {
		comparison: Comparison
		table: string
		how: MergeInto['how']
		unread: readonly Unread[]
		unreadCount: number
	}

	let { comparison, table, how, unread, unreadCount }: Props = $props()

	const shown = (count: number) => showFigure(count)
	const more = (all: number, some: number) => (all > some ? `and ${shown(all - some)} more` : '')
</script>

<div class="review">
	<MergeCounts {comparison} {how} />
	<LeftOutRows {comparison} {unread} {unreadCount} />
	{#if comparison.changed > 0}
		<h2>What changes</h2>
		<table class="ruled">
			<thead><tr><th>Row</th><th>Column</th><th>Now</th><th>From the file</th></tr></thead>
			<tbody>
				{#each comparison.samples.changed as row, r (r)}
					{#each row.cells as cell, i (cell.column)}
						<tr>
							<td
								>{#if i === 0}<strong>{row.label}</strong>{/if}</td
							>
							<td>{cell.column}</td>
							<td class="was">{cell.from || 'blank'}</td>
							<td>{cell.to || 'blank'}</td>
						</tr>
					{/each}
				{/each}
			</tbody>
		</table>
		<p class="quiet">{more(comparison.changed, comparison.samples.changed.length)}</p>
	{/if}
	{#if comparison.added > 0}
		<h2>New</h2>
		<p>
			{comparison.samples.added.map((label) => label || 'without a name').join(', ')}
			<span class="quiet">{more(comparison.added, comparison.samples.added.length)}</span>
		</p>
	{/if}
	{#if how === 'replace' && comparison.missing > 0}
		<h2>Taken out of {table}</h2>
		<p>
			{comparison.samples.missing.map((label) => label || 'without a name').join(', ')}
			<span class="quiet">{more(comparison.missing, comparison.samples.missing.length)}</span>
		</p>
		<p class="quiet">They can be brought back for 30 days.</p>
	{/if}
</div>

<style>
	.review {
		padding: 1.1rem 1.3rem 2rem;
		display: grid;
		gap: 0.7rem;
		align-content: start;
		overflow: auto;
		max-width: 64rem;
	}
	.was {
		color: var(--zinc-7);
		text-decoration: line-through;
	}
</style>
