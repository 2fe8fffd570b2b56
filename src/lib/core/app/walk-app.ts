/** Goes through an app document: every formula in it with where it stands, and every column that it names by number. */
import type { Standing } from '../formula/check/rename.ts'
import { entryOfStart, entryOfStep, type Routine } from '../routine/routine.ts'
import type { MapText } from '../routine/step-entry.ts'
import type { AppDocument, Signoff } from './document.ts'
import { entryOfLine, type ScreenLine } from './lines/all.ts'
import { mapList, type MapColumn } from '../document/map-columns.ts'

export type MapFormula = (text: string, standing: Standing, place: string) => string

/** The document with every formula mapped; blank ones are left. */
export function mapFormulas(document: AppDocument, map: MapFormula): AppDocument {
	const at = (table: number, me: boolean, place: string) => (text: string) =>
		text.trim() === '' ? text : map(text, { table, me }, place)
	return {
		...document,
		screens: document.screens.map((screen) => ({
			...screen,
			lines: screen.lines.map((line) =>
				entryOfLine(line).mapFormulas(line, (text, table) => at(table, true, `Screen ${screen.title}`)(text))
			)
		})),
		routines: document.routines.map((routine) => mapRoutine(routine, at)),
		signoffs: document.signoffs.map((signoff) => {
			const own = at(signoff.table, false, `Sign-off ${signoff.name}`)
			return { ...signoff, where: own(signoff.where), decider: own(signoff.decider) }
		})
	}
}

type At = (table: number, me: boolean, place: string) => (text: string) => string

function mapRoutine(routine: Routine, at: At): Routine {
	const { start, steps } = routine
	const map: MapText = (text, me) => at(start.table, me, `Routine ${routine.name}`)(text)
	return {
		...routine,
		start: entryOfStart(start).mapFormulas(start, map),
		steps: steps.map((step) => entryOfStep(step).mapFormulas(step, map))
	}
}

/** The document with every column mapped. What cannot do without its column is left as it stands. */
export function mapColumns(document: AppDocument, map: MapColumn): AppDocument {
	return {
		...document,
		screens: document.screens.map((screen) => ({
			...screen,
			lines: screen.lines.map((line) => entryOfLine(line).mapColumns(line, map))
		})),
		routines: document.routines.map((routine) => ({
			...routine,
			steps: routine.steps.map((step) => entryOfStep(step).mapColumns(step, map))
		})),
		signoffs: document.signoffs.map((signoff) => mapSignoff(signoff, map))
	}
}

function mapSignoff(signoff: Signoff, map: MapColumn): Signoff {
	const children = signoff.children.map((child) => ({
		...child,
		column: map(child.column) ?? child.column,
		columns: mapList(child.columns, map)
	}))
	return { ...signoff, columns: mapList(signoff.columns, map), children }
}

/** Whether a line of a screen shows, asks for or sorts by a column. */
export function namesColumn(lines: readonly ScreenLine[], column: number): boolean {
	return lines.some((line) => entryOfLine(line).columns(line).includes(column))
}

/** Whether a document cannot do without a column: it sets it, or follows it to the rows of a request. */
export function needsColumn(document: AppDocument, column: number): string | undefined {
	const routine = document.routines.find(({ steps }) =>
		steps.some((step) => entryOfStep(step).written(step).includes(column))
	)
	if (routine) return `Routine ${routine.name}`
	const signoff = document.signoffs.find(({ children }) => children.some((child) => child.column === column))
	return signoff && `Sign-off ${signoff.name}`
}

/** Every table that a document names, with where. */
export function tablesOf(document: AppDocument): { readonly table: number; readonly place: string }[] {
	return [
		...document.screens.flatMap(({ title, lines }) =>
			lines.flatMap((line) =>
				entryOfLine(line)
					.tables(line)
					.map((table) => ({ table, place: `Screen ${title}` }))
			)
		),
		...document.routines.map(({ name, start }) => ({ table: start.table, place: `Routine ${name}` })),
		...document.signoffs.flatMap(({ name, table, children }) =>
			[table, ...children.map((child) => child.table)].map((each) => ({ table: each, place: `Sign-off ${name}` }))
		)
	]
}
