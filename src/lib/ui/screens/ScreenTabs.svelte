<script lang="ts">
	/** The screens of an app in their order, which is that of the navigation, and the ways to a new one: empty, or made from a table. */
	import { screenSchema } from '$lib/core/app/document.ts'
	import type { MadeTable } from '$lib/core/app/made/classify.ts'
	import { makeScreens } from '$lib/core/app/made/make-app.ts'
	import { newId } from '../bench/draft.svelte.ts'
	import type { ScreenEdit } from './screen-edit.svelte.ts'

	type Props = { edit: ScreenEdit; tables: readonly MadeTable[] }

	let { edit, tables }: Props = $props()

	let dragged = $state('')
	let over = $state('')

	function addFromTable({ currentTarget: select }: Event & { currentTarget: HTMLSelectElement }) {
		const chosen = [Number(select.value)]
		select.value = ''
		edit.addScreens(makeScreens({ chosen, all: tables, newId }))
	}

	function onkeydown(event: KeyboardEvent, id: string) {
		const by = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : undefined
		if (!event.altKey || by === undefined) return
		event.preventDefault()
		edit.stepScreen(id, by)
	}

	function drop(event: DragEvent) {
		event.preventDefault()
		if (dragged !== '') edit.moveScreen(dragged, over)
		dragged = over = ''
	}

	function hang(event: DragEvent, id: string) {
		if (dragged === '') return
		event.preventDefault()
		over = id
	}
</script>

<nav aria-label="Screens">
	{#each edit.screens as each (each.id)}
		<button
			class:on={each.id === edit.screen?.id}
			class:over={each.id === over && dragged !== over}
			title="Drag to order, or Alt with ← and →"
			draggable="true"
			onclick={() => (edit.chosen = each.id)}
			onkeydown={(event) => onkeydown(event, each.id)}
			ondragstart={() => (dragged = each.id)}
			ondragover={(event) => hang(event, each.id)}
			ondrop={drop}
			ondragend={() => (dragged = over = '')}>{each.title}</button
		>
	{/each}
	<button
		class="new"
		onclick={() => edit.addScreens([screenSchema.parse({ id: newId(), title: 'New screen', lines: [] })])}
		>+ Screen</button
	>
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
	/* Where a dragged screen would stand. */
	nav button.over {
		box-shadow: inset 3px 0 0 var(--marigold);
	}
	nav button.on {
		color: var(--pitch);
		border-bottom-color: var(--marigold);
	}
</style>
