<script lang="ts">
	/** The rows of a list one under the other, or as cards beside one another. */
	import ListRow from './ListRow.svelte'
	import ListTotals from './ListTotals.svelte'
	import type { RowsProps } from './rows-props.ts'
	import { showFigure } from '../../count.ts'

	let { line, rows, groups, look, path, base, from, selected, several, changed, onchoose }: RowsProps = $props()
</script>

{#each groups as group, i (i)}
	{#if group.name !== ''}
		<h2>
			{group.name}
			{#if group.count !== undefined}<span class="num">{[...group.sums, showFigure(group.count)].join(' · ')}</span
				>{/if}
		</h2>
	{/if}
	<ul class:cards={line.as === 'cards'}>
		{#each group.rows as row (row.id)}
			<ListRow
				{line}
				{look}
				{row}
				{path}
				{base}
				{from}
				isSelected={row.id === selected}
				{several}
				isChanged={changed?.includes(row.id) ?? false}
				{onchoose}
			/>
		{/each}
	</ul>
{/each}{#if rows.rows.length > 0}<ListTotals totals={line.totals} />{/if}

<style>
	h2 {
		display: flex;
		justify-content: space-between;
		margin: 0;
		padding: 0.45rem 1.2rem;
		border-top: 1px solid var(--zinc-3);
		background: var(--limewash);
		font: 650 0.95rem var(--head);
	}
	.num {
		font-variant-numeric: tabular-nums;
	}
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
		border-top: 1px solid var(--zinc-2);
	}
	/* Each as wide as its words need, as many beside one another as there is room for. */
	.cards {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(min(18rem, 100%), 1fr));
		gap: 0.8rem;
		padding: 0.8rem 1.2rem;
	}
	.cards :global(li) {
		border: 1px solid var(--zinc-3);
		border-radius: 3px;
	}
</style>
