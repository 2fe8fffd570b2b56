<script lang="ts">
	import { untrack, type Component } from 'svelte'
	import { showFigure } from '../../count.ts'
	import { page } from '$app/state'
	import type { ScreenPath, ShownList } from '$lib/core/requests/screens.ts'
	import { sayUnsorted } from '../../cells/unsorted.ts'
	import { send } from '../../send.ts'
	import ListFilters from './ListFilters.svelte'
	import ListHead from './ListHead.svelte'
	import { ListRows } from './list-rows.svelte.ts'
	import type { RowsProps } from './rows-props.ts'
	import { useShownNow } from '../shown-now.svelte.ts'
	import { SeveralRows } from './several-rows.svelte.ts'
	import { heldIn } from '../screen-address.ts'
	import { groupRows, lookOf, nameOf } from './row-look.ts'

	type Props = {
		line: ShownList & { id: string }
		path: ScreenPath
		base: string
		/** The screen that this list stands on, to come back to. */
		from: string
		selected: string | null
		/** The row that the screen shows. */
		row: string | null
		/** How its rows stand. */
		Rows: Component<RowsProps>
	}

	let { line, path, base, from, selected, row, Rows }: Props = $props()

	const held = $derived(heldIn(page.url))
	const ofRow = $derived({ held, ...(line.isOfRow && row !== null ? { row } : {}) })
	/** The row that is open beside it, or chosen in it. */
	const marked = $derived(line.holds === '' ? selected : (held[line.holds] ?? null))
	const rows = new ListRows((asked) => send('POST', `${path}/list`, { ...asked, ...ofRow, line: line.id }))
	// So that the first page is there before the page has come to life.
	untrack(() => void rows.take(line.page, line.narrowing))

	$effect(() => {
		const { page: first, narrowing } = line
		untrack(() => void rows.take(first, narrowing))
	})

	const now = useShownNow()
	$effect(() =>
		now.follow(line.id, () => ({ narrowing: rows.narrowing, rows: rows.rows, isWhole: rows.next === null }))
	)
	const changed = $derived(now.changed[line.id])

	const several = new SeveralRows()
	/** What can be done on several rows at once: all but opening a screen. */
	const presses = $derived(line.actions.filter(({ opens, gives }) => opens === undefined && gives === undefined))
	const named = $derived(rows.rows.map((each) => ({ id: each.id, name: nameOf(look, each) })))

	function choose({ target, shiftKey }: Event & { shiftKey?: boolean }, id: string) {
		const on = target instanceof HTMLInputElement && target.checked
		several.choose(id, on, { all: rows.rows.map((each) => each.id), isRange: shiftKey === true })
	}

	/** Nothing can be done with a row that is made up. */
	const isSample = $derived(rows.rows.length === 0 && line.samples.length > 0)
	const shown = $derived(isSample ? { ...line, opens: null, holds: '', actions: [], ticks: null } : line)
	const there = $derived(isSample ? line.samples : rows.rows)
	const look = $derived(lookOf(shown, there))
	const groups = $derived(groupRows(shown, there, rows.find.trim() === ''))
	const isNarrowed = $derived(line.narrowing.filters.length > 0 || rows.find.trim() !== '')
	const nothing = $derived(
		line.waitsFor !== ''
			? `Choose one of ${line.waitsFor.toLowerCase()} first.`
			: isNarrowed
				? 'No row fits what is looked for.'
				: line.empty || 'There is nothing to show here. Rows appear as soon as there are some that you may see.'
	)
</script>

<ListHead {line} {rows} {several} {isNarrowed} {path} changed={changed?.length ?? 0} />
{#if line.finds || line.filters.length > 0}<ListFilters {line} {rows} {path} {ofRow} />{/if}
{#if line.page.unsorted !== undefined}<p class="none quiet">{sayUnsorted(line.columns, line.page.unsorted)}</p>{/if}
{#if isSample}<p class="none quiet">Samples: {line.title} holds no row yet. Staff read: {nothing}</p>
{:else if rows.rows.length === 0}<p class="none">{nothing}</p>{/if}
<div class="rows">
	{#if there.length > 0}
		<Rows
			line={shown}
			{rows}
			{groups}
			{look}
			{path}
			{base}
			{from}
			selected={marked}
			{several}
			{changed}
			onchoose={choose}
		/>
	{/if}
</div>
{#if several.isOn}{#await import('./SeveralBar.svelte') then { default: SeveralBar }}<SeveralBar
			{several}
			actions={presses}
			rows={named}
			{path}
		/>{:catch}<p class="none says-wrong">
			This could not be loaded: no signal. Leave it, and try again later.
		</p>{/await}{/if}
{#if rows.wrong}<p class="none says-wrong" role="alert">{rows.wrong}</p>{/if}
{#if rows.next}<p class="more">
		<button class="btn" onclick={() => rows.more()} disabled={rows.busy}>{rows.busy ? 'Reading…' : 'Show more'}</button>
		<!-- Whoever holds the paper cannot press. -->
		<span class="on-paper">Here end the {showFigure(rows.rows.length)} rows that were shown; there are more.</span>
	</p>{/if}

<style>
	.none {
		padding: 0.8rem 1.2rem;
	}
	.rows {
		container: list / inline-size;
	}
	.more {
		padding: 0.8rem 1.2rem;
	}
</style>
