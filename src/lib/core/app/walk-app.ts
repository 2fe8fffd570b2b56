/** Goes through an app document: every formula in it with where it stands, and every column that it names by number. */
import type { Standing } from '../formula/check/rename.ts'
import { mapPieces } from '../routine/message-text.ts'
import type { AppDocument, Routine, ScreenLine, Signoff, Step } from './document.ts'

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
				line.kind === 'list' ? { ...line, where: at(line.table, true, `Screen ${screen.title}`)(line.where) } : line
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
	const { start } = routine
	const place = `Routine ${routine.name}`
	const own = at(start.table, false, place)
	const step = (each: Step): Step => {
		if (each.kind === 'set') return { ...each, formula: at(start.table, true, place)(each.formula) }
		return { ...each, to: own(each.to), subject: mapPieces(each.subject, own), body: mapPieces(each.body, own) }
	}
	const begun = start.kind === 'rows' ? { ...start, where: own(start.where) } : start
	return { ...routine, start: begun, steps: routine.steps.map(step) }
}

/** What becomes of a column that a document names: another number, or undefined where it goes. */
export type MapColumn = (column: number) => number | undefined

/** The document with every column mapped. What cannot do without its column is left as it stands. */
export function mapColumns(document: AppDocument, map: MapColumn): AppDocument {
	const list = (columns: readonly number[]) => columns.flatMap((column) => map(column) ?? [])
	return {
		...document,
		screens: document.screens.map((screen) => ({
			...screen,
			lines: screen.lines.map((line) => mapLine(line, map, list))
		})),
		routines: document.routines.map((routine) => ({
			...routine,
			steps: routine.steps.map((step) =>
				step.kind === 'set' ? { ...step, column: map(step.column) ?? step.column } : step
			)
		})),
		signoffs: document.signoffs.map((signoff) => mapSignoff(signoff, map, list))
	}
}

type MapList = (columns: readonly number[]) => number[]

function mapLine(line: ScreenLine, map: MapColumn, list: MapList): ScreenLine {
	if (line.kind === 'heading' || line.kind === 'button') return line
	if (line.kind !== 'list') return { ...line, columns: list(line.columns) }
	const sorted = line.sort && map(line.sort.column)
	return { ...line, columns: list(line.columns), sort: line.sort && sorted ? { ...line.sort, column: sorted } : null }
}

function mapSignoff(signoff: Signoff, map: MapColumn, list: MapList): Signoff {
	const children = signoff.children.map((child) => ({
		...child,
		column: map(child.column) ?? child.column,
		columns: list(child.columns)
	}))
	return { ...signoff, columns: list(signoff.columns), children }
}

/** Whether a line of a screen shows, asks for or sorts by a column. */
export function namesColumn(lines: readonly ScreenLine[], column: number): boolean {
	return lines.some((line) => {
		if (line.kind === 'heading' || line.kind === 'button') return false
		return line.columns.includes(column) || (line.kind === 'list' && line.sort?.column === column)
	})
}

/** Whether a document cannot do without a column: it sets it, or follows it to the rows of a request. */
export function needsColumn(document: AppDocument, column: number): string | undefined {
	const routine = document.routines.find(({ steps }) =>
		steps.some((step) => step.kind === 'set' && step.column === column)
	)
	if (routine) return `Routine ${routine.name}`
	const signoff = document.signoffs.find(({ children }) => children.some((child) => child.column === column))
	return signoff && `Sign-off ${signoff.name}`
}

/** Every table that a document names, with where. */
export function tablesOf(document: AppDocument): { readonly table: number; readonly place: string }[] {
	return [
		...document.screens.flatMap(({ title, lines }) =>
			lines.flatMap((line) => ('table' in line ? [{ table: line.table, place: `Screen ${title}` }] : []))
		),
		...document.routines.map(({ name, start }) => ({ table: start.table, place: `Routine ${name}` })),
		...document.signoffs.flatMap(({ name, table, children }) =>
			[table, ...children.map((child) => child.table)].map((each) => ({ table: each, place: `Sign-off ${name}` }))
		)
	]
}
