<script lang="ts">
	/** What a list is narrowed down to, as a sentence with slots: "Shows every type for any diver". */
	import { untrack } from 'svelte'
	import { goto } from '$app/navigation'
	import { page } from '$app/state'
	import type { Filter } from '$lib/core/query/filter.ts'
	import type { ScreenPath, ShownList } from '$lib/core/requests/screens.ts'
	import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
	import { isNumeric } from '../../cells/controls.ts'
	import { isDate, showCell } from '$lib/core/requests/show-cell.ts'
	import { soughtIn, withSought } from '../screen-address.ts'
	import type { ListRows } from './list-rows.svelte.ts'
	import { addressNow } from '../address-now.ts'

	type Props = { line: ShownList & { id: string }; rows: ListRows; path: ScreenPath; ofRow: { row?: string } }

	let { line, rows, path, ofRow }: Props = $props()

	/** Long enough to go on typing in. */
	const PAUSE_MS = 250

	const id = $props.id()
	let open = $state<number | undefined>()
	let typing: ReturnType<typeof setTimeout> | undefined

	const filterOf = (column: ShownColumn) => line.narrowing.filters.find((filter) => filter.column === column.id)
	/** As its cells say it: a number with its unit, a date as dates are written here. */
	function wordsOf(column: ShownColumn, { is, text }: Filter): string {
		if (is === 'blank') return 'left blank'
		const figure = isNumeric(column) ? Number(text) : Number.NaN
		return Number.isFinite(figure) ? showCell(column, figure) : isDate(column) ? showCell(column, text) : text
	}

	const isNarrowed = $derived(line.narrowing.filters.length > 0 || rows.find.trim() !== '')

	const sought = $derived(soughtIn(page.url, line.id))

	// Words stand in the fragment, which the server never sees: it is read once the page has come to life, and when it turns.
	$effect(() => seek(sought))

	function seek(text: string) {
		if (typing === undefined && text !== untrack(() => rows.find)) void rows.look(text)
	}

	function look({ currentTarget }: Event & { currentTarget: HTMLInputElement }) {
		const { value } = currentTarget
		clearTimeout(typing)
		typing = setTimeout(() => {
			typing = undefined
			void rows.look(value)
			void goto(withSought(addressNow(), line.id, value), { keepFocus: true, noScroll: true, replaceState: true })
		}, PAUSE_MS)
	}

	/** The choice goes into the address, so that it is there after a reload, and in a link. */
	function choose(column: number, filter: Filter | undefined) {
		open = undefined
		const url = new URL(addressNow())
		const name = `f.${line.id}.${column}`
		url.searchParams.delete(name)
		if (filter) url.searchParams.set(name, filter.text)
		void goto(url, { keepFocus: true, noScroll: true, replaceState: true })
	}

	function startOver() {
		clearTimeout(typing)
		typing = undefined
		const url = new URL(withSought(addressNow(), line.id, ''), addressNow())
		for (const { column } of line.narrowing.filters) url.searchParams.delete(`f.${line.id}.${column}`)
		void rows.look('')
		void goto(url, { keepFocus: true, noScroll: true, replaceState: true })
	}
</script>

<div class="narrow">
	{#if line.finds}
		<label class="visually-hidden" for="{id}-find">Look for words in {line.title}</label>
		<input
			id="{id}-find"
			type="search"
			class="field"
			placeholder="Look for…"
			maxlength="200"
			value={rows.find}
			oninput={look}
		/>
	{/if}
	{#if line.filters.length > 0}
		<p class="sentence">
			Shows
			{#each line.filters as column, i (column.id)}
				{@const filter = filterOf(column)}
				{i > 0 ? ' and ' : ''}
				<button
					class="slot"
					class:filled={filter !== undefined}
					aria-expanded={open === column.id}
					onclick={() => (open = open === column.id ? undefined : column.id)}
					><span
						>{filter
							? `${column.name.toLowerCase()} ${wordsOf(column, filter)}`
							: `every ${column.name.toLowerCase()}`}</span
					></button
				>
			{/each}
		</p>
	{/if}
	{#if isNarrowed}<button class="btn plain" onclick={startOver}>Show all again</button>{/if}
	{#each line.filters as column (column.id)}
		{#if open === column.id}
			{#await import('./FilterValues.svelte') then { default: FilterValues }}
				<FilterValues
					{line}
					{column}
					{path}
					{ofRow}
					find={rows.find}
					chosen={filterOf(column)}
					onchoose={(filter) => choose(column.id, filter)}
				/>
			{:catch}<p class="says-wrong" role="alert">This could not be loaded: no signal. Press again later.</p>{/await}
		{/if}
	{/each}
</div>

<style>
	.narrow {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.4rem 1rem;
		padding: 0.2rem 1.2rem 0.6rem;
	}
	input {
		flex: 1 1 14rem;
		max-width: 24rem;
		min-height: 48px;
	}
	.sentence {
		margin: 0;
	}
	.slot {
		min-height: 44px;
		padding: 0 0.15rem;
		border: 0;
		background: none;
		color: inherit;
		font: 650 1rem var(--body, inherit);
	}
	.slot span {
		border-bottom: 2px dotted var(--zinc-5);
	}
	.slot.filled span {
		border-bottom: 3px solid var(--marigold);
	}
</style>
