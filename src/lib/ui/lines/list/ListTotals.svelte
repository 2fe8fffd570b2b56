<script lang="ts">
	/** What some columns come to over all rows of a list, at its foot. */
	import type { ListTotal } from '$lib/core/requests/screens.ts'
	import { showCell } from '$lib/core/requests/show-cell.ts'

	let { totals }: { totals: readonly ListTotal[] } = $props()
</script>

{#each totals as { column, sum, unseen } (column.id)}
	<p>
		<span>{column.name}, all of them{unseen > 0 ? `, without ${unseen} kept back` : ''}</span>
		<strong>{showCell(column, sum)}</strong>
	</p>
{/each}

<style>
	/* As in an account: single above, double below. */
	p {
		display: flex;
		justify-content: space-between;
		gap: 1rem;
		padding: 0.5rem 1.2rem;
		border-top: 1px solid var(--pitch);
		border-bottom: 3px double var(--pitch);
	}
	strong {
		font-variant-numeric: tabular-nums;
	}
</style>
