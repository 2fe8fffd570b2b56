/**
 * What one person gets of one screen: its lines with their data, as much as the lines of access let through. What a
 * person may not do is not offered: forms, buttons and screens that would be empty for them are left out.
 */
import { AppError } from '$lib/core/app-error.ts'
import type { AppDocument, Screen } from '$lib/core/app/document.ts'
import { showsRow, type LineKind, type LineOf, type ScreenLine } from '$lib/core/app/lines/all.ts'
import { allLines, findLine as findInLines } from '$lib/core/app/lines/tree.ts'
import type { WirePage } from '$lib/core/query/wire.ts'
import type { Groups } from '$lib/core/requests/rows.ts'
import { differing, type KnownLines, type LinesAgain } from '$lib/core/requests/screen-signs.ts'
import type { Narrowing, OfferedScreen, ShownLine, ShownScreen } from '$lib/core/requests/screens.ts'
import { asShown, findLiveApp } from '../releases/live.ts'
import { standingOf, type Actor, type Standing } from '../rights/rights-of-actor.ts'
import { PAGE } from '../rows/resolve.ts'
import type { Store } from '../store/store.ts'
import { readDraft } from './apps.ts'
import { keptSearches } from './kept-searches.ts'
import { heldOnScreen } from './held-on-screen.ts'
import { listBehind } from './behind.ts'
import { isFor } from './for-whom.ts'
import { holdsSomething, showLines } from './shown/all.ts'
import { readListPage, readListValues } from './shown/list.ts'
import { workOutAlone } from './work-out-alone.ts'
import { tablesByLine } from './tables-of-screen.ts'
import type { ViewRequest } from './shown/view.ts'

/** Which document is meant: what staff use, or the builder's draft in the Lookout. */
export interface AppPlace {
	readonly app: number
	readonly draft: boolean
	/** The draft as it now is, where it is looked at on a copy that was made before. */
	readonly document?: AppDocument | undefined
}

export interface ScreenRequest extends AppPlace, ViewRequest {
	/** The first screen, if left out. */
	readonly screen?: string | undefined
	/** Whether only one is meant that is shown without a row. */
	readonly isAlone?: boolean | undefined
}

/** A screen of an app with what its lines show to one person; refused where it holds nothing for them. */
export function openScreen(store: Store, request: ScreenRequest): ShownScreen {
	const { document, release, draft, offered, alone, screens, shownTo, standing } = offeredTo(store, request)
	const wanted =
		request.screen === undefined
			? (firstFor(alone, store, standing) ?? screens[0])
			: (request.isAlone ? alone : offered).find((screen) => screen.id === request.screen)
	if (request.screen !== undefined && !wanted)
		throw new AppError('not_found', 'This screen is not there, or not for you to see.')
	const { name, colour, icon } = document
	return {
		app: { id: request.app, name, colour, hasIcon: icon !== null, release, draft },
		screens: screens.map(inNavigation),
		screen: wanted ? { id: wanted.id, title: wanted.title, lines: linesOf(wanted, shownTo(wanted)) } : null,
		kept: wanted ? keptSearches(store, { app: request.app, screen: wanted.id, actor: request.actor }) : [],
		tables: wanted ? [...new Set([...tablesByLine(store, wanted, document).values()].flatMap((each) => [...each]))] : []
	}
}

/** Where the row of a screen is not there, or not theirs to see, only that is shown: nothing can be done beside it. */
function linesOf(screen: Screen, view: Parameters<typeof showLines>[1]): readonly ShownLine[] {
	const lines = showLines(screen.lines, view)
	const sheets = allLines(screen.lines).flatMap((line) => (line.kind === 'record' && line.held === '' ? line.id : []))
	const lost = allLines<ShownLine>(lines).find(
		(line) => line.kind === 'record' && line.row === null && sheets.includes(line.id)
	)
	return lost ? [lost] : lines
}

/** The screens that stand in the navigation for one person; none where nothing of the app is open to them. */
export function screensFor(store: Store, request: AppPlace & ViewRequest): OfferedScreen[] {
	return offeredTo(store, request).screens.map(inNavigation)
}

/** Whether anything of an app is offered to one person, be it by link only. */
export function isOpenTo(store: Store, request: AppPlace & ViewRequest): boolean {
	return offeredTo(store, request).offered.length > 0
}

/** What of an app is offered to one person, and what its screens are shown from. */
export function offeredTo(store: Store, request: AppPlace & ViewRequest) {
	const { document, release, draft } = openApp(store, request)
	const standing = standingOf(store, request.actor, request.now)
	const shownTo = (screen: Screen, asked: Partial<ViewRequest> = {}) => ({
		...{ store, standing, document, request: { ...request, ...asked } },
		here: heldOnScreen(store, screen, request)
	})
	// Whether it is offered is no matter of what is chosen on it.
	const unheld = { store, standing, document, request, here: new Map() }
	const offered = document.screens.filter((screen) => isFor(screen, standing) && holdsSomething(screen.lines, unheld))
	const alone = offered.filter((screen) => !showsRow(screen.lines))
	return {
		document,
		release,
		draft,
		standing,
		shownTo,
		offered,
		alone,
		screens: alone.filter(({ stands }) => stands === null)
	}
}

/** Where the app begins for one person: by a condition before by a role. Undefined for the first in the navigation. */
function firstFor(alone: readonly Screen[], store: Store, standing: Standing): Screen | undefined {
	const holds = ({ begins }: Screen) => begins.trim() !== '' && workOutAlone(store, begins, { standing }).value === true
	return alone.find(holds) ?? alone.find(({ first }) => first.some((role) => standing.roles.has(role)))
}

function inNavigation({ id, title, label, icon }: Screen): OfferedScreen {
	return { id, title: label || title, icon }
}

export interface AgainRequest extends AppPlace, Omit<ViewRequest, 'only' | 'shown' | 'narrowed'>, KnownLines {
	readonly screen: string
	/** Those that changed; null where anything may have. */
	readonly tables: readonly number[] | null
	/** By which its lines were shown. */
	readonly release: number | null
	readonly lists: Readonly<Record<string, { narrowing: Narrowing; rows: readonly (readonly [string, string])[] }>>
}

/** The lines of an open screen that changes of some tables can have changed, as far as they differ from what is known of them. */
export function readAgain(
	store: Store,
	{ tables, known, lists, release: shown, ...request }: AgainRequest
): LinesAgain {
	const { offered, document, release, shownTo } = offeredTo(store, request)
	const screen = offered.find(({ id }) => id === request.screen)
	if (!screen) throw new AppError('not_found', 'This screen is not there, or not for you to see.')
	const touched = [...tablesByLine(store, screen, document)].flatMap(([id, behind]) =>
		tables === null || tables.some((table) => behind.has(table)) ? [id] : []
	)
	const ofLists = <T>(of: (list: AgainRequest['lists'][string]) => T) =>
		Object.fromEntries(Object.entries(lists).map(([id, list]) => [id, of(list)]))
	const shows = {
		narrowed: ofLists(({ narrowing }) => narrowing),
		shown: ofLists(({ rows }) => Math.max(rows.length, PAGE))
	}
	const view = shownTo(screen, { ...shows, only: new Set(touched) })
	const lines = new Map(allLines(showLines(screen.lines, view)).map((line) => [line.id, line]))
	const isSameShape = release === shown && touched.every((id) => lines.has(id) === Object.hasOwn(known, id))
	if (!isSameShape) return { kind: 'whole', screen: openScreen(store, { ...request, ...shows }) }
	const looked = touched.flatMap((id) => lines.get(id) ?? [])
	return {
		kind: 'lines',
		lines: Object.fromEntries(looked.map((line) => [line.id, differing(line, { known, lists })]))
	}
}

export interface ListRequest extends AppPlace, Pick<ViewRequest, 'actor' | 'now' | 'row' | 'held'> {
	readonly screen: string
	readonly line: string
	readonly after?: string | undefined
	readonly narrowing?: Narrowing | undefined
	readonly limit?: number | undefined
}

/** A further page of one list of a screen. */
export function readList(store: Store, request: ListRequest): WirePage {
	const { line, screen } = findRows(store, request)
	const { narrowing = { find: '', filters: [] }, after, limit } = request
	return readListPage(
		store,
		line,
		{ ...request, here: heldOnScreen(store, screen, request) },
		{ narrowing, after, limit }
	)
}

/** A list, or the rows behind a number as one. */
function findRows(store: Store, place: LinePlace): { line: LineOf<'list'>; screen: Screen } {
	const { line, screen } = findLine(store, place, 'list', 'figure', 'chart', 'scatter')
	return { line: line.kind === 'list' ? line : listBehind(line, store.workspace().catalogue), screen }
}

/** What one column of a list holds, for narrowing it down. */
export function readValues(
	store: Store,
	request: LinePlace & Pick<ViewRequest, 'actor' | 'now' | 'row' | 'held'> & { column: number; narrowing: Narrowing }
): Groups | null {
	const { line, screen } = findLine(store, request, 'list')
	return readListValues(store, line, { ...request, here: heldOnScreen(store, screen, request) }, request)
}

/** Where somebody does something: a line of a screen, as themselves. */
export interface InApp extends AppPlace {
	readonly screen: string
	readonly line: string
	readonly actor: Actor
	readonly now: number
}

export interface LinePlace extends AppPlace {
	readonly screen: string
	readonly line: string
}

const WORDS: Readonly<Partial<Record<LineKind, string>>> = {
	list: 'list',
	form: 'form',
	record: 'record sheet',
	button: 'button'
}

/** A line of a kind as it stands in the document that is meant, however deep; `not_found` where it is gone or another kind. */
export function findLine<K extends LineKind>(
	store: Store,
	place: LinePlace,
	...kinds: readonly K[]
): { line: LineOf<K>; screen: Screen; document: AppDocument; release: number } {
	const { document, release } = openApp(store, place)
	const screen = document.screens.find(({ id }) => id === place.screen)
	const line: ScreenLine | undefined = screen && findInLines(screen.lines, place.line)
	if (!screen || !isOfKind(line, kinds))
		throw new AppError(
			'not_found',
			`This ${WORDS[kinds[0] ?? 'divider'] ?? 'part'} is no longer there. Load the page again.`
		)
	return { line, screen, document, release: release ?? 0 }
}

function isOfKind<K extends LineKind>(line: ScreenLine | undefined, kinds: readonly K[]): line is LineOf<K> {
	return kinds.some((kind) => kind === line?.kind)
}

export function openApp(
	store: Store,
	{ app, draft, document }: AppPlace
): { document: AppDocument; release: number | null; draft: number | null } {
	if (document) return { document: asShown(document), release: null, draft: null }
	if (draft) {
		const read = readDraft(store, app)
		return { document: asShown(read.document), release: null, draft: read.version }
	}
	const live = findLiveApp(store, app)
	if (!live) throw new AppError('not_found', 'This app is not there, or has not been released yet.')
	return { ...live, draft: null }
}
