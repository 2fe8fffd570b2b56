<script lang="ts">
	/** What one request asks for: the row as it was asked, and the rows under it. */
	import { cellKey } from '$lib/core/query/wire.ts'
	import type { CaseSheet } from '$lib/core/requests/cases.ts'
	import { isNumeric } from '../cells/controls.ts'
	import { showCell } from '$lib/core/requests/show-cell.ts'
	import { showMoment } from '../dates.ts'
	import { toneOf } from './tone.ts'

	type Props = { sheet: CaseSheet }

	let { sheet }: Props = $props()
</script>

<p class="quiet">{sheet.name} · asked by {sheet.askedBy}, {showMoment(sheet.askedAt)}</p>
<h2 class="label">{sheet.label}</h2>
<div class="stage {toneOf(sheet.state)}">
	<strong
		>{sheet.state === 'waiting'
			? `Waits on ${sheet.decider}`
			: `${sheet.state} ${sheet.state === 'withdrawn' ? '' : `by ${sheet.decider}`}`}</strong
	>
	<span>{sheet.decidedAt === null ? `since ${showMoment(sheet.askedAt)}` : showMoment(sheet.decidedAt)}</span>
</div>
{#if sheet.row}
	<dl>
		{#each sheet.columns.slice(1) as column (column.id)}
			{@const cell = sheet.row.cells[cellKey(column.id)]}
			{#if cell !== undefined}<dt>{column.name}</dt>
				<dd>{showCell(column, cell) || '–'}</dd>{/if}
		{/each}
	</dl>
{:else}
	<p>The row itself is not for you to see; what was decided is.</p>
{/if}
{#each sheet.children.filter((child) => child.rows.length > 0) as child (child.name)}
	<table class="ruled">
		<thead
			><tr
				>{#each child.columns as column (column.id)}<th class:num={isNumeric(column)}>{column.name}</th>{/each}</tr
			></thead
		>
		<tbody>
			{#each child.rows as row (row.id)}
				<tr
					>{#each child.columns as column (column.id)}<td class:num={isNumeric(column)}
							>{showCell(column, row.cells[cellKey(column.id)])}</td
						>{/each}</tr
				>
			{/each}
		</tbody>
	</table>
{/each}

<style>
	.label {
		font-size: 1.45rem;
	}
	.stage {
		display: flex;
		flex-wrap: wrap;
		gap: 0.2rem 1rem;
		padding: 0.6rem 0.9rem;
		border: 1px solid var(--zinc-3);
		border-top: 4px solid var(--marigold);
		background: var(--marigold-wash);
	}
	.stage strong::first-letter {
		text-transform: uppercase;
	}
	.stage.good {
		background: var(--bottle-wash);
		border-top-color: var(--bottle);
	}
	.stage.bad {
		background: var(--oxide-wash);
		border-top-color: var(--oxide);
	}
	dl {
		display: grid;
		grid-template-columns: minmax(7rem, 10rem) 1fr;
		margin: 0;
	}
	dt,
	dd {
		margin: 0;
		padding: 0.4rem 0;
		border-bottom: 1px solid var(--zinc-2);
	}
	dt {
		color: var(--zinc-7);
	}
	dd {
		font-weight: 600;
		white-space: pre-line;
	}
</style>
