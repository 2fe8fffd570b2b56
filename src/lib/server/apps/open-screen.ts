/**
 * What one person gets of one screen: its lines with their data, as much as the lines of access let through. What a
 * person may not do is not offered: forms, buttons and screens that would be empty for them are left out.
 */
import { tablesIn } from '$lib/core/sentence/walk-line.ts'
import type { ShownLine, ShownScreen } from '$lib/core/requests/screens.ts'
import { AppError } from '$lib/core/app-error.ts'
import type { AppDocument, Screen } from '$lib/core/app/document.ts'
import type { ButtonLine } from '$lib/core/app/lines/button.ts'
import type { FormLine } from '$lib/core/app/lines/form.ts'
import type { ListLine } from '$lib/core/app/lines/list.ts'
import type { RecordLine } from '$lib/core/app/lines/record.ts'
import { entryOfStep, type Routine } from '$lib/core/routine/routine.ts'
import { entryOfLine, type LineKind, type LineOf, type ScreenLine } from '$lib/core/app/lines/all.ts'
import type { WirePage } from '$lib/core/query/wire.ts'
import { isNever } from '$lib/core/formula/syntax/constant.ts'
import { findColumn, getColumn, type Table } from '$lib/core/model/table.ts'
import { standingOf, type Actor, type Standing } from '../rights/rights-of-actor.ts'
import { describeColumns } from '../rows/describe-columns.ts'
import { countRows, readRows } from '../rows/read.ts'
import { caseOfRow } from '../signoffs/cases.ts'
import type { Store } from '../store/store.ts'
import { readDraft } from './apps.ts'
import { findLiveApp } from '../releases/live.ts'

/** Which document is meant: what staff use, or the builder's draft in the Lookout. */
export interface AppPlace {
	readonly app: number
	readonly draft: boolean
	/** The draft as it now is, where it is looked at on a copy that was made before. */
	readonly document?: AppDocument | undefined
}

export interface ScreenRequest extends AppPlace {
	readonly actor: Actor
	readonly now: number
	/** The first screen, if left out. */
	readonly screen?: string | undefined
	readonly row?: string | undefined
}

export const COUNT_LIMIT = 1_000

/** A screen of an app with what its lines show to one person; refused where it holds nothing for them. */
export function openScreen(store: Store, request: ScreenRequest): ShownScreen {
	const opened = openApp(store, request)
	const standing = standingOf(store, request.actor, request.now)
	const view: View = { store, standing, document: opened.document, request }
	const offered = opened.document.screens.filter((screen) => isOffered(screen, view))
	const screens = offered.filter((screen) => !screen.lines.some((line) => entryOfLine(line).showsRow))
	const wanted = request.screen === undefined ? screens[0] : offered.find((screen) => screen.id === request.screen)
	if (request.screen !== undefined && !wanted)
		throw new AppError('not_found', 'This screen is not there, or not for you to see.')
	const { name, colour } = opened.document
	return {
		app: { id: request.app, name, colour, release: opened.release },
		screens: screens.map(({ id, title }) => ({ id, title })),
		screen: wanted
			? { id: wanted.id, title: wanted.title, lines: wanted.lines.flatMap((line) => shownAs(line).show(line, view)) }
			: null,
		tables: wanted ? tablesOf(wanted) : []
	}
}

export interface ListRequest extends AppPlace {
	readonly actor: Actor
	readonly now: number
	readonly screen: string
	readonly line: string
	readonly after: string | undefined
	readonly limit?: number
}

/** A further page of one list of a screen. */
export function readList(store: Store, request: ListRequest): WirePage {
	const { line } = findLine(store, request, request.screen, request.line)
	if (line.kind !== 'list') throw notThere()
	return readPage(store, line, request, request)
}

/** A line of a screen as it stands in the document that is meant. */
export function findLine(
	store: Store,
	place: AppPlace,
	screenId: string,
	lineId: string
): { line: ScreenLine; document: AppDocument; release: number } {
	const { document, release } = openApp(store, place)
	const line = document.screens.find((screen) => screen.id === screenId)?.lines.find((each) => each.id === lineId)
	if (!line) throw notThere()
	return { line, document, release: release ?? 0 }
}

function notThere(): AppError {
	return new AppError('not_found', 'This part of the app is no longer there. Load the page again.')
}

export function openApp(
	store: Store,
	{ app, draft, document }: AppPlace
): { document: AppDocument; release: number | null } {
	if (document) return { document, release: null }
	if (draft) return { document: readDraft(store, app).document, release: null }
	const live = findLiveApp(store, app)
	if (!live) throw new AppError('not_found', 'This app is not there, or has not been released yet.')
	return live
}

interface View {
	readonly store: Store
	readonly standing: Standing
	readonly document: AppDocument
	readonly request: ScreenRequest
}

function tableOf(view: View, id: number): Table | undefined {
	return view.store.workspace().catalogue.tables.get(id)
}

/** A screen is offered when at least one of its lines holds something for this person. */
function isOffered(screen: Screen, view: View): boolean {
	return screen.lines.some((line) => shownAs(line).holdsSomething(line, view))
}

function tablesOf(screen: Screen): number[] {
	return [...new Set(screen.lines.flatMap((line) => tablesIn(entryOfLine(line).sentence.kind, line)))]
}

/** What the server does with a kind of line. */
interface ShownAs<L> {
	/** Whether it alone is worth opening its screen for. */
	holdsSomething(line: L, view: View): boolean
	/** What its reader gets of it; nothing where it is not offered. */
	show(line: L, view: View): ShownLine[]
}

const SHOWN: { readonly [K in LineKind]: ShownAs<LineOf<K>> } = {
	heading: { holdsSomething: () => false, show: ({ id, text }) => [{ id, kind: 'heading', text }] },
	list: { holdsSomething: seesRows, show: showList },
	record: { holdsSomething: seesRows, show: showRecord },
	form: { holdsSomething: mayAdd, show: showForm },
	button: { holdsSomething: () => false, show: showButton }
}

function shownAs(line: ScreenLine): ShownAs<ScreenLine> {
	// Kind by kind the record holds this; for the union the compiler cannot tell.
	return SHOWN[line.kind] as ShownAs<ScreenLine>
}

function seesRows({ table: id }: ListLine | RecordLine, view: View): boolean {
	const table = tableOf(view, id)
	return table !== undefined && !isNever(view.standing.rights.rows(table))
}

function mayAdd({ table: id }: FormLine, view: View): boolean {
	const table = tableOf(view, id)
	return table !== undefined && view.standing.rights.mayPossibly('add', table)
}

function showList(line: ListLine, view: View): ShownLine[] {
	const { store, standing, request } = view
	const table = tableOf(view, line.table)
	if (!table || isNever(standing.rights.rows(table))) return []
	const page = readPage(store, line, request, {})
	const asked = { table: line.table, where: [line.where], limit: COUNT_LIMIT }
	const count = countRows(store, request.actor, asked, request.now)
	const columns = describeColumns(table, page.columns)
	return [{ id: line.id, kind: 'list', table: table.id, title: table.name, columns, page, count, opens: line.opens }]
}

function readPage(
	store: Store,
	line: ListLine,
	{ actor, now }: { actor: Actor; now: number },
	{ after, limit }: { after?: string | undefined; limit?: number | undefined }
): WirePage {
	const { table, columns, where, sort } = line
	return readRows(store, actor, { table, columns, where: [where], ...(sort ? { sort } : {}), after, limit }, now)
}

function showRecord(line: RecordLine, view: View): ShownLine[] {
	const { store, request } = view
	const table = tableOf(view, line.table)
	if (!table || request.row === undefined) return []
	const columns = [...new Set([table.label, ...line.columns])]
	const page = readRows(store, request.actor, { table: table.id, columns, row: request.row, offers: true }, request.now)
	const n = store.ids.fromId(table.id, request.row)
	const signoff =
		page.rows[0] && n !== undefined ? caseOfRow(store, { table: table.id, n, actor: request.actor }) : null
	const shown = { columns: describeColumns(table, page.columns), row: page.rows[0] ?? null, signoff }
	return [{ id: line.id, kind: 'record', table: table.id, title: table.name, label: table.label, ...shown }]
}

function showForm(line: FormLine, view: View): ShownLine[] {
	const table = tableOf(view, line.table)
	if (!table) return []
	const { rights } = view.standing
	const asked = line.columns.filter((id) => {
		const column = findColumn(table, id)
		return column && !column.computed && rights.mayPossibly('add', table, column)
	})
	if (asked.length === 0) return []
	const thanks = line.thanks.trim() === '' ? 'Saved.' : line.thanks
	return [
		{ id: line.id, kind: 'form', table: table.id, title: table.name, columns: describeColumns(table, asked), thanks }
	]
}

function showButton(line: ButtonLine, view: View): ShownLine[] {
	const { does } = line
	if (does.kind === 'open') {
		const target = view.document.screens.find((screen) => screen.id === does.screen)
		return target && isOffered(target, view)
			? [{ id: line.id, kind: 'button', label: line.label, opens: target.id }]
			: []
	}
	const routine = view.document.routines.find((each) => each.id === does.routine)
	return routine && mayRun(routine, view) ? [{ id: line.id, kind: 'button', label: line.label, runs: line.id }] : []
}

/** A routine's button is offered on a row whose columns this person may set, and which no sign-off has closed. */
function mayRun(routine: Routine, view: View): boolean {
	const { store, request } = view
	const table = tableOf(view, routine.start.table)
	const n = table && request.row !== undefined ? store.ids.fromId(table.id, request.row) : undefined
	if (!table || n === undefined) return false
	const page = readRows(
		store,
		request.actor,
		{ table: table.id, columns: [table.label], row: request.row, offers: true },
		request.now
	)
	const [row] = page.rows
	const sets = routine.steps.flatMap((step) => entryOfStep(step).written(step)).map((id) => getColumn(table, id).id)
	if (!row || !sets.every((id) => row.may?.change.includes(id))) return false
	return sets.length === 0 || caseOfRow(store, { table: table.id, n, actor: request.actor }) === null
}
