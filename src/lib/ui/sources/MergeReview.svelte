<script lang="ts">
	/** What bringing a file into a table would come to: counts, and the rows that would change, cell by cell. */
	import { countOf } from '$lib/core/text/count.ts'
	import type { Comparison } from '$lib/core/exchange/comparison.ts'
	import type { MergeInto, Unread } from '$lib/core/exchange/plan.ts'

	import { groupUnread } from './import-plan.ts'

	type Props = {
		comparison: Comparison
		table: string
		how: MergeInto['how']
		unread: readonly Unread[]
		unreadCount: number
	}

	let { comparison, table, how, unread, unreadCount }: Props = $props()

	const shown = (count: number) => count.toLocaleString('en-GB')
	const more = (all: number, some: number) => (all > some ? `and ${shown(all - some)} more` : '')
	const kinds = $derived(groupUnread(unread))
	const sayRows = (rows: readonly number[]) => (rows.length === 1 ? `row ${rows[0]}` : `${rows.length} rows`)
	const leftOut = $derived(comparison.repeated + comparison.keyless)
</script>

<div class="review">
	<dl>
		<div>
			<dt>new {comparison.added === 1 ? 'row' : 'rows'}</dt>
			<dd>{shown(comparison.added)}</dd>
		</div>
		{#if how !== 'add'}
			<div>
				<dt>{comparison.changed === 1 ? 'row that changes' : 'rows that change'}</dt>
				<dd>{shown(comparison.changed)}</dd>
			</div>
			<div>
				<dt>the same as now</dt>
				<dd>{shown(comparison.same)}</dd>
			</div>
			<div class:goes={how === 'replace' && comparison.missing > 0}>
				<dt>
					not in the file: {how === 'replace'
						? 'taken out'
						: comparison.missing === 1
							? 'stays as it is'
							: 'stay as they are'}
				</dt>
				<dd>{shown(comparison.missing)}</dd>
			</div>
			{#if leftOut > 0}<div class="goes">
					<dt>{leftOut === 1 ? 'row' : 'rows'} of the file left out</dt>
					<dd>{shown(leftOut)}</dd>
				</div>{/if}
		{/if}
	</dl>
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
			<strong>{lost.column}</strong>: "{lost.text}" was not found ({shown(lost.rows)}
			{lost.rows === 1 ? 'row' : 'rows'}). Those cells stay as they are.
		</p>
	{/each}
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
	dl {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem;
		margin: 0;
	}
	dl div {
		display: grid;
		border: 1px solid var(--zinc-3);
		border-top: 4px solid var(--zinc-5);
		border-radius: 3px;
		padding: 0.5rem 0.9rem;
		background: var(--paper);
	}
	dl .goes {
		border-top-color: var(--rope);
	}
	dt {
		order: 2;
		color: var(--zinc-7);
		font-size: 0.85rem;
	}
	dd {
		margin: 0;
		font: 700 1.5rem var(--head);
		font-variant-numeric: tabular-nums;
	}
	.was {
		color: var(--zinc-7);
		text-decoration: line-through;
	}
	.note {
		border-left: 4px solid var(--marigold);
		padding-left: 0.7rem;
	}
</style>
