<script lang="ts">
	/** Columns of a file that hold addresses of pictures: what becomes of them, and, once they are in, the way to try them. */
	import { arePictureAddresses } from '$lib/core/exchange/picture-addresses.ts'
	import type { ImportPlan } from '$lib/core/exchange/plan.ts'
	import type { BenchTable } from '$lib/core/requests/bench.ts'
	import type { Inspection } from '$lib/core/requests/imports.ts'

	type Props = {
		inspection: Inspection
		plan: ImportPlan
		/** The table that they are in now; undefined before. */
		table: BenchTable | undefined
		app: number
	}

	let { inspection, plan, table, app }: Props = $props()

	const rows = $derived(inspection.head.slice(inspection.firstRow))
	const found = $derived(
		plan.columns.filter((column) => {
			if (!column.include || column.type !== 'web address') return false
			const values = rows.map((row) => row[column.from] ?? '')
			return arePictureAddresses(column.name, values)
		})
	)
	const columnIn = (at: BenchTable, name: string) =>
		at.columns.find((column) => column.name.toLowerCase() === name.toLowerCase())
</script>

{#each found as column (column.from)}
	{@const there = table && columnIn(table, column.name)}
	<div class="offer">
		<p><strong>{column.name}</strong> holds addresses of pictures.</p>
		{#if table && there}
			<p>
				<a class="btn" data-sveltekit-reload href="/bench/{app}/tables/pictures?table={table.id}&column={there.id}"
					>Try them, and copy the pictures</a
				>
			</p>
		{:else}
			<p class="quiet">They come in as addresses. Then you can try them, and copy the pictures into a photo column.</p>
		{/if}
	</div>
{/each}

<style>
	.offer {
		background: var(--paper);
		border: 1px solid var(--zinc-3);
		border-left: 4px solid var(--sea);
		border-radius: 3px;
		padding: 0.6rem 0.8rem;
	}
</style>
