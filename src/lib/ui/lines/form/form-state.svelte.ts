/**
 * A form while it is filled in: what was typed, what the server makes of it, what is still missing, and sending it. A send that
 * fails loses nothing of what was typed.
 */
import type { CellChange, Conflict } from '$lib/core/query/change.ts'
import type { FormTyped, FormVerdict, RowVerdict } from '$lib/core/requests/forms.ts'
import type { ScreenPath, ShownEntry, ShownFormPart, ShownItems } from '$lib/core/requests/screens.ts'
import { BLANK_DRAFT, draftOf, readDraft, sameDraft, sendFiles, type CellDraft } from '../../cells/cell-draft.ts'
import { showCell } from '$lib/core/requests/show-cell.ts'
import { send } from '../../send.ts'
import { doOnScreen } from '../do-on-screen.ts'
import type { FormDraft, RowDraft } from './drafts.ts'
import {
	entriesIn,
	isBlankRow,
	keyOf,
	namesEntry,
	partsOf,
	startOf,
	typedIn,
	type RowPlace,
	type ShownForm
} from './form-parts.ts'

/** Long enough for somebody who types on, short enough to be felt as at once. */
const JUDGE_AFTER_MS = 150

const NOTHING: RowVerdict = { unasked: [], must: [], refused: {}, shown: {} }

export class FormState {
	draft = $state.raw<FormDraft>({ cells: {}, items: {} })
	verdict = $state.raw<FormVerdict | null>(null)
	/** What is wrong, by `keyOf`. */
	wrong = $state.raw<Readonly<Record<string, string>>>({})
	pageAt = $state(0)
	busy = $state(false)
	said = $state.raw<{ text: string; wrong: boolean } | undefined>()
	/** Whether anything was typed since it began, and of the form's own row in which columns. */
	isTouched = false
	#typed: readonly number[] = []
	#asked = 0
	#timer: ReturnType<typeof setTimeout> | undefined

	readonly line: () => ShownForm
	readonly path: () => ScreenPath
	/** The row that the screen shows. */
	readonly row: () => string | null
	/** The rows that are chosen on the screen. */
	readonly held: () => Record<string, string>

	constructor({ line, path, row, held }: Pick<FormState, 'line' | 'path' | 'row' | 'held'>) {
		this.line = line
		this.path = path
		this.row = row
		this.held = held
		this.start({})
	}

	readonly page = $derived.by(() => this.line().pages[Math.min(this.pageAt, this.line().pages.length - 1)])
	readonly isLast = $derived.by(() => this.pageAt >= this.line().pages.length - 1)

	/** Empty, but for what entries begin with; `last`: what was sent last, of those that remember it. */
	start(last: RowDraft): void {
		const parts = partsOf(this.line())
		const cells = startOf(parts, last)
		const items = Object.fromEntries(
			parts.flatMap((part) =>
				part.kind === 'items' ? [[part.id, Array.from({ length: part.least }, () => startOf(part.parts, {}))]] : []
			)
		)
		this.draft = { cells, items }
		this.verdict = this.line().verdict
		this.wrong = {}
		this.pageAt = 0
		this.isTouched = false
		this.#typed = []
	}

	/** After its lines were changed while it stood open. */
	askAnew(): void {
		if (!this.isTouched) return this.start({})
		// What stands in the row by now, under what was typed.
		if (this.line().changes) this.draft = this.#overRow(this.kept())
		this.judgeSoon()
	}

	takeUp(draft: FormDraft): void {
		this.#typed = [...this.#typed, ...Object.keys(draft.cells).map(Number)]
		this.draft = this.line().changes ? this.#overRow(draft) : draft
		this.judgeSoon()
	}

	/** What is to be kept of it: of a row that is there already only what was typed. */
	kept(): FormDraft {
		if (!this.line().changes) return this.draft
		const typed = Object.entries(this.draft.cells).filter(([column]) => this.#typed.includes(Number(column)))
		return { ...this.draft, cells: Object.fromEntries(typed) }
	}

	#overRow({ cells, items }: FormDraft): FormDraft {
		return { cells: { ...startOf(partsOf(this.line()), {}), ...cells }, items }
	}

	draftAt(entry: ShownEntry, place?: RowPlace): CellDraft {
		const row = place ? this.draft.items[place.items]?.[place.at] : this.draft.cells
		return row?.[entry.column.id] ?? BLANK_DRAFT
	}

	change(entry: ShownEntry, draft: CellDraft, place?: RowPlace): void {
		const put = (row: RowDraft): RowDraft => ({ ...row, [entry.column.id]: draft })
		this.draft = place
			? this.#withRows(place.items, (rows) => rows.map((row, at) => (at === place.at ? put(row) : row)))
			: { ...this.draft, cells: put(this.draft.cells) }
		if (!place) this.#typed = [...this.#typed, entry.column.id]
		const { [keyOf(entry.id, place)]: _mended, ...wrong } = this.wrong
		this.wrong = wrong
		this.said = undefined
		this.#changed()
	}

	addRow({ id, parts }: ShownItems): void {
		this.draft = this.#withRows(id, (rows) => [...rows, startOf(parts, {})])
		this.#changed()
	}

	removeRow({ id }: ShownItems, at: number): void {
		this.draft = this.#withRows(id, (rows) => rows.filter((_row, i) => i !== at))
		this.wrong = {}
		this.#changed()
	}

	#withRows(items: string, map: (rows: readonly RowDraft[]) => readonly RowDraft[]): FormDraft {
		return { ...this.draft, items: { ...this.draft.items, [items]: map(this.draft.items[items] ?? []) } }
	}

	verdictAt(place?: RowPlace): RowVerdict {
		const verdict = place ? this.verdict?.items[place.items]?.rows[place.at] : this.verdict
		return verdict ?? NOTHING
	}

	/** The column as it is asked for now: one that must be filled in because of another answer says so. */
	columnOf(entry: ShownEntry, place?: RowPlace) {
		return this.verdictAt(place).must.includes(entry.id) ? { ...entry.column, required: true } : entry.column
	}

	isAsked(part: { readonly id: string }, place?: RowPlace): boolean {
		return !this.verdictAt(place).unasked.includes(part.id)
	}

	/** What is wrong with an entry: as it was sent, or by its own rule as soon as something stands in it. */
	messageAt(entry: ShownEntry, place?: RowPlace): string | undefined {
		const told = this.wrong[keyOf(entry.id, place)]
		const isTyped = this.draftAt(entry, place).text.trim() !== ''
		return told ?? (isTyped ? this.verdictAt(place).refused[entry.id] : undefined)
	}

	/** The names of what must be filled in on a page and is not. */
	missingOn(parts: readonly ShownFormPart[]): readonly string[] {
		return parts.flatMap((part) => {
			if (part.kind === 'entry') return this.#isMissing(part) ? [part.column.name] : []
			if (part.kind !== 'items') return []
			const rows = this.draft.items[part.id] ?? []
			const filled = rows.filter((row) => !isBlankRow(row))
			if (filled.length < part.least) return [part.title]
			const entries = entriesIn(part.parts)
			return rows.flatMap((row, at) =>
				isBlankRow(row)
					? []
					: entries.flatMap((entry) => (this.#isMissing(entry, { items: part.id, at }) ? [entry.column.name] : []))
			)
		})
	}

	#isMissing(entry: ShownEntry, place?: RowPlace): boolean {
		const { text, file, unsent, id } = this.draftAt(entry, place)
		const isBlank = text.trim() === '' && file === undefined && unsent === undefined && id === undefined
		return isBlank && this.columnOf(entry, place).required === true && this.isAsked(entry, place)
	}

	/** Reads what stands on a page, and marks what cannot be. */
	check(parts: readonly ShownFormPart[]): boolean {
		const marked = Object.keys(this.wrong).length
		for (const part of parts) {
			if (part.kind === 'entry') this.#checkEntry(part)
			if (part.kind !== 'items') continue
			for (const [at, row] of (this.draft.items[part.id] ?? []).entries())
				if (!isBlankRow(row)) for (const entry of entriesIn(part.parts)) this.#checkEntry(entry, { items: part.id, at })
		}
		return Object.keys(this.wrong).length === marked && this.missingOn(parts).length === 0
	}

	#checkEntry(entry: ShownEntry, place?: RowPlace): void {
		if (!this.isAsked(entry, place)) return
		const reading = readDraft(this.columnOf(entry, place), this.draftAt(entry, place))
		const message = reading.ok ? this.messageAt(entry, place) : reading.message
		if (message !== undefined) this.#mark(keyOf(entry.id, place), message)
	}

	#mark(key: string, message: string): void {
		this.wrong = { ...this.wrong, [key]: message }
	}

	/** Something was typed: the server is asked what follows from it. */
	#changed(): void {
		this.isTouched = true
		this.judgeSoon()
	}

	judgeSoon(): void {
		if (this.line().verdict === null) return
		clearTimeout(this.#timer)
		this.#timer = setTimeout(() => void this.judge(), JUDGE_AFTER_MS)
	}

	/** Asks the server at once what follows from what was typed. */
	async judge(): Promise<void> {
		if (this.line().verdict === null) return
		clearTimeout(this.#timer)
		const mine = ++this.#asked
		const { line, typed, place } = this.asked()
		const answer = await send('POST', `${this.path()}/form`, { kind: 'judge', line, ...typed, ...place })
		// An answer that was overtaken by further typing is of no use; without a signal what was known goes on.
		if (mine === this.#asked && answer.ok) this.verdict = answer.value
	}

	/** As requests name it: what can be read of what was typed. */
	asked(): { line: string; typed: FormTyped; place: { row?: string; held: Record<string, string> } } {
		const row = this.row()
		return {
			line: this.line().id,
			typed: this.#typedIn(),
			place: { held: this.held(), ...(this.line().isOfRow && row !== null ? { row } : {}) }
		}
	}

	/** Of a row that is there already what was typed otherwise than it stands, with what that was. */
	#typedIn(): FormTyped {
		const parts = partsOf(this.line())
		const typed = typedIn(parts, this.draft)
		if (!this.line().changes) return typed
		const entries = entriesIn(parts)
		const cells = typed.cells.flatMap((cell) => {
			const entry = entries.find(({ column }) => column.id === cell.column)
			const isSame = !entry || sameDraft(this.draftAt(entry), draftOf(entry.column, entry.starts))
			return isSame ? [] : [{ ...cell, was: entry.starts }]
		})
		return { ...typed, cells }
	}

	/** The cells of the row in which an entry stands. */
	cellsAt(place: RowPlace | undefined): readonly CellChange[] {
		const { cells, items } = typedIn(partsOf(this.line()), this.draft)
		return place ? (items[place.items]?.[place.at] ?? []) : cells
	}

	next(): void {
		if (!this.page) return
		if (!this.check(this.page.parts)) return void (this.said = UNFINISHED)
		this.said = undefined
		this.pageAt++
	}

	back(): void {
		this.said = undefined
		this.pageAt = Math.max(0, this.pageAt - 1)
	}

	/** The row that was sent; undefined where it was not. */
	async submit(): Promise<string | undefined> {
		this.wrong = {}
		this.busy = true
		const filesIn = await this.#sendFiles()
		const { pages } = this.line()
		const unsound = pages.findIndex((page) => !this.check(page.parts))
		if (unsound >= 0 || !filesIn) {
			this.busy = false
			this.pageAt = Math.max(0, unsound)
			this.said = UNFINISHED
			return undefined
		}
		const { line, typed, place } = this.asked()
		const answer = await doOnScreen(this.path(), { kind: 'form', line, ...typed, ...place })
		this.busy = false
		if (!answer.ok) {
			this.#refuse(answer.refusal)
			return undefined
		}
		const { conflicts, row, says } = answer.value
		if (conflicts.length > 0) return this.#sayConflicts(conflicts)
		this.said = { text: says, wrong: false }
		return row
	}

	/** Files that could not be given in before go now. */
	async #sendFiles(): Promise<boolean> {
		const own = await sendFiles(this.draft.cells)
		const items: Record<string, RowDraft[]> = {}
		let filesIn = Object.keys(own.wrong).length === 0
		for (const [id, rows] of Object.entries(this.draft.items)) {
			items[id] = []
			for (const row of rows) {
				const sent = await sendFiles(row)
				items[id].push(sent.drafts)
				filesIn &&= Object.keys(sent.wrong).length === 0
			}
		}
		this.draft = { cells: own.drafts, items }
		const entries = entriesIn(partsOf(this.line()))
		for (const { id, column } of entries) {
			const message = own.wrong[column.id]
			if (message !== undefined) this.#mark(id, message)
		}
		return filesIn
	}

	/** What nobody else changed is in; of the rest both values are said. */
	#sayConflicts(conflicts: readonly Conflict[]): undefined {
		const entries = entriesIn(partsOf(this.line()))
		for (const { column, theirs } of conflicts) {
			const entry = entries.find((each) => each.column.id === column)
			if (!entry) continue
			const there = theirs === undefined ? '' : showCell(entry.column, theirs)
			this.#mark(entry.id, `Somebody else changed this meanwhile to ${there || 'nothing'}. Send again to put yours in.`)
		}
		this.said = { text: 'The rest is saved. See what is marked above; what you typed is kept.', wrong: true }
		return undefined
	}

	#refuse({ message, details }: { message: string; details: Readonly<Record<string, unknown>> }): void {
		const { column, entry, row } = details
		const { pages } = this.line()
		const at = pages.findIndex((page) => page.parts.some((part) => namesEntry(part, column, entry)))
		const part = pages[at]?.parts.find((each) => namesEntry(each, column, entry))
		if (part?.kind === 'entry') this.#mark(part.id, message)
		else if (part?.kind === 'items' && typeof entry === 'string' && typeof row === 'number')
			this.#mark(keyOf(entry, { items: part.id, at: row }), message)
		if (at >= 0) this.pageAt = at
		this.said = { text: `${message} What you typed is kept.`, wrong: true }
	}
}

const UNFINISHED = { text: 'Not sent yet: see what is marked above.', wrong: true }
