<script lang="ts">
	/** The screens of an app, and the ways to a new one: empty, or made from a table. */
	import type { Screen } from '$lib/core/app/document.ts'
	import { makeScreens, type ScreenTable } from '$lib/core/app/make-screens.ts'
	import { newId } from './draft.svelte.ts'

	type Props = {
		screens: readonly Screen[]
		chosen: string | undefined
		tables: readonly ScreenTable[]
		onchoose: (id: string) => void
		onadd: (screens: readonly Screen[]) => void
	}

	let { screens, chosen, tables, onchoose, onadd }: Props = $props()

	function addFromTable({ currentTarget: select }: Event & { currentTarget: HTMLSelectElement }) {
		const table = tables.find((each) => each.id === Number(select.value))
		select.value = ''
		if (table) onadd(makeScreens(table, newId))
	}
</script>

<nav aria-label="Screens">
	{#each screens as each (each.id)}
		<button class:on={each.id === chosen} onclick={() => onchoose(each.id)}>{each.title}</button>
	{/each}
	<button class="new" onclick={() => onadd([{ id: newId(), title: 'New screen', lines: [] }])}>+ Screen</button>
	<select aria-label="Make screens from a table" onchange={addFromTable}>
		<option value="">+ From a table…</option>
		{#each tables as table (table.id)}<option value={table.id}>{table.name}</option>{/each}
	</select>
</nav>

<style>
	nav {
		display: flex;
		flex-wrap: wrap;
		gap: 0.2rem 0.3rem;
		padding: 0.6rem 1rem 0;
	}
	nav button,
	nav select {
		border: 0;
		background: none;
		color: var(--zinc-7);
		font: 600 0.92rem var(--head);
		padding: 0.35rem 0.6rem;
		border-bottom: 3px solid transparent;
	}
	nav select {
		padding-right: 1.8rem;
	}
	nav button.on {
		color: var(--pitch);
		border-bottom-color: var(--marigold);
	}
</style>
