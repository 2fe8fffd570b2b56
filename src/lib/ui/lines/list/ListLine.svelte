<script lang="ts">
	import { untrack } from 'svelte'
	import { page } from '$app/state'
	import type { ScreenPath, ShownList } from '$lib/core/requests/screens.ts'
	import { sayUnsorted } from '../../cells/unsorted.ts'
	import { send } from '../../send.ts'
	import ListFilters from './ListFilters.svelte'
	import ListHead from './ListHead.svelte'
	import { ListRows } from './list-rows.svelte.ts'
	import ListRow from './ListRow.svelte'
	import ListTable from './ListTable.svelte'
	import ListTotals from './ListTotals.svelte'
	import { useShownNow } from '../shown-now.svelte.ts'
	import { SeveralRows } from './several-rows.svelte.ts'
	import SeveralBar from './SeveralBar.svelte'
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
	}

	let { line, path, base, from, selected, row }: Props = $props()

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

	const look = $derived(lookOf(line, rows.rows))
	const groups = $derived(groupRows(line, rows.rows, rows.find.trim() === ''))
	const isNarrowed = $derived(line.narrowing.filters.length > 0 || rows.find.trim() !== '')
	const nothing = $derived(
		line.waitsFor !== ''
			? `Choose one of ${line.waitsFor.toLowerCase()} first.`
			: isNarrowed
				? 'No row fits what is looked for.'
				: line.empty || 'There is nothing to show here. Rows appear as soon as there are some that you may see.'
	)
</script>

<ListHead {line} {rows} {several} {isNarrowed} {path} changed={changed?.size ?? 0} />
{#if line.finds || line.filters.length > 0}<ListFilters {line} {rows} {path} {ofRow} />{/if}
{#if line.page.unsorted !== undefined}<p class="none quiet">{sayUnsorted(line.columns, line.page.unsorted)}</p>{/if}
{#if rows.rows.length === 0}<p class="none">{nothing}</p>{/if}
<div class="rows">
	{#if line.as === 'a table' && rows.rows.length > 0}
		<ListTable {line} {rows} {groups} {path} {base} {from} selected={marked} {several} onchoose={choose} />
	{:else}{#each groups as group, i (i)}
			{#if group.name !== ''}
				<h2>
					{group.name}
					{#if group.count !== undefined}<span class="num">{group.count.toLocaleString('en-GB')}</span>{/if}
				</h2>
			{/if}
			<ul class:cards={line.as === 'cards'}>
				{#each group.rows as row (row.id)}
					<ListRow
						{line}
						{look}
						{row}
						{path}
						{base}
						{from}
						isSelected={row.id === marked}
						{several}
						isChanged={changed?.has(row.id) ?? false}
						onchoose={choose}
					/>
				{/each}
			</ul>
		{/each}{#if rows.rows.length > 0}<ListTotals totals={line.totals} />{/if}{/if}
</div>
{#if several.isOn}<SeveralBar {several} actions={presses} rows={named} {path} />{/if}
{#if rows.wrong}<p class="none says-wrong" role="alert">{rows.wrong}</p>{/if}
{#if rows.next}<p class="more">
		<button class="btn" onclick={() => rows.more()} disabled={rows.busy}>{rows.busy ? 'Reading…' : 'Show more'}</button>
	</p>{/if}

<style>
	.none {
		padding: 0.8rem 1.2rem;
	}
	h2 {
		display: flex;
		justify-content: space-between;
		margin: 0;
		padding: 0.45rem 1.2rem;
		border-top: 1px solid var(--zinc-3);
		background: var(--limewash);
		font: 650 0.95rem var(--head);
	}
	.num {
		font-variant-numeric: tabular-nums;
	}
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
		border-top: 1px solid var(--zinc-2);
	}
	/* Each as wide as its words need, as many beside one another as there is room for. */
	.cards {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(min(18rem, 100%), 1fr));
		gap: 0.8rem;
		padding: 0.8rem 1.2rem;
	}
	.cards :global(li) {
		border: 1px solid var(--zinc-3);
		border-radius: 3px;
	}
	.rows {
		container: list / inline-size;
	}
	.more {
		padding: 0.8rem 1.2rem;
	}
</style>
