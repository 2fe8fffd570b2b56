/** Goes through an app document: every formula in it with where it stands, and every column that it names by number. */
import type { HeldKind, Standing } from '../formula/check/rename.ts'
import { heldIn } from '../routine/held-values.ts'
import { entryOfStart, entryOfStep, tableOfStart, type Routine, type Step } from '../routine/routine.ts'
import { mapSteps, placedSteps, writingsOf, type StepPlace } from '../routine/step-tree.ts'
import { tableOf } from '../sentence/print.ts'
import type { SentenceKind } from '../sentence/types.ts'
import {
	columnsIn,
	mapColumnsIn,
	mapFormulasIn,
	mapNumbersIn,
	tablesIn,
	type MapNumbers,
	type MapText
} from '../sentence/walk-line.ts'
import { SIGNOFF_LINE } from '../signoff/sentence.ts'
import type { AppDocument, Screen } from './document.ts'
import { entryOfLine, type ScreenLine } from './lines/all.ts'
import { allLines, mapLines } from './lines/tree.ts'
import type { MapColumn } from '../model/map-columns.ts'
import { SCREEN_LINE } from './screen-line.ts'
import { heldAround } from './shared-lines.ts'

export type MapFormula = (text: string, standing: Standing, place: string) => string

/** The document with every formula mapped; blank ones are left. */
export function mapFormulas(document: AppDocument, map: MapFormula): AppDocument {
	const at: At = (standing, place) => (text) => (text.trim() === '' ? text : map(text, standing, place))
	return {
		...document,
		screens: document.screens.map((screen) => mapScreen(screen, document, at)),
		routines: document.routines.map((routine) => mapRoutine(routine, at)),
		signoffs: document.signoffs.map((signoff) => {
			const map: MapText = (text, own) => at({ table: signoff.table, ...own }, `Sign-off ${signoff.name}`)(text)
			return mapFormulasIn(SIGNOFF_LINE.kind, signoff, map)
		})
	}
}

function mapScreen(screen: Screen, { screens }: AppDocument, at: At): Screen {
	const place = `Screen ${screen.title}`
	const here = heldAround(screen, screens)
	return {
		// Its own words stand over no row.
		...mapFormulasIn(SCREEN_LINE.kind, screen, (text, own) => at({ table: undefined, ...own }, place)(text)),
		lines: mapTreeFormulas(screen.lines, { here }, (text, standing) => at(standing, place)(text))
	}
}

type At = (standing: Standing, place: string) => (text: string) => string

function mapRoutine(routine: Routine, at: At): Routine {
	const { start, steps } = routine
	const here = heldIn(routine)
	const map =
		({ table, outer }: Around): MapText =>
		(text, { isOuter: _, ...own }) =>
			at({ table, outer, here, ...own }, `Routine ${routine.name}`)(text)
	const place = firstPlace(routine)
	return {
		...routine,
		...mapFormulasIn(entryOfStart(start).sentence.kind, { start }, map(place)),
		steps: mapSteps(steps, place, (step, around) => mapStepFormulas(step, around, map))
	}
}

function firstPlace({ start }: Routine): StepPlace {
	return { table: tableOfStart(start), outer: undefined, holds: undefined }
}

type Around = Pick<StepPlace, 'table' | 'outer'>

/** Those of a step that reads rows stand on them, the row at hand around; all others on the row at hand. */
function mapStepFormulas(step: Step, place: StepPlace, map: (place: Around) => MapText): Step {
	const { sentence, readsRows } = entryOfStep(step)
	const onHand = map(place)
	const within = readsRows ? map({ table: tableOf(sentence.kind, step), outer: place.table }) : onHand
	return mapFormulasIn(sentence.kind, step, (text, own) => (own.isOuter ? onHand : within)(text, own))
}

/** The document with every column mapped. What cannot do without its column is left as it stands. */
export function mapColumns(document: AppDocument, map: MapColumn): AppDocument {
	return mapSentences(document, (kind, line) => mapColumnsIn(kind, line, map))
}

/** The document with its tables and roles by other numbers. */
export function mapNumbers(document: AppDocument, map: MapNumbers): AppDocument {
	return mapSentences(document, (kind, line) => mapNumbersIn(kind, line, map))
}

/** Every sentence of it mapped by what stands in its slots. */
function mapSentences(document: AppDocument, map: <T extends object>(kind: SentenceKind, line: T) => T): AppDocument {
	return {
		...document,
		screens: document.screens.map((screen) => ({
			...map(SCREEN_LINE.kind, screen),
			lines: mapLines(screen.lines, (line) => map(kindOf(line), line))
		})),
		routines: document.routines.map((routine) => ({
			...routine,
			...map(entryOfStart(routine.start).sentence.kind, startOf(routine)),
			steps: mapSteps(routine.steps, firstPlace(routine), (step) => map(entryOfStep(step).sentence.kind, step))
		})),
		signoffs: document.signoffs.map((signoff) => map(SIGNOFF_LINE.kind, signoff))
	}
}

/** What the sentence of its start says. */
function startOf({ start, acts }: Routine): Pick<Routine, 'start' | 'acts'> {
	return acts === undefined ? { start } : { start, acts }
}

function kindOf(line: ScreenLine): SentenceKind {
	return entryOfLine(line).sentence.kind
}

type MapStanding = (text: string, standing: Standing) => string

/** What formulas of lines stand over, as far as what holds them says. */
export interface AroundLines {
	readonly table?: number | undefined
	readonly outer?: number | undefined
	/** What is held on the screen, by name. */
	readonly here?: Readonly<Record<string, HeldKind>>
}

/** Formulas of a line stand over the table that its sentence names, or else over that of the line that holds it; those of a text over none. */
function mapTreeFormulas(lines: readonly ScreenLine[], around: AroundLines, map: MapStanding): ScreenLine[] {
	return lines.map((line) => {
		const within = aroundIn(line, around)
		const mapped = mapFormulasIn(kindOf(line), line, (text, own) =>
			map(text, { ...within, table: within.table, ...own })
		)
		return 'lines' in mapped ? { ...mapped, lines: mapTreeFormulas(mapped.lines, within, map) } : mapped
	})
}

/** Every formula that stands in some lines, those inside texts too. */
export function formulasIn(lines: readonly ScreenLine[]): string[] {
	const found: string[] = []
	mapTreeFormulas(lines, {}, (text) => {
		found.push(text)
		return text
	})
	return found
}

/** What the formulas of a line, and of those that it holds, stand over. */
export function aroundIn(line: ScreenLine, around: AroundLines): AroundLines {
	const { table } = around
	if (kindOf(line).tableKey === undefined) return around
	const outer = entryOfLine(line).goesWithOuter ? table : undefined
	return { ...around, table: tableOf(kindOf(line), line, table), outer }
}

/** Whether a line of a screen shows, asks for or sorts by a column. */
export function namesColumn(lines: readonly ScreenLine[], column: number): boolean {
	return allLines(lines).some((line) => columnsIn(kindOf(line), line).includes(column))
}

/** Whether a document cannot do without a column: it sets it or asks for it, starts by its date, or follows it to the rows of a request. */
export function needsColumn(document: AppDocument, column: number): string | undefined {
	const routine = document.routines.find(
		(each) =>
			(each.start.kind === 'due' && each.start.column === column) ||
			writingsOf(each).some(({ columns }) => columns.includes(column)) ||
			placedSteps(each).some(({ step }) => step.kind === 'ask' && step.columns.includes(column))
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
		...document.routines.flatMap((routine) =>
			tablesOfRoutine(routine).map((table) => ({ table, place: `Routine ${routine.name}` }))
		),
		...document.signoffs.flatMap((signoff) =>
			tablesIn(SIGNOFF_LINE.kind, signoff).map((table) => ({ table, place: `Sign-off ${signoff.name}` }))
		)
	]
}

function tablesOfRoutine(routine: Routine): readonly number[] {
	const named = placedSteps(routine).flatMap(({ step }) => tablesIn(entryOfStep(step).sentence.kind, step))
	return [...tablesIn(entryOfStart(routine.start).sentence.kind, { start: routine.start }), ...named]
}
