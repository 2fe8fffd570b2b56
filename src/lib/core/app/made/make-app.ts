/**
 * Makes an app from tables at once: for each the screens that fit what it is for. All of it can be changed afterwards.
 *
 *     a register of moorings, a log of inspections of them
 *     → Moorings (list, calendar), Mooring (sheet with its inspections), Add a mooring, Inspections (list, by month), …
 */
import { APP_FORMAT, screenSchema, type AppDocument, type Screen } from '../document.ts'
import { classOf, type MadeTable, type TableClass } from './classify.ts'
import { makeForm } from './make-form.ts'
import { makeList } from './make-list.ts'
import { makeSheet } from './make-sheet.ts'
import type { Made } from './made.ts'

export interface NewApp {
	readonly name: string
	readonly about: string
	readonly colour: AppDocument['colour']
}

/** `all`: the chosen tables among those that are there; `newId` gives a fresh id for each screen and line. */
export function makeApp(
	app: NewApp,
	{ chosen, all, newId }: { chosen: readonly number[]; all: readonly MadeTable[]; newId: () => string }
): AppDocument {
	const screens = makeScreens({ chosen, all, newId })
	return { format: APP_FORMAT, ...app, icon: null, screens, routines: [], signoffs: [] }
}

/** What has screens of its own, in the order of the navigation. */
const OWN: readonly TableClass[] = ['work', 'register', 'log']

/** The screens of some tables, as a builder would begin; what only serves others has none, unless nothing else is chosen. */
export function makeScreens({
	chosen,
	all,
	newId
}: {
	chosen: readonly number[]
	all: readonly MadeTable[]
	newId: () => string
}): Screen[] {
	const usable = all.map((table) => ({ ...table, columns: table.columns.filter(({ condition }) => !condition) }))
	const asked = usable.filter(({ id }) => chosen.includes(id))
	const classes = new Map(usable.map((table) => [table.id, classOf(table, usable)]))
	const ofClass = (kind: TableClass) => asked.filter(({ id }) => classes.get(id) === kind)
	const own = OWN.flatMap(ofClass)
	const tables = own.length > 0 ? own : asked
	const screens = new Map(tables.map(({ id }) => [id, { list: newId(), sheet: newId(), form: newId() }]))
	return tables.flatMap((table) => {
		const ids = screens.get(table.id)
		if (!ids) return []
		const made: Made = { table, kind: classes.get(table.id) ?? 'register', all: usable, classes, ids, screens, newId }
		return [makeList(made), makeSheet(made), makeForm(made)].map((screen) => screenSchema.parse(screen))
	})
}
