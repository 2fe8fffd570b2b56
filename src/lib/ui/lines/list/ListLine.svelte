<script lang="ts">
	import type { ScreenPath, ShownList } from '$lib/core/requests/screens.ts'
	import { holdsFile } from '$lib/core/capture/attachment.ts'
	import { cellKey, isFileCell, type WireRow } from '$lib/core/query/wire.ts'
	import { fileAddress } from '../../cells/file-address.ts'
	import { isNumeric } from '../../cells/controls.ts'
	import { daysUntil, isDate, showCell } from '../../cells/show-cell.ts'
	import { sayUnsorted } from '../../cells/unsorted.ts'
	import ExportMenu from '../../grid/ExportMenu.svelte'
	import { ask } from '../../send.ts'

	type Props = {
		line: ShownList & { id: string }
		path: ScreenPath
		base: string
		/** The screen that this list stands on, to come back to. */
		from: string
		selected: string | null
	}

	let { line, path, base, from, selected }: Props = $props()

	const COUNTED = 1000

	let more = $state<readonly WireRow[]>([])
	let next = $state<string | null>(null)
	let loading = $state(false)
	let wrong = $state('')

	// When the first page is read again (something changed), what was loaded after it is stale.
	$effect(() => {
		next = line.page.next
		more = []
	})

	const rows = $derived([...line.page.rows, ...more])
	const big = $derived(line.columns[0])
	const due = $derived(line.columns.slice(1).find((column) => isDate(column)))
	const amount = $derived(line.columns.slice(1).find((column) => column.type === 'money'))
	const photo = $derived(line.columns.find((column) => column.type === 'photo'))
	const small = $derived(
		line.columns.slice(1).filter((column) => column !== due && column !== amount && !holdsFile(column))
	)

	function pictureOf(row: WireRow): string | undefined {
		const cell = photo && row.cells[cellKey(photo.id)]
		return photo && isFileCell(cell) ? fileAddress(base, { column: photo.id, row: row.id, file: cell.file }) : undefined
	}

	async function loadMore() {
		loading = true
		const answer = await ask(`${path}/list?line=${line.id}&after=${next}`)
		loading = false
		if (!answer.ok) return void (wrong = answer.refusal.message)
		more = [...more, ...answer.value.rows]
		next = answer.value.next
	}

	function stamp(row: WireRow): { text: string; tone: string } | undefined {
		const value = due && row.cells[cellKey(due.id)]
		if (!due || typeof value !== 'string') return undefined
		const days = daysUntil(value)
		if (!/due|by|until|deadline/i.test(due.name)) return { text: showCell(due, value), tone: '' }
		if (days < 0) return { text: days === -1 ? '1 day past' : `${-days} days past`, tone: 'bad' }
		if (days === 0) return { text: 'today', tone: 'look' }
		return {
			text: days <= 28 ? `in ${days} day${days === 1 ? '' : 's'}` : showCell(due, value),
			tone: days <= 7 ? 'look' : ''
		}
	}

	const smallText = (row: WireRow) =>
		small
			.map((column) => showCell(column, row.cells[cellKey(column.id)]))
			.filter((text) => text !== '')
			.join(' · ')
</script>

<div class="head">
	<p class="count quiet">{line.count >= COUNTED ? 'more than 1,000' : line.count} {line.title.toLowerCase()}</p>
	{#if rows.length > 0 && path.startsWith('/app/')}<div class="export">
			<ExportMenu from="{path}/export?line={line.id}" />
		</div>{/if}
</div>
{#if line.page.unsorted !== undefined}<p class="none quiet">{sayUnsorted(line.columns, line.page.unsorted)}</p>{/if}
{#if rows.length === 0}
	<p class="none">There is nothing to show here. Rows appear as soon as there are some that you may see.</p>
{/if}
<ul>
	{#each rows as row (row.id)}
		{@const mark = stamp(row)}
		<li class:on={row.id === selected}>
			<svelte:element
				this={line.opens ? 'a' : 'div'}
				class="row"
				href={line.opens ? `${base}/${line.opens}?row=${row.id}&from=${from}` : undefined}
				data-sveltekit-noscroll
			>
				{#if photo}<span class="picture"
						>{#if pictureOf(row)}<img src={pictureOf(row)} alt="" loading="lazy" />{/if}</span
					>{/if}
				<span class="words">
					<strong class:num={big && isNumeric(big)}
						>{big ? showCell(big, row.cells[cellKey(big.id)]) || '(blank)' : ''}</strong
					>
					<span class="quiet">{smallText(row)}</span>
				</span>
				<span class="side">
					{#if amount}<span class="amount">{showCell(amount, row.cells[cellKey(amount.id)])}</span>{/if}
					{#if mark}<span class="stamp {mark.tone}">{mark.text}</span>{/if}
				</span>
			</svelte:element>
		</li>
	{/each}
</ul>
{#if wrong}<p class="none says-wrong" role="alert">{wrong}</p>{/if}
{#if next}<p class="more">
		<button class="btn" onclick={loadMore} disabled={loading}>{loading ? 'Reading…' : 'Show more'}</button>
	</p>{/if}

<style>
	.head {
		display: flex;
		align-items: baseline;
		justify-content: space-between;
		padding-right: 1.2rem;
	}
	/* Files are for a desk. */
	@media (max-width: 800px) {
		.export {
			display: none;
		}
	}
	.count {
		padding: 0 1.2rem 0.4rem;
	}
	.none {
		padding: 0.8rem 1.2rem;
	}
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
		border-top: 1px solid var(--zinc-2);
	}
	.row {
		display: flex;
		align-items: center;
		justify-content: space-between;
		gap: 0.8rem;
		min-height: 56px;
		padding: 0.5rem 1.2rem;
		border-bottom: 1px solid var(--zinc-2);
		background: var(--paper);
		color: inherit;
		text-decoration: none;
	}
	a.row:hover {
		background: var(--selected);
	}
	li.on .row {
		background: var(--selected);
		box-shadow: inset 4px 0 0 var(--marigold);
	}
	.picture {
		flex: none;
		width: 52px;
		height: 44px;
		border: 1px solid var(--zinc-2);
		border-radius: 3px;
		overflow: hidden;
	}
	.picture img {
		width: 100%;
		height: 100%;
		object-fit: cover;
	}
	.words {
		flex: 1;
		display: grid;
		min-width: 0;
	}
	strong {
		font-size: 1.05rem;
		overflow: hidden;
		text-overflow: ellipsis;
	}
	.words .quiet {
		font-size: 0.92rem;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.side {
		display: grid;
		justify-items: end;
		gap: 0.15rem;
		flex: none;
	}
	.amount {
		font-variant-numeric: tabular-nums;
		font-weight: 600;
	}
	.more {
		padding: 0.8rem 1.2rem;
	}
</style>
