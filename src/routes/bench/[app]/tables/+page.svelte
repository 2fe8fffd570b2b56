<script lang="ts">
	import { goto, invalidateAll } from '$app/navigation'
	import { page } from '$app/state'
	import Diagram from '$lib/ui/bench/Diagram.svelte'
	import NewTable from '$lib/ui/bench/NewTable.svelte'
	import { showCount } from '$lib/ui/count.ts'
	import TableGrid from '$lib/ui/grid/TableGrid.svelte'

	let { data } = $props()

	const tables = $derived(data.bench.tables)
	const asked = $derived(Number(page.url.searchParams.get('table')))
	const making = $derived(page.url.searchParams.has('new'))
	const drawing = $derived(page.url.searchParams.has('diagram'))
	const table = $derived(tables.find((each) => each.id === asked) ?? tables[0])
	const base = $derived(`/bench/${data.draft.id}/tables`)
</script>

<div class="bay">
	<nav aria-label="Tables">
		<h2>Tables</h2>
		{#each tables as each (each.id)}
			<a href="{base}?table={each.id}" class:on={!making && !drawing && each.id === table?.id}>
				<span>{each.name}</span><span class="count">{showCount(each.rows)}</span>
			</a>
		{/each}
		<a class="new" href="{base}?new" class:on={making}>+ New table</a>
		<a href="{base}?diagram" class:on={drawing}>Diagram</a>
	</nav>
	{#if making}
		<NewTable
			{tables}
			onmade={async (id) => {
				await invalidateAll()
				await goto(`${base}?table=${id}`)
			}}
		/>
	{:else if drawing && tables.length > 0}
		<Diagram {tables} href={(id) => `${base}?table=${id}`} />
	{:else if table}
		{#key table.id}<TableGrid {table} {tables} />{/key}
	{:else}
		<p class="none">There is no table yet. Bring a file in at Sources, or make a table here.</p>
	{/if}
</div>

<style>
	.bay {
		display: grid;
		grid-template-columns: 195px minmax(0, 1fr);
		flex: 1;
		min-height: 0;
	}
	nav {
		background: var(--chalk);
		border-right: 1px solid var(--zinc-3);
		padding: 0.9rem 0;
	}
	h2 {
		padding: 0 1rem 0.4rem;
		font-size: 0.95rem;
	}
	nav a {
		display: flex;
		justify-content: space-between;
		padding: 0.3rem 1rem;
		color: inherit;
		text-decoration: none;
		font-family: var(--head);
		font-stretch: 92%;
		font-weight: 600;
		border-left: 4px solid transparent;
	}
	nav a.on {
		background: var(--paper);
		border-left-color: var(--marigold);
	}
	.count {
		font-family: var(--text);
		font-weight: 400;
		font-variant-numeric: tabular-nums;
		color: var(--zinc-5);
	}
	nav .new {
		margin-top: 0.7rem;
		font-weight: 500;
		color: var(--zinc-7);
	}
	.none {
		padding: 2rem;
	}
</style>
