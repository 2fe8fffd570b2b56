<script lang="ts">
	/**
	 * Rows of a table in a grid, fetched as needed. A cell opens with Enter or by typing; Ctrl Z takes the last change
	 * back; where somebody else was faster both values are shown.
	 */
	import { invalidateAll } from '$app/navigation'
	import { untrack } from 'svelte'
	import type { CellChange, Changed, CellInput, Conflict } from '$lib/core/query/change.ts'
	import { cellKey, isReferenceCell, type WireCell, type WirePage, type WireRow } from '$lib/core/query/wire.ts'
	import type { ShownColumn } from '$lib/server/rows/describe-columns.ts'
	import type { BenchTable } from '$lib/server/workspace/bench.ts'
	import { draftOf, readDraft, type CellDraft } from '../cells/cell-draft.ts'
	import { optionsAt } from '../cells/options.ts'
	import ReferencePicker from '../cells/ReferencePicker.svelte'
	import { isNumeric, showCell } from '../cells/show-cell.ts'
	import { ask, send } from '../send.ts'
	import ColumnCard from './ColumnCard.svelte'
	import NewColumn from './NewColumn.svelte'

	type Props = { table: BenchTable; tables: readonly BenchTable[] }

	let { table, tables }: Props = $props()

	type Back =
		| { readonly kind: 'change'; readonly row: string; readonly cells: readonly CellChange[] }
		| { readonly kind: 'remove' | 'restore'; readonly row: string }
	type Undo = { readonly change: Back; readonly words: string }

	let rows = $state.raw<readonly WireRow[]>([])
	let next = $state<string | null>(null)
	let sort = $state(untrack(() => ({ column: table.label, descending: false })))
	let loading = $state(false)
	let at = $state({ row: 0, column: 0 })
	let editing = $state<CellDraft | undefined>()
	let wrong = $state('')
	let conflict = $state<{ row: string; conflict: Conflict } | undefined>()
	let past = $state.raw<readonly Undo[]>([])
	let card = $state<number | 'new' | undefined>()
	let said = $state('')
	/** By how many rows the table has grown under this grid since its number was read. */
	let grown = $state(0)
	let grid: HTMLElement

	const columns = $derived(table.columns)

	async function load(more = false) {
		if (loading) return
		loading = true
		const after = more && next ? `&after=${next}` : ''
		const answer = await ask<WirePage>(
			`/rows/${table.id}?limit=100&sort=${sort.column}&descending=${sort.descending ? 1 : 0}${after}`
		)
		loading = false
		if (!answer.ok) return void (wrong = answer.refusal.message)
		rows = more ? [...rows, ...answer.value.rows] : answer.value.rows
		next = answer.value.next
	}

	async function reloadRow(id: string) {
		const answer = await ask<WirePage>(`/rows/${table.id}?row=${id}`)
		const fresh = answer.ok ? answer.value.rows[0] : undefined
		rows = fresh ? rows.map((row) => (row.id === id ? fresh : row)) : rows.filter((row) => row.id !== id)
	}

	// The first rows, and the rows again when the table's own columns have changed.
	$effect(() => {
		void columns
		untrack(() => void load())
	})

	// Other people's changes of what is shown.
	$effect(() => {
		const source = new EventSource(`/events?tables=${table.id}`)
		let timer: ReturnType<typeof setTimeout> | undefined
		source.addEventListener('turned', () => {
			clearTimeout(timer)
			timer = setTimeout(() => void refresh(), 150)
		})
		return () => {
			clearTimeout(timer)
			source.close()
		}
	})

	/** Reads what is loaded again, without moving the page or an open cell. */
	async function refresh() {
		if (editing || loading) return
		const count = Math.min(1000, Math.max(100, rows.length))
		const answer = await ask<WirePage>(
			`/rows/${table.id}?limit=${count}&sort=${sort.column}&descending=${sort.descending ? 1 : 0}`
		)
		if (!answer.ok || editing || rows.length > count) return
		rows = answer.value.rows
		next = answer.value.next
	}

	function onscroll(event: Event) {
		const box = event.currentTarget as HTMLElement
		if (next && box.scrollHeight - box.scrollTop - box.clientHeight < 800) void load(true)
	}

	function mayEdit(row: WireRow | undefined, column: ShownColumn | undefined): boolean {
		return column !== undefined && (row?.may?.change.includes(column.id) ?? false)
	}

	function startEdit(text?: string) {
		const row = rows[at.row]
		const column = columns[at.column]
		if (!row || !column) return
		if (!mayEdit(row, column))
			return void (wrong =
				column.type === 'computed'
					? `${column.name} is computed. Open its heading to change the formula.`
					: `You may not change ${column.name} here.`)
		wrong = ''
		editing = text === undefined ? draftOf(column, row.cells[cellKey(column.id)]) : { text }
	}

	function toInput(cell: WireCell | undefined): CellInput {
		if (isReferenceCell(cell)) return { id: cell.id }
		return cell === undefined || (cell !== null && typeof cell === 'object') ? null : cell
	}

	async function commit() {
		const row = rows[at.row]
		const column = columns[at.column]
		if (!row || !column || !editing) return
		const was = row.cells[cellKey(column.id)]
		if (editing.text === draftOf(column, was).text && editing.id === draftOf(column, was).id) return stop()
		const reading = readDraft(column, editing)
		if (!reading.ok) return void (wrong = `${column.name}: ${reading.message}`)
		await put(row.id, column, { value: reading.value, ...(was === undefined ? {} : { was }) })
	}

	async function put(row: string, column: ShownColumn, cell: { value: CellInput; was?: WireCell }) {
		const answer = await send<Changed>(`/rows/${table.id}`, {
			kind: 'change',
			row,
			cells: [{ column: column.id, ...cell }]
		})
		if (!answer.ok) return void (wrong = answer.refusal.message)
		const [clash] = answer.value.conflicts
		if (clash) {
			conflict = { row, conflict: clash }
			return
		}
		stop()
		await reloadRow(row)
		// Taking it back is a change of what stands there now: if somebody changes it meanwhile, they are not overruled.
		const now = rows.find((each) => each.id === row)?.cells[cellKey(column.id)]
		const back = { column: column.id, value: toInput(cell.was), ...(now === undefined ? {} : { was: now }) }
		past = [...past.slice(-50), { change: { kind: 'change', row, cells: [back] }, words: column.name }]
	}

	function stop() {
		editing = undefined
		wrong = ''
		conflict = undefined
		grid.focus()
	}

	/** What was typed goes in after all, on top of what the other person wrote. */
	async function putMine() {
		if (!conflict) return
		const column = columns.find((each) => each.id === conflict?.conflict.column)
		const { row, conflict: clash } = conflict
		conflict = undefined
		if (column) await put(row, column, { value: clash.yours, was: clash.theirs ?? null })
	}

	async function takeTheirs() {
		const row = conflict?.row
		stop()
		if (row) await reloadRow(row)
	}

	async function undo() {
		const last = past[past.length - 1]
		if (!last) return
		past = past.slice(0, -1)
		const answer = await send<Changed>(`/rows/${table.id}`, last.change)
		if (!answer.ok) return void (wrong = `Not taken back: ${answer.refusal.message}`)
		if (answer.value.conflicts.length > 0)
			return void (wrong = `Not taken back: somebody else has changed ${last.words} since.`)
		said = `Taken back: ${last.words}.`
		if (last.change.kind === 'change') await reloadRow(last.change.row)
		else {
			grown += last.change.kind === 'restore' ? 1 : -1
			await load()
		}
	}

	async function addRow() {
		const cells = columns.flatMap((column) =>
			column.required && column.type === 'text' ? [{ column: column.id, value: 'New' }] : []
		)
		const answer = await send<Changed>(`/rows/${table.id}`, { kind: 'add', cells })
		if (!answer.ok)
			return void (wrong = `${answer.refusal.message} Use a form for rows whose columns must be filled in.`)
		const fresh = await ask<WirePage>(`/rows/${table.id}?row=${answer.value.row}`)
		if (fresh.ok) rows = [...fresh.value.rows, ...rows]
		past = [...past, { change: { kind: 'remove', row: answer.value.row }, words: 'the new row' }]
		grown++
		at = { row: 0, column: 0 }
		grid.focus()
	}

	async function removeRow() {
		const row = rows[at.row]
		if (!row) return
		const answer = await send<Changed>(`/rows/${table.id}`, { kind: 'remove', row: row.id })
		if (!answer.ok) return void (wrong = answer.refusal.message)
		rows = rows.filter((each) => each.id !== row.id)
		grown--
		past = [...past, { change: { kind: 'restore', row: row.id }, words: 'the removal' }]
		said = 'Removed. It lies in the bin for thirty days; Ctrl Z brings it back.'
	}

	const STEPS: Readonly<Record<string, readonly [number, number]>> = {
		ArrowUp: [-1, 0],
		ArrowDown: [1, 0],
		ArrowLeft: [0, -1],
		ArrowRight: [0, 1],
		PageDown: [20, 0],
		PageUp: [-20, 0]
	}

	function move(down: number, right: number) {
		at = {
			row: Math.max(0, Math.min(rows.length - 1, at.row + down)),
			column: Math.max(0, Math.min(columns.length - 1, at.column + right))
		}
		requestAnimationFrame(() => grid.querySelector('.at')?.scrollIntoView({ block: 'nearest', inline: 'nearest' }))
	}

	async function onkeydown(event: KeyboardEvent) {
		if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z' && !editing) {
			event.preventDefault()
			event.stopPropagation()
			return undo()
		}
		if (editing) {
			if (event.key === 'Escape') return stop()
			if (event.key === 'Enter' && columns[at.column]?.type !== 'long text' && !event.defaultPrevented) {
				event.preventDefault()
				await commit()
				if (!editing) move(1, 0)
			}
			return
		}
		const step = STEPS[event.key]
		if (step) {
			event.preventDefault()
			return move(...step)
		}
		if (event.key === 'Enter' || event.key === 'F2') {
			event.preventDefault()
			return startEdit()
		}
		if (event.key === 'Delete' || event.key === 'Backspace') {
			event.preventDefault()
			startEdit('')
			return void (editing && (await commit()))
		}
		if (event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey && event.key !== '/') {
			event.preventDefault()
			startEdit(columns[at.column]?.type === 'date' || columns[at.column]?.type === 'choice' ? undefined : event.key)
		}
	}

	function sortBy(column: ShownColumn) {
		sort = { column: column.id, descending: sort.column === column.id ? !sort.descending : false }
		void load()
	}

	function badge(column: ShownColumn): string {
		if (column.type === 'computed') return `= ${column.shows === 'yesno' ? 'yes/no' : column.shows}`
		if (column.type === 'reference') return `→ ${tables.find((each) => each.id === column.to)?.name ?? '…'}`
		if (column.type === 'choice') return `choice of ${column.choices?.length ?? 0}`
		return column.unit ? `${column.type} ${column.unit}` : column.type
	}

	function focus(node: HTMLElement) {
		node.focus()
		if (node instanceof HTMLInputElement && node.type === 'text')
			node.setSelectionRange(node.value.length, node.value.length)
	}

	const opened = $derived(columns.find((column) => column.id === card))
</script>

<div class="work">
	<header>
		<h1>{table.name}</h1>
		<p class="quiet">
			{(table.rows + grown).toLocaleString('en-GB')} rows · {columns.length}
			{columns.length === 1 ? 'column' : 'columns'}{table.source ? ` · from ${table.source.file}` : ''}{table.kept
				? ''
				: ' · kept by somebody else'}
		</p>
		<span class="gap"></span>
		<button class="btn" onclick={undo} disabled={past.length === 0}>Undo</button>
		{#if table.mayAdd}<button class="btn" onclick={addRow}>Add a row</button>{/if}
		<button class="btn" onclick={removeRow} disabled={!rows[at.row]?.may?.remove}>Remove row {at.row + 1}</button>
		<a class="btn" href="/export/{table.id}" download>Export CSV</a>
	</header>
	{#if conflict}
		{@const column = columns.find((each) => each.id === conflict?.conflict.column)}
		<div class="conflict" role="alert">
			{#if column}
				<p>
					Somebody else has changed <strong>{column.name}</strong> meanwhile. Now there:
					<strong>{showCell(column, conflict.conflict.theirs) || 'blank'}</strong>. You typed:
					<strong>{editing?.text ?? ''}</strong>.
				</p>
				<button class="btn" onclick={takeTheirs}>Keep theirs</button>
				<button class="btn main" onclick={putMine}>Put mine in</button>
			{/if}
		</div>
	{:else if wrong}
		<p class="conflict says-wrong" role="alert">{wrong}</p>
	{:else if said}
		<p class="said" role="status">{said}</p>
	{/if}
	<!-- The grid is one stop for Tab; inside it the arrow keys move, as the ARIA grid pattern has it. -->
	<div class="scroll" {onscroll}>
		<table
			bind:this={grid}
			{onkeydown}
			tabindex="0"
			role="grid"
			aria-label={table.name}
			aria-rowcount={table.rows}
			aria-colcount={columns.length}
		>
			<thead>
				<tr>
					<td class="corner"></td>
					{#each columns as column (column.id)}
						<th
							role="columnheader"
							class:sorted={sort.column === column.id}
							aria-sort={sort.column === column.id ? (sort.descending ? 'descending' : 'ascending') : 'none'}
						>
							<button class="name" tabindex="-1" onclick={() => sortBy(column)} title="Sort by {column.name}">
								{column.name}{sort.column === column.id ? (sort.descending ? ' ↓' : ' ↑') : ''}
							</button>
							<button
								class="badge {column.type === 'reference' ? 'ref' : ''}"
								tabindex="-1"
								onclick={() => (card = card === column.id ? undefined : column.id)}
								title="Open {column.name}">{column.id === table.label ? `key ${badge(column)}` : badge(column)}</button
							>
						</th>
					{/each}
					{#if table.kept}<th class="plus"
							><button class="name" tabindex="-1" onclick={() => (card = card === 'new' ? undefined : 'new')}
								>+ Column</button
							></th
						>{/if}
				</tr>
			</thead>
			<tbody>
				{#each rows as row, r (row.id)}
					<tr aria-rowindex={r + 1}>
						<th class="no" scope="row">{r + 1}</th>
						{#each columns as column, c (column.id)}
							{@const cell = row.cells[cellKey(column.id)]}
							{@const here = at.row === r && at.column === c}
							<td
								role="gridcell"
								tabindex="-1"
								class:at={here}
								class:num={isNumeric(column)}
								class:computed={column.type === 'computed'}
								class:unseen={cell === undefined}
								class:fault={typeof cell === 'object' && cell !== null && 'error' in cell}
								aria-selected={here}
								onclick={() => {
									if (here && !editing) return startEdit()
									if (editing && !here) void commit()
									if (!editing) at = { row: r, column: c }
								}}
							>
								{#if here && editing}
									{#if column.type === 'reference'}
										<ReferencePicker
											id="cell"
											table={column.to ?? 0}
											draft={editing}
											invalid={wrong !== ''}
											options={optionsAt('')}
											onchange={(draft) => (editing = draft)}
										/>
									{:else if column.type === 'choice' || column.type === 'yes/no'}
										<select
											use:focus
											value={editing.text}
											onchange={(event) => {
												editing = { text: event.currentTarget.value }
												void commit()
											}}
										>
											<option value=""></option>
											{#each column.type === 'choice' ? (column.choices ?? []) : ['yes', 'no'] as choice (choice)}<option
													>{choice}</option
												>{/each}
										</select>
									{:else}
										<input
											use:focus
											type={column.type === 'date' ? 'date' : 'text'}
											value={editing.text}
											oninput={(event) => (editing = { text: event.currentTarget.value })}
											aria-label={column.name}
										/>
									{/if}
								{:else}{cell === undefined ? '' : showCell(column, cell)}{/if}
							</td>
						{/each}
						{#if table.kept}<td></td>{/if}
					</tr>
				{/each}
			</tbody>
		</table>
		{#if rows.length === 0 && !loading}<p class="none">
				There are no rows yet. Add one, or bring a file in at Sources.
			</p>{/if}
		{#if loading}<p class="none quiet">Reading…</p>{/if}
	</div>
	{#if card === 'new'}
		<aside>
			<NewColumn
				{table}
				{tables}
				onclose={() => (card = undefined)}
				onmade={() => {
					card = undefined
					void invalidateAll()
				}}
			/>
		</aside>
	{:else if opened}
		<aside>
			{#key opened.id}<ColumnCard
					{table}
					{tables}
					column={opened}
					row={rows[at.row]?.id}
					onclose={() => (card = undefined)}
					onmade={() => {
						card = undefined
						void invalidateAll()
					}}
				/>{/key}
		</aside>
	{/if}
</div>

<style>
	.work {
		position: relative;
		display: flex;
		flex-direction: column;
		min-height: 0;
		height: calc(100dvh - 92px);
	}
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.5rem 0.8rem;
		padding: 0.8rem 1.2rem;
	}
	.gap {
		flex: 1;
	}
	.conflict {
		display: flex;
		align-items: center;
		gap: 0.8rem;
		background: var(--rope-wash);
		padding: 0.5rem 1.2rem;
	}
	.said {
		padding: 0.3rem 1.2rem;
		color: var(--zinc-7);
	}
	.scroll {
		flex: 1;
		overflow: auto;
		border-top: 1px solid var(--zinc-3);
	}
	table {
		border-collapse: separate;
		border-spacing: 0;
	}
	thead th,
	thead td {
		position: sticky;
		top: 0;
		z-index: 2;
		background: var(--paper);
		border-right: 1px solid var(--zinc-2);
		border-bottom: 1px solid var(--pitch);
		padding: 0.35rem 0.6rem;
		text-align: left;
		white-space: nowrap;
		min-width: 5rem;
	}
	thead th.sorted {
		box-shadow: inset 0 3px 0 var(--marigold);
	}
	.corner,
	.no {
		position: sticky;
		left: 0;
		z-index: 1;
		background: var(--limewash);
		min-width: 46px;
		color: var(--zinc-5);
		font: 400 0.72rem var(--mono);
		text-align: center;
		border-right: 1px solid var(--zinc-2);
		border-bottom: 1px solid var(--zinc-2);
	}
	thead .corner {
		z-index: 3;
		background: var(--limewash);
		min-width: 46px;
	}
	.name {
		display: block;
		border: 0;
		background: none;
		padding: 0;
		color: var(--pitch);
		font: 650 0.85rem var(--head);
		font-stretch: 90%;
	}
	.badge {
		border: 0;
		border-radius: 2px;
		background: var(--limewash);
		color: var(--zinc-7);
		font: 500 0.68rem var(--mono);
		padding: 0.15rem 0.4rem;
		margin-top: 0.2rem;
	}
	.badge.ref {
		background: var(--sea-wash);
		color: var(--sea);
	}
	td {
		border-right: 1px solid var(--zinc-2);
		border-bottom: 1px solid var(--zinc-2);
		padding: 0 0.6rem;
		height: 31px;
		max-width: 22rem;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
		background: var(--paper);
	}
	td.computed {
		background: var(--chalk);
	}
	td.unseen {
		background: repeating-linear-gradient(135deg, var(--limewash) 0 4px, transparent 4px 8px);
	}
	td.fault {
		color: var(--oxide);
		font-family: var(--mono);
		font-size: 0.82rem;
	}
	td.at {
		outline: 2px solid var(--marigold);
		outline-offset: -2px;
		overflow: visible;
	}
	td input,
	td select {
		min-width: 7rem;
		width: 100%;
		height: 29px;
		border: 0;
		padding: 0 0.2rem;
		background: var(--paper);
		color: var(--pitch);
		font: inherit;
		box-shadow: none;
	}
	td :global(.picker .field) {
		min-height: 29px;
		padding: 0 0.2rem;
		border: 0;
		min-width: 11rem;
	}
	td :global(.picker li) {
		padding: 0.3rem 0.5rem;
	}
	.none {
		padding: 1rem 1.2rem;
	}
	aside {
		position: absolute;
		z-index: 5;
		right: 1.2rem;
		top: 4.4rem;
		width: min(27rem, calc(100% - 2.4rem));
		max-height: calc(100% - 6rem);
		overflow: auto;
		background: var(--paper);
		border: 1px solid var(--pitch);
		border-radius: 3px;
		box-shadow: 0 10px 30px rgb(0 0 0 / 20%);
		padding: 1rem 1.1rem;
	}
</style>
