<script lang="ts">
	/** The values that a list can be narrowed down to, each with how many rows that leaves. */
	import { onMount } from 'svelte'
	import type { Filter } from '$lib/core/query/filter.ts'
	import type { Groups } from '$lib/core/requests/rows.ts'
	import type { ScreenPath, ShownList } from '$lib/core/requests/screens.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import { filterOf, nameOf } from '../../cells/column-values.ts'
	import { send } from '../../send.ts'
	import { showFigure } from '../../count.ts'

	type Props = {
		line: ShownList & { id: string }
		column: ShownColumn
		path: ScreenPath
		find: string
		ofRow: { row?: string }
		chosen: Filter | undefined
		onchoose: (filter: Filter | undefined) => void
	}

	let { line, column, path, find, ofRow, chosen, onchoose }: Props = $props()

	let groups = $state.raw<Groups | null | undefined>()
	let wrong = $state('')

	onMount(async () => {
		// What the column itself is narrowed to leaves the others to choose from.
		const filters = line.narrowing.filters.filter((filter) => filter.column !== column.id)
		const asked = { line: line.id, column: column.id, narrowing: { find, filters }, ...ofRow }
		const answer = await send('POST', `${path}/values`, asked)
		if (answer.ok) groups = answer.value
		else wrong = answer.refusal.message
	})

	const choices = $derived(
		groups?.by === 'value'
			? groups.groups.flatMap((group) => {
					const shown = { column, by: 'value' as const }
					const filter = filterOf(shown, group)
					return filter ? [{ name: nameOf(shown, group), rows: group.rows, filter }] : []
				})
			: []
	)
	const blank: Filter = $derived({ column: column.id, is: 'blank', text: '' })
	const isChosen = (filter: Filter) => chosen !== undefined && chosen.is === filter.is && chosen.text === filter.text
</script>

<ul aria-label={column.name}>
	{#if wrong}<li class="says-wrong" role="alert">{wrong}</li>
	{:else if groups === undefined}<li class="quiet" role="status">Reading…</li>
	{:else}
		<li><button class:on={!chosen} onclick={() => onchoose(undefined)}>every {column.name.toLowerCase()}</button></li>
		{#each choices as choice (choice.filter.text)}
			<li>
				<button class:on={isChosen(choice.filter)} onclick={() => onchoose(choice.filter)}
					>{choice.name} <span class="num">{showFigure(choice.rows)}</span></button
				>
			</li>
		{/each}
		{#if groups && groups.blank > 0}
			<li>
				<button class:on={isChosen(blank)} onclick={() => onchoose(blank)}
					>left blank <span class="num">{showFigure(groups.blank)}</span></button
				>
			</li>
		{/if}
		{#if choices.length === 0}<li class="quiet">There are no few values here to choose from.</li>{/if}
	{/if}
</ul>

<style>
	ul {
		flex-basis: 100%;
		display: flex;
		flex-wrap: wrap;
		gap: 0.4rem;
		margin: 0;
		padding: 0.5rem 0;
		list-style: none;
	}
	button {
		min-height: 48px;
		padding: 0.3rem 0.9rem;
		border: 1px solid var(--zinc-5);
		border-radius: 3px;
		background: var(--paper);
		color: var(--pitch);
		font: inherit;
	}
	button.on {
		background: var(--selected);
		box-shadow: inset 0 -3px 0 var(--marigold);
	}
	.num {
		color: var(--zinc-7);
		font-variant-numeric: tabular-nums;
		padding-left: 0.4rem;
	}
</style>
