<script lang="ts">
	/** What came of putting the rows of a table back as they were before a file came in. */
	import { countOf } from '$lib/core/text/count.ts'
	import type { Undone } from '$lib/core/requests/imports.ts'
	import { showFigure } from '../count.ts'

	type Props = { undone: Undone; table: string }

	let { undone, table }: Props = $props()
</script>

<div class="undone" role="status">
	<p>
		<strong>{table}: {countOf(undone.undone, 'row')} put back as {undone.undone === 1 ? 'it was' : 'they were'}.</strong
		>
	</p>
	{#if undone.leftCount > 0}
		<p>
			{countOf(undone.leftCount, 'row')}
			{undone.leftCount === 1 ? 'stays' : 'stay'} as now, changed since by somebody, or needed elsewhere:
		</p>
		<ul>
			{#each undone.left as row, i (i)}<li>{row.label}: {row.message}</li>{/each}
		</ul>
		{#if undone.leftCount > undone.left.length}
			<p class="quiet">and {showFigure(undone.leftCount - undone.left.length)} more</p>
		{/if}
	{/if}
</div>

<style>
	.undone {
		border-left: 4px solid var(--bottle);
		background: var(--bottle-wash);
		padding: 0.5rem 0.9rem;
	}
	.undone ul {
		margin: 0.3rem 0 0;
		padding-left: 1.2rem;
	}
</style>
