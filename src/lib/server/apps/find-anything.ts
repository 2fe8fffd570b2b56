/** What somebody finds by a few letters, of all that is open to them: apps, screens, and rows where a list of an app looks for words. */
import type { Screen } from '$lib/core/app/document.ts'
import type { LineOf } from '$lib/core/app/lines/all.ts'
import { placedLines } from '$lib/core/app/lines/tree.ts'
import { getTable } from '$lib/core/model/table.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import type { Found } from '$lib/core/requests/find.ts'
import type { OfferedScreen } from '$lib/core/requests/screens.ts'
import { describeColumns } from '../rows/describe-columns.ts'
import { liveApps, type LiveApp } from '../releases/live.ts'
import { standingOf, type ByActor, type Standing } from '../rights/rights-of-actor.ts'
import { STEWARD } from '../rights/system-roles.ts'
import { readRows } from '../rows/read.ts'
import type { Store } from '../store/store.ts'
import { heldOnScreen } from './held-on-screen.ts'
import { isFor } from './for-whom.ts'
import { screensFor } from './open-screen.ts'
import { readListPage } from './shown/list.ts'

/** So many rows of each list, of so many lists: enough to see whether it is there. */
const ROWS_OF_LIST = 4
const LISTS = 16
/** Fewer letters than this stand in too many rows. */
const LEAST_LETTERS = 2

export function findAnything(store: Store, { text, actor, now }: ByActor & { text: string }): Found[] {
	const opened = liveApps(store).flatMap((app) => {
		const screens = screensFor(store, { app: app.id, draft: false, actor, now })
		return screens.length === 0 ? [] : [{ app, screens }]
	})
	const places = opened.flatMap(({ app, screens }): Found[] => {
		const { name } = app.document
		return [
			...(holds(name, text) ? [{ kind: 'app', title: name, where: '', href: `/app/${app.id}` } as const] : []),
			...screens
				.filter(({ title }) => holds(title, text))
				.map(({ id, title }) => ({ kind: 'screen', title, where: name, href: `/app/${app.id}/${id}` }) as const)
		]
	})
	if (text.trim().length < LEAST_LETTERS) return places
	const { roles } = standingOf(store, actor, now)
	const lists = opened.flatMap((each) => searchedLists(each, roles)).slice(0, LISTS)
	const rows = lists.flatMap((list) => rowsOf(store, list, { text, actor, now }))
	const people = peopleNamed(store, { text, actor, now })
	// A row that two lists have is found by the first.
	const sheets = rows.map(({ href }) => href.split('&from=')[0])
	return [...places, ...people, ...rows.filter((_row, at) => sheets.indexOf(sheets[at]) === at)]
}

interface SearchedList {
	readonly app: LiveApp
	readonly screen: Screen
	readonly line: LineOf<'list'>
}

/** Lists of screens that stand in the navigation, in which words are looked for and whose rows open, as far as they are for this person. */
function searchedLists(
	{ app, screens }: { readonly app: LiveApp; readonly screens: readonly OfferedScreen[] },
	roles: Standing['roles']
): SearchedList[] {
	const offered = app.document.screens.filter(({ id }) => screens.some((screen) => screen.id === id))
	const opens = (id: string | null) =>
		app.document.screens.some((screen) => screen.id === id && isFor(screen, { roles }))
	return offered.flatMap((screen) =>
		placedLines(screen.lines).flatMap(({ line, within }) =>
			line.kind === 'list' &&
			line.finds.length > 0 &&
			line.of === null &&
			opens(line.opens) &&
			[...within, line].every((each) => isFor(each, { roles }))
				? [{ app, screen, line }]
				: []
		)
	)
}

function rowsOf(
	store: Store,
	{ app, screen, line }: SearchedList,
	{ text, actor, now }: ByActor & { text: string }
): Found[] {
	const narrowing = { find: text, filters: [] }
	// As the list stands before anything is chosen on its screen.
	const here = heldOnScreen(store, screen, { actor, now })
	const page = readListPage(store, line, { actor, now, here }, { narrowing, limit: ROWS_OF_LIST })
	const table = getTable(store.workspace().catalogue, line.table)
	const columns = describeColumns(table, page.columns)
	return page.rows.map((row) => ({
		...{ kind: 'row', where: `${app.document.name}, ${screen.title}` },
		...{ href: `/app/${app.id}/${line.opens}?row=${row.id}&from=${screen.id}`, columns, row }
	}))
}

/** People whose names somebody sees: on the sheet of people for who looks after them, else by their address, where that is seen. */
function peopleNamed(store: Store, { text, actor, now }: ByActor & { text: string }): Found[] {
	const { people } = store.workspace().catalogue
	const email = people.columns.find(({ type }) => type === 'email')
	const columns = [people.label, ...(email ? [email.id] : [])]
	const find = { text, columns: [people.label] }
	const sort = { column: people.label, descending: false }
	const { rows } = readRows(store, actor, { table: people.id, columns, find, sort, limit: ROWS_OF_LIST }, now)
	const isTheirs = standingOf(store, actor, now).roles.has(STEWARD)
	return rows.flatMap(({ id, cells }) => {
		const [title, address] = columns.map((column) => String(cells[cellKey(column)] ?? ''))
		const href = isTheirs ? `/people?person=${id}` : address ? `mailto:${address}` : ''
		return href === '' ? [] : [{ kind: 'person', title: title ?? '', where: address ?? '', href }]
	})
}

function holds(title: string, text: string): boolean {
	return title.toLocaleLowerCase().includes(text.trim().toLocaleLowerCase())
}
