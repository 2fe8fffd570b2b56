<script lang="ts">
	import { untrack } from 'svelte'
	import { page } from '$app/state'
	import type { ScreenPath, ShownList } from '$lib/core/requests/screens.ts'
	import { sayUnsorted } from '../../cells/unsorted.ts'
	import ExportMenu from '../../grid/ExportMenu.svelte'
	import { send } from '../../send.ts'
	import ListFilters from './ListFilters.svelte'
	import { ListRows } from './list-rows.svelte.ts'
	import ListRow from './ListRow.svelte'
	import ListTable from './ListTable.svelte'
	import { heldIn, listQuery } from '../screen-address.ts'
	import { groupRows, lookOf } from './row-look.ts'

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

	const COUNTED = 1000

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

<div class="head">
	<p class="count quiet" role="status" hidden={line.waitsFor !== ''}>
		{rows.find.trim() === ''
			? line.count >= COUNTED
				? 'more than 1,000'
				: line.count
			: `${rows.rows.length}${rows.next ? ' and more' : ''}`}
		{line.title.toLowerCase()}{isNarrowed ? ' found' : ''}
	</p>
	<!-- What is looked for in words stands in no address, and so in no link to a file. -->
	{#if rows.rows.length > 0 && !line.isOfRow && rows.find.trim() === '' && path.startsWith('/app/')}<div class="export">
			<ExportMenu from="{path}/export?line={line.id}{listQuery(page.url)}" />
		</div>{/if}
</div>
{#if line.finds || line.filters.length > 0}<ListFilters {line} {rows} {path} {ofRow} />{/if}
{#if line.page.unsorted !== undefined}<p class="none quiet">{sayUnsorted(line.columns, line.page.unsorted)}</p>{/if}
{#if rows.rows.length === 0}<p class="none">{nothing}</p>{/if}
<div class="rows">
	{#if line.as === 'a table' && rows.rows.length > 0}
		<ListTable {line} {rows} {groups} {path} {base} {from} selected={marked} />
	{:else}{#each groups as group, i (i)}
			{#if group.name !== ''}
				<h3>
					{group.name}
					{#if group.count !== undefined}<span class="num">{group.count.toLocaleString('en-GB')}</span>{/if}
				</h3>
			{/if}
			<ul class:cards={line.as === 'cards'}>
				{#each group.rows as row (row.id)}
					<ListRow {line} {look} {row} {path} {base} {from} isSelected={row.id === marked} />
				{/each}
			</ul>
		{/each}{/if}
</div>
{#if rows.wrong}<p class="none says-wrong" role="alert">{rows.wrong}</p>{/if}
{#if rows.next}<p class="more">
		<button class="btn" onclick={() => rows.more()} disabled={rows.busy}>{rows.busy ? 'Reading…' : 'Show more'}</button>
	</p>{/if}

<style>
	.head {
		display: flex;
		align-items: baseline;
		justify-content: space-between;
		padding: 0 1.2rem 0.4rem 0;
	}
	/* Files are for a desk. */
	@media (max-width: 800px) {
		.export {
			display: none;
		}
	}
	.count {
		padding: 0.4rem 1.2rem;
	}
	.none {
		padding: 0.8rem 1.2rem;
	}
	h3 {
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
