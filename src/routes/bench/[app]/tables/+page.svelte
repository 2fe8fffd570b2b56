<script lang="ts">
	import { goto, invalidateAll } from '$app/navigation'
	import { page } from '$app/state'
	import Diagram from '$lib/ui/structure/Diagram.svelte'
	import NewTable from '$lib/ui/structure/NewTable.svelte'
	import { showDay } from '$lib/ui/dates.ts'
	import { changeStructure } from '$lib/ui/structure/structure.ts'
	import { showCount } from '$lib/ui/count.ts'
	import { addDays, isIsoDate } from '$lib/core/schedule/calendar.ts'
	import TablePast from '$lib/ui/grid/TablePast.svelte'
	import TableGrid from '$lib/ui/grid/TableGrid.svelte'

	let { data } = $props()

	const tables = $derived(data.bench.tables)
	const asked = $derived(Number(page.url.searchParams.get('table')))
	const making = $derived(page.url.searchParams.has('new'))
	const drawing = $derived(page.url.searchParams.has('diagram'))
	const table = $derived(tables.find((each) => each.id === asked) ?? tables[0])
	const removed = $derived(data.bench.removed)
	let said = $state('')

	async function takenOut(name: string) {
		said = `${name} was taken out. It can be put back for thirty days.`
		await invalidateAll()
		await goto(base)
	}

	async function putBack(id: number, name: string) {
		const answer = await changeStructure({ kind: 'return table', table: id })
		if (!answer.ok) return void (said = answer.refusal.message)
		said = answer.value.made.lines
			? `${name} is back, with its lines of access.`
			: `${name} is back. Other tables have changed since, so its lines of access must be written again.`
		await invalidateAll()
		await goto(`${base}?table=${id}`)
	}

	const base = $derived(`/bench/${data.draft.id}/tables`)
	/** As its reader's clock has it; what is asked for is a day of the workspace. */
	const yesterday = addDays(new Date().toISOString().slice(0, 10), -1) ?? ''
	const on = $derived(page.url.searchParams.get('on') ?? '')
	const day = $derived(isIsoDate(on) ? on : null)
	const addressOf = (id: number, on?: string) => `${base}?table=${id}${on ? `&on=${on}` : ''}`
</script>

<div class="bay">
	<nav class="side" aria-label="Tables">
		<h2>Tables</h2>
		{#each tables as each (each.id)}
			<a href="{base}?table={each.id}" class:on={!making && !drawing && each.id === table?.id}>
				<span>{each.name}</span><span class="count">{showCount(each.rows)}</span>
			</a>
		{/each}
		<a class="new" href="{base}?new" class:on={making}>+ New table</a>
		<a href="{base}?diagram" class:on={drawing}>Diagram</a>
		{#if removed.length > 0}
			<h3>Taken out</h3>
			{#each removed as each (each.id)}
				<p class="out">
					<span>{each.name} <span class="quiet">on {showDay(each.at)}</span></span>
					<button class="btn" onclick={() => putBack(each.id, each.name)}>Put back</button>
				</p>
			{/each}
		{/if}
		{#if said}<p class="said" role="status">{said}</p>{/if}
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
		{#key table.id}
			{#if day}<TablePast {table} {day} latest={yesterday} href={(on) => addressOf(table.id, on)} />
			{:else}<TableGrid
					{...{ table, tables }}
					past={addressOf(table.id, yesterday)}
					onremoved={() => takenOut(table.name)}
				/>{/if}
		{/key}
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
	.count {
		font-family: var(--text);
		font-weight: 400;
		font-variant-numeric: tabular-nums;
		color: var(--zinc-5);
	}
	.new {
		margin-top: 0.7rem;
		font-weight: 500;
		color: var(--zinc-7);
	}
	h3 {
		padding: 1rem 1rem 0.2rem;
		font-size: 0.9rem;
	}
	.out {
		display: grid;
		gap: 0.2rem;
		justify-items: start;
		padding: 0.3rem 1rem;
	}
	.said {
		padding: 0.6rem 1rem;
	}
	.none {
		padding: 2rem;
	}
</style>
