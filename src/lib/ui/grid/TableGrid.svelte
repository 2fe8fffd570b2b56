<script lang="ts">
	/**
	 * A table in a grid, however long: rows are drawn as they come into sight. Cells are selected, copied, pasted and filled
	 * in blocks; a block goes in whole or is told apart cell by cell; every change can be taken back and done again.
	 */
	import { invalidateAll } from '$app/navigation'
	import { onMount, tick, untrack } from 'svelte'
	import type { CellChange, Conflict } from '$lib/core/query/change.ts'
	import { cellKey, type WireRow } from '$lib/core/query/wire.ts'
	import type { Filter } from '$lib/core/query/filter.ts'
	import type { ShownColumn } from '$lib/server/rows/describe-columns.ts'
	import type { BenchTable } from '$lib/server/workspace/bench.ts'
	import { ATTACHED_TYPES } from '$lib/core/capture/attachment.ts'
	import { draftOf, readDraft, sameDraft, sendFiles, type CellDraft } from '../cells/cell-draft.ts'
	import { eventsOf } from '../staff/follow.ts'
	import { fromClipboard, plainCell, toClipboard } from './clipboard.ts'
	import ClashNotice from './ClashNotice.svelte'
	import ColumnMenu from './ColumnMenu.svelte'
	import ExportMenu from './ExportMenu.svelte'
	import FindBar from './FindBar.svelte'
	import { clearCells, fillFrom, mayEdit, putTexts, replaceTexts, whyNot, type BlockPlan } from './grid-blocks.ts'
	import { GridEdits, type GridChange } from './grid-edits.svelte.ts'
	import { sayUnsorted } from '../cells/unsorted.ts'
	import GridCards from './GridCards.svelte'
	import type { GridCard } from './grid-card.ts'
	import GridChips from './GridChips.svelte'
	import GridHeader from './GridHeader.svelte'
	import GridRow from './GridRow.svelte'
	import { GridRows, listingQuery } from './grid-rows.svelte.ts'
	import { GridView } from './grid-view.svelte.ts'
	import type { ShownMisfit } from './misfit.ts'
	import MisfitNotice from './MisfitNotice.svelte'
	import { at, blockOf, isOneCell, moved, type Selection } from './selection.ts'
	import { totalsOf } from './totals.ts'

	type Props = { table: BenchTable; tables: readonly BenchTable[]; onremoved: () => void }

	let { table, tables, onremoved }: Props = $props()

	const ROW = 31
	/** Browsers lay out no more than some 33 million pixels; longer lists scroll in proportion. */
	const MOST_PIXELS = 15_000_000
	const MOST_SELECTED = 10_000

	const { id: tableId, label } = untrack(() => table)
	const rows = new GridRows(tableId)
	const view = new GridView(tableId, label)
	const edits = new GridEdits(tableId)

	let selection = $state.raw<Selection>(at(0, 0))
	let editing = $state<CellDraft | undefined>()
	let wrong = $state('')
	let said = $state('')
	let card = $state.raw<GridCard | undefined>()
	let menu = $state<number | undefined>()
	let finding = $state(false)
	let clash = $state.raw<{ change: GridChange | undefined; conflict: Conflict } | undefined>()
	let misfits = $state.raw<{ shown: readonly ShownMisfit[]; total: number; partly: () => Promise<void> } | undefined>()
	let box = $state<HTMLElement>()
	let height = $state(600)
	let first = $state(0)

	const columns = $derived(view.shown(table.columns))
	const rowHeader = $derived(Math.max(56, rows.count.toLocaleString('en-GB').length * 8 + 16))
	const lefts = $derived(
		columns.reduce<number[]>((all, column) => [...all, (all.at(-1) ?? rowHeader) + view.width(column)], [rowHeader])
	)
	const width = $derived((lefts.at(-1) ?? rowHeader) + (table.kept ? 90 : 0))
	const visible = $derived(Math.ceil(height / ROW) + 1)
	const pixels = $derived(Math.min(MOST_PIXELS, rows.count * ROW))
	/** Rows for each pixel of the scroll bar, where the list is too long to be laid out whole. */
	const scaled = $derived(rows.count * ROW > MOST_PIXELS)
	const slots = $derived(
		Array.from({ length: Math.max(0, Math.min(visible, rows.count - first)) }, (_slot, i) => first + i)
	)
	const block = $derived(blockOf(selection))
	const extent = $derived({ rows: rows.count, columns: columns.length })
	const focusColumn = $derived(columns[selection.focus.column])
	const focusRow = $derived(rows.at(selection.focus.row))
	const totals = $derived(isOneCell(selection) ? undefined : totalsOf(selectedCells()))

	onMount(() => {
		const source = eventsOf([tableId])
		let timer: ReturnType<typeof setTimeout> | undefined
		// Other people's changes of what is shown.
		source.addEventListener('turned', () => {
			clearTimeout(timer)
			timer = setTimeout(() => {
				if (!editing) void rows.reload(first, first + visible)
			}, 200)
		})
		return () => {
			clearTimeout(timer)
			source.close()
		}
	})

	// The rows again when the order, the filters or the table's own columns have changed.
	$effect(() => {
		const listing = { sorts: view.sorts, filters: view.filters }
		void table.columns
		untrack(() => {
			scrollTo(0)
			void rows.open(listing)
		})
	})

	$effect(() => {
		const [from, to] = [first, first + visible]
		untrack(() => void rows.want(Math.max(0, from - 50), to + 50))
	})

	function onscroll() {
		if (!box) return
		first = scaled
			? Math.round((box.scrollTop / Math.max(1, pixels - height)) * Math.max(0, rows.count - visible + 1))
			: Math.floor(box.scrollTop / ROW)
	}

	/** On a long list a turn of the wheel still moves by rows, not by a part of the whole. */
	function onwheel(event: WheelEvent) {
		if (!scaled || event.deltaY === 0 || event.ctrlKey) return
		event.preventDefault()
		scrollTo(first + Math.sign(event.deltaY) * Math.max(1, Math.round(Math.abs(event.deltaY) / ROW)))
	}

	function scrollTo(row: number) {
		if (!box) return
		const top = Math.max(0, Math.min(Math.max(0, rows.count - visible + 1), row))
		box.scrollTop = scaled ? (top / Math.max(1, rows.count - visible + 1)) * (pixels - height) : top * ROW
		first = top
	}

	async function reveal({ row, column }: { row: number; column: number }) {
		if (row < first) scrollTo(row)
		else if (row > first + visible - 3) scrollTo(row - visible + 3)
		if (!box) return
		const [left = 0, right = 0] = [lefts[column], lefts[column + 1]]
		const fixed = lefts[view.frozen] ?? rowHeader
		if (column >= view.frozen && left - box.scrollLeft < fixed) box.scrollLeft = left - fixed
		else if (right - box.scrollLeft > box.clientWidth) box.scrollLeft = right - box.clientWidth
		await tick()
	}

	function startEdit(text?: string) {
		if (!focusRow || !focusColumn) return
		said = ''
		if (!mayEdit(focusRow, focusColumn)) return void (wrong = whyNot(focusColumn))
		wrong = ''
		selection = at(selection.focus.row, selection.focus.column)
		editing = text === undefined ? draftOf(focusColumn, focusRow.cells[cellKey(focusColumn.id)]) : { text }
	}

	function stop() {
		editing = undefined
		wrong = ''
		box?.focus()
	}

	async function commit(): Promise<boolean> {
		if (!focusRow || !focusColumn || !editing) return true
		const was = focusRow.cells[cellKey(focusColumn.id)]
		const old = draftOf(focusColumn, was)
		if (sameDraft(editing, old)) return (stop(), true)
		const { drafts, wrong: refused } = await sendFiles({ [focusColumn.id]: editing })
		if (refused[focusColumn.id] !== undefined) return ((wrong = refused[focusColumn.id] ?? ''), false)
		const reading = readDraft(focusColumn, drafts[focusColumn.id] ?? editing)
		if (!reading.ok) {
			wrong = `${focusColumn.name}: ${reading.message}`
			return false
		}
		const cell: CellChange = { column: focusColumn.id, value: reading.value, ...(was === undefined ? {} : { was }) }
		return await put(focusColumn.name, [{ kind: 'change', row: focusRow.id, cells: [cell] }])
	}

	/** Sends changes as one block. What does not fit is shown, with the choice of leaving it out. */
	async function put(words: string, changes: readonly GridChange[], partly = false): Promise<boolean> {
		const done = await edits.apply(words, changes, (id) => rows.find(id), partly)
		if (done.ok) {
			rows.put(done.rows)
			if (changes.some((change) => change.kind !== 'change')) await rows.reload(first, first + visible)
			misfits = undefined
			stop()
			said = done.misfits.length > 0 ? `${done.misfits.length} did not fit and were left out.` : ''
			return true
		}
		const shown = done.misfits.map((misfit) => ({
			place: placeOf(changes[misfit.at], misfit.column),
			message: misfit.message
		}))
		const [only] = done.misfits
		if (only?.conflict && changes.length === 1) {
			clash = { change: changes[0], conflict: only.conflict }
			return false
		}
		const total = changes.reduce((all, change) => all + ('cells' in change ? change.cells.length : 1), 0)
		if (total === 1) wrong = shown[0]?.message ?? done.message
		else if (shown.length > 0) {
			misfits = { shown, total, partly: async () => void (await put(words, changes, true)) }
		} else wrong = done.message
		return false
	}

	/** What was typed goes in after all, on top of what the other person wrote. */
	async function putMine() {
		const { change, conflict } = clash ?? {}
		clash = undefined
		const column = table.columns.find((each) => each.id === conflict?.column)
		if (!conflict || change?.kind !== 'change' || !column) return
		const cell = { column: column.id, value: conflict.yours, was: conflict.theirs ?? null }
		await put(column.name, [{ ...change, cells: [cell] }])
	}

	async function takeTheirs() {
		clash = undefined
		stop()
		await rows.reload(first, first + visible)
	}

	function placeOf(change: GridChange | undefined, column: number | undefined): string {
		const index = change && 'row' in change ? rows.indexOf(change.row) : undefined
		const name = table.columns.find((each) => each.id === column)?.name
		return [index === undefined ? 'A new row' : `Row ${(index + 1).toLocaleString('en-GB')}`, name]
			.filter(Boolean)
			.join(', ')
	}

	function selectedCells() {
		const cells = []
		const bottom = Math.min(block.bottom, block.top + MOST_SELECTED - 1)
		for (let row = block.top; row <= bottom; row++)
			for (let column = block.left; column <= block.right; column++)
				cells.push(rows.at(row)?.cells[cellKey(columns[column]?.id ?? 0)])
		return cells
	}

	async function select(next: Selection) {
		selection = next
		wrong = ''
		said = ''
		await reveal(next.focus)
		const { top, bottom } = blockOf(next)
		if (bottom - top > visible) void rows.want(top, Math.min(bottom + 1, top + MOST_SELECTED))
	}

	/** Every row of the selection, or undefined if some are not here yet or there are too many. */
	function selectedRows(): WireRow[] | undefined {
		const count = block.bottom - block.top + 1
		if (count > MOST_SELECTED)
			return void (wrong = `Choose at most ${MOST_SELECTED.toLocaleString('en-GB')} rows at once.`)
		const found: WireRow[] = []
		for (let row = block.top; row <= block.bottom; row++) {
			const each = rows.at(row)
			if (!each) {
				void rows.want(block.top, block.bottom + 1)
				return void (wrong = 'Some of these rows are still being read. Try again in a moment.')
			}
			found.push(each)
		}
		return found
	}

	function oncopy(event: ClipboardEvent) {
		if (editing) return
		const chosen = selectedRows()
		if (!chosen) return
		event.preventDefault()
		const shown = columns.slice(block.left, block.right + 1)
		const cells = chosen.map((row) => shown.map((column) => plainCell(column, row.cells[cellKey(column.id)])))
		event.clipboardData?.setData('text/plain', toClipboard(cells))
		said = `Copied ${(chosen.length * shown.length).toLocaleString('en-GB')} ${chosen.length * shown.length === 1 ? 'cell' : 'cells'}.`
		if (event.type === 'cut') void clear()
	}

	async function onpaste(event: ClipboardEvent) {
		if (editing) return
		event.preventDefault()
		const text = event.clipboardData?.getData('text/plain') ?? ''
		const given = fromClipboard(text)
		const single = given.length === 1 && given[0]?.length === 1
		const height = single ? block.bottom - block.top + 1 : given.length
		const breadth = single ? block.right - block.left + 1 : Math.max(...given.map((line) => line.length))
		await rows.want(block.top, block.top + height)
		await putInto(
			'the paste',
			{ height, breadth },
			(row, column) => (single ? given[0]?.[0] : given[row]?.[column]) ?? ''
		)
	}

	/** Texts into the block that starts where the selection does; rows past the end are added. */
	async function putInto(
		words: string,
		{ height, breadth }: { height: number; breadth: number },
		textAt: (row: number, column: number) => string
	) {
		const targets = columns.slice(block.left, block.left + breadth)
		if (breadth > targets.length)
			return void (wrong = `This is ${breadth} columns wide, but only ${targets.length} are left from here.`)
		const taken = Array.from({ length: height }, (_row, i) => rows.at(block.top + i))
		if (taken.some((row, i) => !row && block.top + i < rows.count))
			return void (wrong = 'Some of these rows are still being read. Try again in a moment.')
		await putPlan(words, putTexts({ rows: taken, first: block.top + 1, columns: targets, textAt }), height * breadth)
	}

	/** Puts a block in, or shows first which of its cells do not fit. */
	async function putPlan(words: string, { changes, misfits: found }: BlockPlan, total: number): Promise<boolean> {
		if (found.length === 0) return changes.length > 0 && (await put(words, changes))
		misfits = { shown: found, total, partly: async () => void (await put(words, changes, true)) }
		return false
	}

	async function fillDown() {
		const source = rows.at(block.top)
		if (!source || block.bottom === block.top)
			return void (wrong = 'Choose the cell to fill from and the cells below it.')
		const chosen = selectedRows()
		if (chosen) await put('the fill', fillFrom(source, chosen.slice(1), selectedColumns()))
	}

	async function clear() {
		const chosen = selectedRows()
		if (!chosen) return
		if (selectedColumns().every((column) => column.type === 'computed'))
			return void (focusColumn && (wrong = whyNot(focusColumn)))
		const changes = clearCells(chosen, selectedColumns())
		if (changes.length > 0) await put('the clearing', changes)
	}

	function selectedColumns(): readonly ShownColumn[] {
		return columns.slice(block.left, block.right + 1)
	}

	async function replace(text: string, by: string) {
		const column = focusColumn
		if (!column) return
		const count = Math.min(rows.count, MOST_SELECTED)
		await rows.want(0, count)
		const all = Array.from({ length: count }, (_row, i) => rows.at(i)).filter((row) => row !== undefined)
		const plan = replaceTexts(all, column, { text, by })
		const total = plan.changes.length + plan.misfits.length
		if (total === 0) return void (said = `${column.name} holds no such text.`)
		if (await putPlan(`the replacement in ${column.name}`, plan, total))
			said = `Replaced in ${total.toLocaleString('en-GB')} ${total === 1 ? 'row' : 'rows'}.`
	}

	async function step(way: 'undo' | 'redo') {
		const done = await edits[way]((id) => rows.find(id))
		if (!done) return
		wrong = done.ok ? '' : done.message
		said = done.ok ? done.message : ''
		if (done.structure) await invalidateAll()
		else await rows.reload(first, first + visible)
		box?.focus()
	}

	async function addRow() {
		const cells = table.columns.flatMap((column) =>
			column.required && column.type === 'text' && !column.numbering ? [{ column: column.id, value: 'New' }] : []
		)
		const done = await edits.apply('the new row', [{ kind: 'add', cells }], () => undefined)
		if (!done.ok) {
			const why = done.misfits[0]?.message ?? done.message
			return void (wrong = `${why} Paste rows below the last one, or use a form, where columns must be filled in.`)
		}
		await rows.reload(first, first + visible)
		const id = done.rows[0]?.id
		const index = id === undefined ? undefined : rows.indexOf(id)
		if (index !== undefined) await select(at(index, 0))
		else said = 'Added. It stands where the order puts it.'
		box?.focus()
	}

	async function removeRows() {
		const chosen = selectedRows()
		if (!chosen || chosen.length === 0) return
		const words = chosen.length === 1 ? 'the removal' : `the removal of ${chosen.length} rows`
		const removed = await put(
			words,
			chosen.map((row) => ({ kind: 'remove', row: row.id }))
		)
		if (removed) said = 'Removed. They lie in the bin for thirty days; Ctrl Z brings them back.'
	}

	async function onkeydown(event: KeyboardEvent) {
		const control = event.ctrlKey || event.metaKey
		if (editing) return keyWhileEditing(event)
		if (control && SHORTCUTS[event.key.toLowerCase()]) {
			event.preventDefault()
			event.stopPropagation()
			return SHORTCUTS[event.key.toLowerCase()]?.(event.shiftKey)
		}
		const next = moved(selection, { key: event.key, shift: event.shiftKey, control }, extent, visible - 2)
		if (next) {
			event.preventDefault()
			return select(next)
		}
		if (event.key === 'Enter' || event.key === 'F2') {
			event.preventDefault()
			return startEdit()
		}
		if (event.key === 'Delete' || event.key === 'Backspace') {
			event.preventDefault()
			return clear()
		}
		if (event.key.length === 1 && !control && !event.altKey && event.key !== '/') {
			event.preventDefault()
			const type = focusColumn?.type
			startEdit(type && CHOSEN_TYPES.has(type) ? undefined : event.key)
		}
	}

	/** Types in which a key that is pressed does not begin a new value. */
	const CHOSEN_TYPES: ReadonlySet<string> = new Set(['date', 'choice', 'several choices', 'yes/no', ...ATTACHED_TYPES])

	const SHORTCUTS: Readonly<Record<string, (shift: boolean) => unknown>> = {
		z: (shift) => step(shift ? 'redo' : 'undo'),
		y: () => step('redo'),
		d: () => fillDown(),
		f: () => (finding = true),
		a: () => (selection = { anchor: { row: 0, column: 0 }, focus: { row: rows.count - 1, column: columns.length - 1 } })
	}

	async function keyWhileEditing(event: KeyboardEvent) {
		if (event.key === 'Escape') {
			event.stopPropagation()
			return stop()
		}
		const multiline = focusColumn?.type === 'long text' && event.key === 'Enter' && !event.ctrlKey
		if ((event.key !== 'Enter' && event.key !== 'Tab') || multiline || event.defaultPrevented) return
		event.preventDefault()
		const { row, column } = selection.focus
		if (!(await commit())) return
		const next =
			event.key === 'Enter'
				? { row: Math.min(rows.count - 1, row + 1), column }
				: { row, column: Math.min(columns.length - 1, column + 1) }
		await select(at(next.row, next.column))
	}

	async function press(event: MouseEvent, row: number, column: number) {
		if (event.button !== 0) return
		const here = selection.focus.row === row && selection.focus.column === column
		if (editing) {
			if (here) return
			event.preventDefault()
			if (!(await commit())) return
		}
		if (event.shiftKey) selection = { anchor: selection.anchor, focus: { row, column } }
		else selection = at(row, column)
		wrong = ''
		box?.focus({ preventScroll: true })
	}

	function drag(event: MouseEvent, row: number, column: number) {
		if (event.buttons !== 1 || editing) return
		selection = { anchor: selection.anchor, focus: { row, column } }
	}

	function setFilter(column: number, filter: Filter | undefined) {
		view.setFilter(column, filter)
		selection = at(0, 0)
		if (column > 0) box?.focus()
	}

	function closeMenu() {
		menu = undefined
		box?.focus({ preventScroll: true })
	}

	function structureMade(version: number) {
		card = undefined
		edits.structureChanged(`the change of ${table.name}`, version)
		void invalidateAll()
	}

	const number = (value: number) => value.toLocaleString('en-GB', { maximumFractionDigits: 4 })
	const plainColumns = $derived(table.columns.filter((column) => !column.condition).length)
</script>

<div class="work">
	<header>
		<h1>{table.name}</h1>
		<p class="quiet">
			{rows.slow ? '…' : rows.count.toLocaleString('en-GB')}
			{rows.count === 1 ? 'row' : 'rows'}{view.filters.length > 0 ? ' found' : ''} · {plainColumns}
			{plainColumns === 1 ? 'column' : 'columns'}{table.source ? ` · from ${table.source.file}` : ''}{table.kept
				? ''
				: ' · kept by somebody else'}
		</p>
		<span class="gap"></span>
		<button class="btn" onclick={() => step('undo')} disabled={!edits.canUndo} title="Ctrl Z">Undo</button>
		<button class="btn" onclick={() => step('redo')} disabled={!edits.canRedo} title="Ctrl Y">Redo</button>
		<button class="btn" onclick={() => (finding = !finding)} title="Ctrl F">Find</button>
		{#if table.mayAdd}<button class="btn" onclick={addRow}>Add a row</button>{/if}
		<button class="btn" onclick={removeRows} disabled={!focusRow?.may?.remove}
			>Remove {block.bottom === block.top ? `row ${block.top + 1}` : `${block.bottom - block.top + 1} rows`}</button
		>
		{#if table.kept}<button class="btn" onclick={() => (card = card?.kind === 'table' ? undefined : { kind: 'table' })}
				>Rules</button
			>{/if}
		<ExportMenu
			from="/export/{table.id}?{listingQuery(view)}"
			words={view.filters.length > 0 ? 'Export as filtered' : 'Export'}
		/>
	</header>
	{#if finding}
		<FindBar
			column={focusColumn && focusColumn.type !== 'computed' ? focusColumn.name : undefined}
			found={rows.slow ? undefined : rows.count}
			onfind={(text) => setFilter(0, text.trim() === '' ? undefined : { column: 0, is: 'contains', text })}
			onreplace={replace}
			onclose={() => {
				finding = false
				setFilter(0, undefined)
				box?.focus()
			}}
		/>
	{/if}
	<GridChips columns={table.columns} {view} onfilter={setFilter} onshown={() => box?.focus()} />
	{#if clash}
		{@const column = table.columns.find((each) => each.id === clash?.conflict.column)}
		{#if column}
			<ClashNotice
				{column}
				conflict={clash.conflict}
				typed={editing?.text ?? ''}
				ontheirs={takeTheirs}
				onmine={putMine}
			/>
		{/if}
	{:else if misfits}
		<MisfitNotice
			misfits={misfits.shown}
			total={misfits.total}
			onnone={() => (misfits = undefined)}
			onpartly={() => void misfits?.partly()}
		/>
	{:else if rows.unsorted !== undefined && !wrong && !rows.wrong}
		<p class="notice" role="status">{sayUnsorted(table.columns, rows.unsorted)}</p>
	{:else if wrong || rows.wrong}
		<p class="notice says-wrong" role="alert">{wrong || rows.wrong}</p>
	{:else if rows.slow}
		<p class="said" role="status">
			Looking through the rows… <button class="btn plain" onclick={() => rows.stop()}>Stop</button>
		</p>
	{:else if said}
		<p class="said" role="status">{said}</p>
	{/if}
	<!-- The grid is one stop for Tab; inside it the arrow keys move, as the ARIA grid pattern has it. -->
	<div
		class="scroll"
		bind:this={box}
		bind:clientHeight={height}
		{onscroll}
		{onwheel}
		{onkeydown}
		{oncopy}
		oncut={oncopy}
		{onpaste}
		tabindex="0"
		role="grid"
		aria-label={table.name}
		aria-multiselectable="true"
		aria-rowcount={rows.count}
		aria-colcount={columns.length}
	>
		<div class="head" role="row" style:width="{width}px">
			<span class="corner" style:width="{rowHeader}px"></span>
			{#each columns as column, c (column.id)}
				<GridHeader
					{column}
					{view}
					isKey={column.id === table.label}
					target={tables.find((each) => each.id === column.to)?.name}
					left={c < view.frozen ? lefts[c] : undefined}
					open={menu === column.id}
					onmenu={() => (menu = menu === column.id ? undefined : column.id)}
				>
					<ColumnMenu
						{column}
						{view}
						place={c}
						onclose={closeMenu}
						onfilter={(filter) => setFilter(column.id, filter)}
						onsort={(descending, further) => {
							view.sortBy(column.id, descending, further)
							closeMenu()
						}}
						onopen={() => {
							menu = undefined
							card = { kind: 'column', column: column.id }
						}}
						oncount={() => {
							menu = undefined
							card = { kind: 'values', column: column.id }
						}}
					/>
				</GridHeader>
			{/each}
			{#if table.kept}<span role="columnheader" class="plus"
					><button
						class="name"
						onclick={() => (card = card?.kind === 'new column' ? undefined : { kind: 'new column' })}>+ Column</button
					></span
				>{/if}
		</div>
		<div class="body" style:height="{pixels}px" style:width="{width}px">
			<div class="window" style:transform="translateY({scaled ? (box?.scrollTop ?? 0) : first * ROW}px)">
				{#each slots as r (r % (visible + 2))}
					<GridRow
						index={r}
						row={rows.at(r)}
						{columns}
						{view}
						{lefts}
						{selection}
						{block}
						draft={selection.focus.row === r ? editing : undefined}
						invalid={wrong !== ''}
						onpress={press}
						ondrag={drag}
						onopen={() => startEdit()}
						onchange={(draft, done) => {
							editing = draft
							if (done) void commit()
						}}
					/>
				{/each}
			</div>
		</div>
		{#if rows.count === 0 && !rows.fresh && !rows.slow}<p class="none">
				{view.filters.length > 0
					? 'No row fits the filter. Take it off to see them all.'
					: 'There are no rows yet. Add one, paste some here, or bring a file in at Sources.'}
			</p>{/if}
	</div>
	<footer aria-live="polite">
		{#if totals}
			<span>{number(totals.filled)} filled</span>
			{#if totals.sum !== undefined}<span>sum {number(totals.sum)}</span><span>mean {number(totals.mean ?? 0)}</span
				>{/if}
			{#if block.bottom > block.top}<button class="btn plain" onclick={fillDown} title="Ctrl D">Fill down</button>{/if}
		{:else}
			<span class="quiet"
				>Enter changes a cell · Shift and arrows choose a block · Ctrl C and Ctrl V copy to and from a spreadsheet</span
			>
		{/if}
		{#if edits.busy}<span>Putting in…</span>{/if}
	</footer>
	{#if card}
		<GridCards
			{card}
			{table}
			{tables}
			listing={{ sorts: [], filters: view.filters }}
			onopen={(next) => (card = next)}
			onfilter={(column, filter) => {
				card = undefined
				setFilter(column, filter)
			}}
			onmade={structureMade}
			{onremoved}
		/>
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
		gap: 0.5rem 0.6rem;
		padding: 0.7rem 1.2rem;
	}
	.gap {
		flex: 1;
	}
	.notice {
		background: var(--rope-wash);
		padding: 0.5rem 1.2rem;
	}
	.said {
		padding: 0.3rem 1.2rem;
		color: var(--zinc-7);
	}
	/* The cell that keys go to shows the focus. */
	.scroll:focus-visible {
		outline: none;
	}
	.scroll:focus-visible :global(.cell.at) {
		outline-width: 3px;
		outline-offset: -3px;
	}
	.scroll {
		flex: 1;
		min-height: 0;
		overflow: auto;
		position: relative;
		border-top: 1px solid var(--zinc-3);
		overflow-anchor: none;
	}
	.head {
		position: sticky;
		top: 0;
		z-index: 5;
		display: flex;
		background: var(--paper);
		border-bottom: 1px solid var(--pitch);
	}
	.body {
		position: relative;
	}
	.window {
		position: absolute;
		top: 0;
		left: 0;
	}
	.corner {
		position: sticky;
		left: 0;
		z-index: 3;
		flex: none;
		background: var(--limewash);
		border-right: 1px solid var(--zinc-2);
	}
	.plus {
		padding: 0.35rem 0.6rem;
		white-space: nowrap;
	}
	.name {
		border: 0;
		background: none;
		padding: 0;
		color: var(--pitch);
		font: 650 0.85rem var(--head);
		font-stretch: 90%;
	}
	footer {
		display: flex;
		align-items: center;
		gap: 1.2rem;
		min-height: 34px;
		padding: 0 1.2rem;
		border-top: 1px solid var(--zinc-3);
		font-variant-numeric: tabular-nums;
	}
	.none {
		position: sticky;
		left: 0;
		width: fit-content;
		padding: 1rem 1.2rem;
	}
</style>
