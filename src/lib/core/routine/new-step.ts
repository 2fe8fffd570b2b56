/** What a step begins with, so that it works at once. */
import { isBlank } from '../sentence/print.ts'
import type { LineValue, Sentence } from '../sentence/types.ts'
import type { Vocabulary } from '../sentence/vocabulary.ts'
import { stepSchema, STEPS, type Routine, type Step } from './routine.ts'
import { mayHoldStep, placeIn, stepsAfter, type StepPlace } from './step-tree.ts'
import { tableOfStart } from './routine.ts'

export interface Beginning {
	readonly id: string
	readonly vocabulary: Vocabulary
	readonly routine: Pick<Routine, 'start'>
	/** What will hold it, the outermost first. */
	readonly within: readonly Step[]
}

/** A step that was typed or chosen, with what it cannot do without: a table, a column. */
export function beginStep(typed: LineValue, { id, vocabulary, routine, within }: Beginning): Step {
	const filled: Record<string, unknown> = { ...typed, id }
	const { table, holds } = placeWithin(routine, within)
	const tables = vocabulary.tables
	if ('table' in filled && isBlank(filled['table']))
		filled['table'] = filled['kind'] === 'each' ? (pointingTo(table, vocabulary) ?? tables[0]?.id) : tables[0]?.id
	if ('column' in filled && isBlank(filled['column'])) {
		const columns = tables.find((each) => each.id === (holds ?? table))?.columns ?? []
		const open = columns.filter(({ shows, condition }) => shows === undefined && !condition)
		const isLink = filled['kind'] === 'link'
		filled['column'] = (open.find(({ to }) => isLink && to === table) ?? open.find((each) => !isTaken(each.id, within)) ?? open[0])?.id // prettier-ignore
	}
	return stepSchema.parse(filled)
}

/** The sentences of the steps that may be added within one of a kind, or after the start. */
export function sentencesOfSteps(routine: Pick<Routine, 'start' | 'acts'>): (holder: string | undefined) => Sentence[] {
	const offered = new Set(stepsAfter(routine).map(({ sentence }) => sentence))
	return (holder) =>
		Object.values(STEPS).flatMap(({ sentence }) =>
			offered.has(sentence) && mayHoldStep(holder, sentence.kind.kind) ? [sentence] : []
		)
}

function placeWithin({ start }: Pick<Routine, 'start'>, within: readonly Step[]): StepPlace {
	const first: StepPlace = { table: tableOfStart(start), outer: undefined, holds: undefined }
	return within.reduce<StepPlace>((place, step) => placeIn(step, place), first)
}

/** The first table whose rows belong to those of another. */
function pointingTo(table: number | undefined, { tables }: Vocabulary): number | undefined {
	return tables.find(({ columns }) => columns.some(({ to }) => to !== undefined && to === table))?.id
}

function isTaken(column: number, within: readonly Step[]): boolean {
	const holder = within.at(-1)
	return holder?.kind === 'add' && holder.lines.some((line) => 'column' in line && line.column === column)
}
