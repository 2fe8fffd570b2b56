/** An app for a common job: its tables, lines of access for the role that works with it, and its screens; all of it, or nothing. */
import { randomUUID } from 'node:crypto'
import { appSchema } from '$lib/core/app/document.ts'
import { makeApp } from '$lib/core/app/made/make-app.ts'
import { STARTERS } from '$lib/core/app/starters/all.ts'
import type { Place, Starter, StarterColumn, StarterLine } from '$lib/core/app/starters/starter.ts'
import { AppError } from '$lib/core/app-error.ts'
import type { LineEntry } from '$lib/core/workspace/document.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { listTables } from '../review/bench.ts'
import type { Store } from '../store/store.ts'
import { changeColumn } from '../structure/change-columns.ts'
import { addColumn, addTable, saveLines, type NewColumn } from '../structure/tables.ts'
import { addAppFrom } from './apps.ts'

export interface Starting extends ByActor {
	/** By its id. */
	readonly starter: string
	readonly name: string
	readonly about: string
	/** The role that sees, adds and changes all of it. */
	readonly role: number
}

/** Gives the number of the app. */
export function startFrom(store: Store, { starter: id, name, about, role, actor, now }: Starting): number {
	refuseUnlessBuilder(store, actor)
	const starter = STARTERS.find((each) => each.id === id)
	if (!starter) throw new AppError('not_found', 'This starter is not there any more. Choose another.')
	if (!store.workspace().roles.some((each) => each.id === role))
		throw new AppError('invalid', 'Say which role works with it.')
	const by = { actor, now }
	const place = addTables(store, starter, by)
	for (const { name: table } of starter.tables) openTo(store, { table: place(table), role, ...by })
	const newId = () => randomUUID().slice(0, 8)
	const chosen = starter.tables.map((table) => place(table.name))
	const app = { name, about: about || starter.about, colour: starter.colour ?? 'sea' }
	const made = makeApp(app, { chosen, all: listTables(store, by), newId })
	const inLists = starter.inLists?.(place, newId) ?? {}
	const document = appSchema.parse({
		...made,
		screens: [
			...made.screens.map((screen) => ({ ...screen, lines: withInLists(screen.lines, inLists, place) })),
			...(starter.screens?.(place, newId) ?? [])
		],
		signoffs: starter.signoffs?.(place, newId) ?? []
	})
	return addAppFrom(store, { document, ...by })
}

/** What is worked out comes once all tables are there, and defaults after the columns that they read. */
function addTables(store: Store, { tables }: Starter, by: ByActor): Place {
	const numbers = new Map<string, number>([['People', store.workspace().catalogue.people.id]])
	const asNew = ({ otherwise: _otherwise, to, choices, ...column }: StarterColumn): NewColumn => ({
		...column,
		...(choices ? { choices: [...choices] } : {}),
		...(to === undefined ? {} : { to: numbers.get(to) ?? 0 })
	})
	for (const { name, columns } of tables) {
		const typed = columns.filter(({ formula }) => formula === undefined)
		numbers.set(name, addTable(store, { name: freeName(store, name), columns: typed.map(asNew), ...by }))
	}
	const place: Place = (table, column) => {
		const number = numbers.get(table) ?? 0
		if (column === undefined) return number
		return (
			store
				.workspace()
				.catalogue.tables.get(number)
				?.columns.find((each) => each.name === column)?.id ?? 0
		)
	}
	for (const { name, columns } of tables)
		for (const column of columns)
			if (column.formula !== undefined) addColumn(store, { table: place(name), column: asNew(column), ...by })
	for (const { name, columns } of tables)
		for (const { name: column, otherwise } of columns)
			if (otherwise !== undefined)
				changeColumn(store, { table: place(name), column: place(name, column), words: { otherwise }, ...by })
	return place
}

/** `Stores`, or `Stores 2` where there are such already. */
function freeName(store: Store, name: string): string {
	const taken = new Set(store.workspace().document.tables.map((table) => table.name.toLowerCase()))
	const names = [name, ...Array.from({ length: 98 }, (_each, i) => `${name} ${i + 2}`)]
	return names.find((each) => !taken.has(each.toLowerCase())) ?? name
}

function openTo(store: Store, { table, role, actor, now }: ByActor & { table: number; role: number }): void {
	const verbs: LineEntry['verbs'] = ['see', 'add', 'change']
	const line: LineEntry = { id: randomUUID().slice(0, 8), table, role, verbs, where: '', columns: { kind: 'all' } }
	saveLines(store, { table, lines: [line], version: store.workspace().version, actor, now })
}

/** Lines put into the first list of each table that a screen shows by itself. */
function withInLists(
	lines: readonly StarterLine[],
	inLists: Readonly<Record<string, readonly StarterLine[]>>,
	place: Place
): StarterLine[] {
	return lines.map((line) => {
		if (line.kind === 'list' && !line.of) {
			const [, more = []] = Object.entries(inLists).find(([table]) => place(table) === line.table) ?? []
			return { ...line, lines: [...(line.lines ?? []), ...more] }
		}
		return 'lines' in line && line.lines ? { ...line, lines: withInLists(line.lines, inLists, place) } : line
	}) as StarterLine[]
}
