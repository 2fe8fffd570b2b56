/**
 * What is done in a grid: cells are chosen, changed one by one or in blocks, rows added and removed. A block goes in whole,
 * or is told apart cell by cell; every change can be taken back (`grid-edits`).
 */
import { countOf } from '$lib/core/text/count.ts'
import { invalidateAll } from '$app/navigation'
import type { CellChange, Conflict } from '$lib/core/query/change.ts'
import { cellKey, type WireRow } from '$lib/core/query/wire.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import type { BenchTable } from '$lib/core/requests/bench.ts'
import { draftOf, readDraft, sameDraft, sendFiles, type CellDraft } from '../cells/cell-draft.ts'
import { clearCells, fillFrom, mayEdit, putTexts, replaceTexts, whyNot, type BlockPlan } from './grid-blocks.ts'
import type { GridChange, GridEdits } from './grid-edits.svelte.ts'
import type { GridRows } from './grid-rows.svelte.ts'
import type { GridScroll } from './grid-scroll.svelte.ts'
import type { ShownMisfit } from './misfit.ts'
import { at, blockOf, isOneCell, type Selection } from './selection.ts'
import { totalsOf } from './totals.ts'
import { showFigure } from '../count.ts'

const MOST_SELECTED = 10_000

export interface GridPlace {
	readonly table: () => BenchTable
	/** The columns that are shown, in their order. */
	readonly columns: () => readonly ShownColumn[]
	readonly rows: GridRows
	readonly edits: GridEdits
	readonly scroll: GridScroll
}

/** Cells that do not fit, and a way to put in the others. */
export interface Misfits {
	readonly shown: readonly ShownMisfit[]
	readonly total: number
	readonly partly: () => Promise<void>
}

export class GridWork {
	selection = $state.raw<Selection>(at(0, 0))
	editing = $state<CellDraft | undefined>()
	wrong = $state('')
	said = $state('')
	/** A cell that somebody else changed meanwhile. */
	clash = $state.raw<{ change: GridChange | undefined; conflict: Conflict } | undefined>()
	misfits = $state.raw<Misfits | undefined>()
	readonly rows: GridRows
	readonly edits: GridEdits
	readonly scroll: GridScroll
	private readonly table: () => BenchTable
	private readonly shown: () => readonly ShownColumn[]
	readonly columns = $derived.by(() => this.shown())
	readonly block = $derived(blockOf(this.selection))
	readonly extent = $derived.by(() => ({ rows: this.rows.count, columns: this.columns.length }))
	readonly focusColumn = $derived(this.columns[this.selection.focus.column])
	/** The column whose values can be replaced: that of the focus, unless it is worked out. */
	readonly replacedIn = $derived(this.focusColumn?.type === 'computed' ? undefined : this.focusColumn?.name)
	readonly focusRow = $derived.by(() => this.rows.at(this.selection.focus.row))
	readonly totals = $derived.by(() => (isOneCell(this.selection) ? undefined : totalsOf(this.selectedCells())))

	constructor({ table, columns, rows, edits, scroll }: GridPlace) {
		this.table = table
		this.shown = columns
		this.rows = rows
		this.edits = edits
		this.scroll = scroll
	}

	/** Reads again what is in sight. */
	reload(): Promise<void> {
		return this.rows.reload(this.scroll.first, this.scroll.first + this.scroll.visible)
	}

	selectAll(): void {
		const last = { row: this.rows.count - 1, column: this.columns.length - 1 }
		this.selection = { anchor: { row: 0, column: 0 }, focus: last }
	}

	startEdit(text?: string) {
		if (!this.focusRow || !this.focusColumn) return
		this.said = ''
		if (!mayEdit(this.focusRow, this.focusColumn)) return void (this.wrong = whyNot(this.focusColumn))
		this.wrong = ''
		this.selection = at(this.selection.focus.row, this.selection.focus.column)
		this.editing =
			text === undefined ? draftOf(this.focusColumn, this.focusRow.cells[cellKey(this.focusColumn.id)]) : { text }
	}

	stop() {
		this.editing = undefined
		this.wrong = ''
		this.scroll.focus()
	}

	async commit(): Promise<boolean> {
		if (!this.focusRow || !this.focusColumn || !this.editing) return true
		const was = this.focusRow.cells[cellKey(this.focusColumn.id)]
		const old = draftOf(this.focusColumn, was)
		if (sameDraft(this.editing, old)) return (this.stop(), true)
		const { drafts, wrong: refused } = await sendFiles({ [this.focusColumn.id]: this.editing })
		if (refused[this.focusColumn.id] !== undefined) return ((this.wrong = refused[this.focusColumn.id] ?? ''), false)
		const reading = readDraft(this.focusColumn, drafts[this.focusColumn.id] ?? this.editing)
		if (!reading.ok) {
			this.wrong = `${this.focusColumn.name}: ${reading.message}`
			return false
		}
		const cell: CellChange = {
			column: this.focusColumn.id,
			value: reading.value,
			...(was === undefined ? {} : { was })
		}
		return await this.put(this.focusColumn.name, [{ kind: 'change', row: this.focusRow.id, cells: [cell] }])
	}

	/** Sends changes as one block. What does not fit is shown, with the choice of leaving it out. */
	async put(words: string, changes: readonly GridChange[], partly = false): Promise<boolean> {
		const done = await this.edits.apply(words, changes, (id) => this.rows.find(id), partly)
		if (done.ok) {
			this.rows.put(done.rows)
			if (changes.some((change) => change.kind !== 'change')) await this.reload()
			this.misfits = undefined
			this.stop()
			this.said = done.misfits.length > 0 ? `${done.misfits.length} did not fit and were left out.` : ''
			return true
		}
		const shown = done.misfits.map((misfit) => ({
			place: this.placeOf(changes[misfit.at], misfit.column),
			message: misfit.message
		}))
		const [only] = done.misfits
		if (only?.conflict && changes.length === 1) {
			this.clash = { change: changes[0], conflict: only.conflict }
			return false
		}
		const total = changes.reduce((all, change) => all + ('cells' in change ? change.cells.length : 1), 0)
		if (total === 1) this.wrong = shown[0]?.message ?? done.message
		else if (shown.length > 0) {
			this.misfits = { shown, total, partly: async () => void (await this.put(words, changes, true)) }
		} else this.wrong = done.message
		return false
	}

	/** What was typed goes in after all, on top of what the other person wrote. */
	async putMine() {
		const { change, conflict } = this.clash ?? {}
		this.clash = undefined
		const column = this.table().columns.find((each) => each.id === conflict?.column)
		if (!conflict || change?.kind !== 'change' || !column) return
		const cell = { column: column.id, value: conflict.yours, was: conflict.theirs ?? null }
		await this.put(column.name, [{ ...change, cells: [cell] }])
	}

	async takeTheirs() {
		this.clash = undefined
		this.stop()
		await this.reload()
	}

	private placeOf(change: GridChange | undefined, column: number | undefined): string {
		const index = change && 'row' in change ? this.rows.indexOf(change.row) : undefined
		const name = this.table().columns.find((each) => each.id === column)?.name
		return [index === undefined ? 'A new row' : `Row ${showFigure(index + 1)}`, name].filter(Boolean).join(', ')
	}

	private selectedCells() {
		const cells = []
		const bottom = Math.min(this.block.bottom, this.block.top + MOST_SELECTED - 1)
		for (let row = this.block.top; row <= bottom; row++)
			for (let column = this.block.left; column <= this.block.right; column++)
				cells.push(this.rows.at(row)?.cells[cellKey(this.columns[column]?.id ?? 0)])
		return cells
	}

	async select(next: Selection) {
		this.selection = next
		this.wrong = ''
		this.said = ''
		await this.scroll.reveal(next.focus)
		const { top, bottom } = blockOf(next)
		if (bottom - top > this.scroll.visible) void this.rows.want(top, Math.min(bottom + 1, top + MOST_SELECTED))
	}

	/** Every row of the selection, or undefined if some are not here yet or there are too many. */
	selectedRows(): WireRow[] | undefined {
		const count = this.block.bottom - this.block.top + 1
		if (count > MOST_SELECTED) return void (this.wrong = `Choose at most ${showFigure(MOST_SELECTED)} rows at once.`)
		const found: WireRow[] = []
		for (let row = this.block.top; row <= this.block.bottom; row++) {
			const each = this.rows.at(row)
			if (!each) {
				void this.rows.want(this.block.top, this.block.bottom + 1)
				return void (this.wrong = 'Some of these rows are still being read. Try again in a moment.')
			}
			found.push(each)
		}
		return found
	}

	/** Texts into the block that starts where the selection does; rows past the end are added. */
	async putInto(
		words: string,
		{ height, breadth }: { height: number; breadth: number },
		textAt: (row: number, column: number) => string
	) {
		const targets = this.columns.slice(this.block.left, this.block.left + breadth)
		if (breadth > targets.length)
			return void (this.wrong = `This is ${countOf(breadth, 'column')} wide, but only ${targets.length} ${targets.length === 1 ? 'is' : 'are'} left from here.`)
		const taken = Array.from({ length: height }, (_row, i) => this.rows.at(this.block.top + i))
		if (taken.some((row, i) => !row && this.block.top + i < this.rows.count))
			return void (this.wrong = 'Some of these rows are still being read. Try again in a moment.')
		await this.putPlan(
			words,
			putTexts({ rows: taken, first: this.block.top + 1, columns: targets, textAt }),
			height * breadth
		)
	}

	/** Puts a block in, or shows first which of its cells do not fit. */
	private async putPlan(words: string, { changes, misfits: found }: BlockPlan, total: number): Promise<boolean> {
		if (found.length === 0) return changes.length > 0 && (await this.put(words, changes))
		this.misfits = { shown: found, total, partly: async () => void (await this.put(words, changes, true)) }
		return false
	}

	async fillDown() {
		const source = this.rows.at(this.block.top)
		if (!source || this.block.bottom === this.block.top)
			return void (this.wrong = 'Choose the cell to fill from and the cells below it.')
		const chosen = this.selectedRows()
		if (chosen) await this.put('the fill', fillFrom(source, chosen.slice(1), this.selectedColumns()))
	}

	async clear() {
		const chosen = this.selectedRows()
		if (!chosen) return
		if (this.selectedColumns().every((column) => column.type === 'computed'))
			return void (this.focusColumn && (this.wrong = whyNot(this.focusColumn)))
		const changes = clearCells(chosen, this.selectedColumns())
		if (changes.length > 0) await this.put('the clearing', changes)
	}

	selectedColumns(): readonly ShownColumn[] {
		return this.columns.slice(this.block.left, this.block.right + 1)
	}

	async replace(text: string, by: string) {
		const column = this.focusColumn
		if (!column) return
		const count = Math.min(this.rows.count, MOST_SELECTED)
		await this.rows.want(0, count)
		const all = Array.from({ length: count }, (_row, i) => this.rows.at(i)).filter((row) => row !== undefined)
		const plan = replaceTexts(all, column, { text, by })
		const total = plan.changes.length + plan.misfits.length
		if (total === 0) return void (this.said = `${column.name} holds no such text.`)
		if (await this.putPlan(`the replacement in ${column.name}`, plan, total))
			this.said = `Replaced in ${showFigure(total)} ${total === 1 ? 'row' : 'rows'}.`
	}

	async step(way: 'undo' | 'redo') {
		const done = await this.edits[way]((id) => this.rows.find(id))
		if (!done) return
		this.wrong = done.ok ? '' : done.message
		this.said = done.ok ? done.message : ''
		if (done.structure) await invalidateAll()
		else await this.reload()
		this.scroll.focus()
	}

	async addRow() {
		const cells = this.table().columns.flatMap((column) =>
			column.required && column.type === 'text' && !column.numbering ? [{ column: column.id, value: 'New' }] : []
		)
		const done = await this.edits.apply('the new row', [{ kind: 'add', cells }], () => undefined)
		if (!done.ok) {
			const why = done.misfits[0]?.message ?? done.message
			return void (this.wrong = `${why} Paste rows below the last one, or use a form, where columns must be filled in.`)
		}
		await this.reload()
		const id = done.rows[0]?.id
		const index = id === undefined ? undefined : this.rows.indexOf(id)
		if (index !== undefined) await this.select(at(index, 0))
		else this.said = 'Added. It stands where the order puts it.'
		this.scroll.focus()
	}

	async removeRows() {
		const chosen = this.selectedRows()
		if (!chosen || chosen.length === 0) return
		const words = chosen.length === 1 ? 'the removal' : `the removal of ${chosen.length} rows`
		const removed = await this.put(
			words,
			chosen.map((row) => ({ kind: 'remove', row: row.id }))
		)
		if (removed) this.said = 'Removed. They lie in the bin for thirty days; Ctrl Z brings them back.'
	}
}
