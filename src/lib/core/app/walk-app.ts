/** Goes through an app document: every formula in it with where it stands, and every column that it names by number. */
import type { Standing } from '../formula/check/rename.ts'
import { entryOfStart, entryOfStep, type Routine } from '../routine/routine.ts'
import { tableOf } from '../sentence/print.ts'
import type { SentenceKind } from '../sentence/types.ts'
import { columnsIn, mapColumnsIn, mapFormulasIn, tablesIn, type MapText } from '../sentence/walk-line.ts'
import { SIGNOFF_LINE } from '../signoff/sentence.ts'
import type { AppDocument } from './document.ts'
import { entryOfLine, type ScreenLine } from './lines/all.ts'
import { allLines, mapLines } from './lines/tree.ts'
import type { MapColumn } from '../model/map-columns.ts'

export type MapFormula = (text: string, standing: Standing, place: string) => string

/** The document with every formula mapped; blank ones are left. */
export function mapFormulas(document: AppDocument, map: MapFormula): AppDocument {
	const at = (table: number | undefined, me: boolean, place: string) => (text: string) =>
		text.trim() === '' ? text : map(text, { table, me }, place)
	return {
		...document,
		screens: document.screens.map((screen) => ({
			...screen,
			lines: mapTreeFormulas(screen.lines, undefined, (text, table, me) =>
				at(table, me, `Screen ${screen.title}`)(text)
			)
		})),
		routines: document.routines.map((routine) => mapRoutine(routine, at)),
		signoffs: document.signoffs.map((signoff) => {
			const map: MapText = (text, me) => at(signoff.table, me, `Sign-off ${signoff.name}`)(text)
			return mapFormulasIn(SIGNOFF_LINE.kind, signoff, map)
		})
	}
}

type At = (table: number | undefined, me: boolean, place: string) => (text: string) => string

function mapRoutine(routine: Routine, at: At): Routine {
	const { start, steps } = routine
	const map: MapText = (text, me) => at(start.table, me, `Routine ${routine.name}`)(text)
	return {
		...routine,
		...mapFormulasIn(entryOfStart(start).sentence.kind, { start }, map),
		steps: steps.map((step) => mapFormulasIn(entryOfStep(step).sentence.kind, step, map))
	}
}

/** The document with every column mapped. What cannot do without its column is left as it stands. */
export function mapColumns(document: AppDocument, map: MapColumn): AppDocument {
	return {
		...document,
		screens: document.screens.map((screen) => ({
			...screen,
			lines: mapLines(screen.lines, (line) => mapColumnsIn(kindOf(line), line, map))
		})),
		routines: document.routines.map((routine) => ({
			...routine,
			steps: routine.steps.map((step) => mapColumnsIn(entryOfStep(step).sentence.kind, step, map))
		})),
		signoffs: document.signoffs.map((signoff) => mapColumnsIn(SIGNOFF_LINE.kind, signoff, map))
	}
}

function kindOf(line: ScreenLine): SentenceKind {
	return entryOfLine(line).sentence.kind
}

type MapOverTable = (text: string, table: number | undefined, me: boolean) => string

/** Formulas of a line stand over the table that its sentence names, or else over that of the line that holds it; those of a text over none. */
function mapTreeFormulas(lines: readonly ScreenLine[], outer: number | undefined, map: MapOverTable): ScreenLine[] {
	return lines.map((line) => {
		const table = tableOf(kindOf(line), line, outer)
		const mapped = mapFormulasIn(kindOf(line), line, (text, me) => map(text, table, me))
		return 'lines' in mapped ? { ...mapped, lines: mapTreeFormulas(mapped.lines, table, map) } : mapped
	})
}

/** Whether a line of a screen shows, asks for or sorts by a column. */
export function namesColumn(lines: readonly ScreenLine[], column: number): boolean {
	return allLines(lines).some((line) => columnsIn(kindOf(line), line).includes(column))
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
			allLines(lines).flatMap((line) =>
				tablesIn(kindOf(line), line).map((table) => ({ table, place: `Screen ${title}` }))
			)
		),
		...document.routines.map(({ name, start }) => ({ table: start.table, place: `Routine ${name}` })),
		...document.signoffs.flatMap((signoff) =>
			tablesIn(SIGNOFF_LINE.kind, signoff).map((table) => ({ table, place: `Sign-off ${signoff.name}` }))
		)
	]
}
