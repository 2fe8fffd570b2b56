/** The steps of a routine as a tree: on which rows each stands, what may stand where, and what is wrong with it. */
import { mistake, remark, TABLE_GONE, type Found } from '../document/findings.ts'
import { hereIn } from '../formula/check/rename.ts'
import type { Catalogue } from '../model/table.ts'
import { tableOf } from '../sentence/print.ts'
import { givenTo, heldIn } from './held-values.ts'
import {
	entryOfStart,
	entryOfStep,
	isDecided,
	linesOf,
	STEPS,
	tableOfStart,
	type Routine,
	type Step
} from './routine.ts'
import type { AroundStep, StartEntry, StepEntry, Writing } from './step-entry.ts'

/** The tables that a step stands under, by number: of the row at hand, of that around it, and of what holds it. */
export interface StepPlace {
	readonly table: number | undefined
	readonly outer: number | undefined
	readonly holds: number | undefined
}

export interface PlacedStep extends StepPlace {
	readonly step: Step
	/** 0 for those that follow the start. */
	readonly level: number
	/** From 1, whatever the level. */
	readonly number: number
	/** What stands right before it, beside it. */
	readonly before: Step | undefined
	readonly within: readonly Step[]
	/** Whether the row at hand lies in the bin: it was removed, and not brought back. */
	readonly isRemoved: boolean
}

/** Every step in the order in which they stand, each before those that it holds. */
export function placedSteps({ start, steps }: Pick<Routine, 'start' | 'steps'>): PlacedStep[] {
	const found: PlacedStep[] = []
	const startsRemoved = start.kind === 'rows' && start.when === 'removed'
	let isBack = false
	const visit = (list: readonly Step[], place: StepPlace, within: readonly Step[]) => {
		for (const [i, step] of list.entries()) {
			const isRemoved = startsRemoved && !isBack && !within.some(({ kind }) => kind === 'each')
			isBack ||= step.kind === 'restore'
			found.push({
				...place,
				isRemoved,
				step,
				level: within.length,
				number: found.length + 1,
				before: list[i - 1],
				within
			})
			visit(linesOf(step), placeIn(step, place), [...within, step])
		}
	}
	visit(steps, { table: tableOfStart(start), outer: undefined, holds: undefined }, [])
	return found
}

/** What stands in a step stands so. */
export function placeIn(step: Step, place: StepPlace): StepPlace {
	const { sentence, goesThrough } = entryOfStep(step)
	const own = tableOf(sentence.kind, step)
	if (goesThrough) return { table: own, outer: place.table, holds: undefined }
	return { ...place, holds: own ?? place.holds }
}

/** Each step mapped, those that it holds before it. */
export function mapSteps(
	steps: readonly Step[],
	place: StepPlace,
	map: (step: Step, place: StepPlace) => Step
): Step[] {
	return steps.map((step) => {
		const inner = 'lines' in step ? { ...step, lines: mapSteps(step.lines, placeIn(step, place), map) } : step
		return map(inner, place)
	})
}

/** Whether a step of one kind may stand in one of another; `undefined` for right after the start. */
export function mayHoldStep(holder: string | undefined, kind: string): boolean {
	const inner = entryOfKind(kind)
	if (!inner) return false
	const holds = holder === undefined ? 'steps' : (entryOfKind(holder)?.holds ?? [])
	return holds === 'steps' ? !inner.isInner : holds.includes(kind)
}

/** All that a routine writes. */
export function writingsOf(routine: Pick<Routine, 'start' | 'steps'>): Writing[] {
	return placedSteps(routine).flatMap(({ step, table, holds }) => entryOfStep(step).writes(step, holds ?? table))
}

/** Whether it must act as somebody. */
export function needsActor({ steps, start }: Pick<Routine, 'start' | 'steps'>): boolean {
	return placedSteps({ start, steps }).some(({ step }) => entryOfStep(step).needsActor)
}

/** The kinds of steps that may follow a start: what speaks to whoever pressed has its place after a press alone. */
export function stepsAfter({ start, acts }: Pick<Routine, 'start' | 'acts'>): readonly StepEntry<Step>[] {
	const { isPressed, takes } = entryOfStart(start)
	const isOfRemoved = start.kind === 'rows' && start.when === 'removed'
	const isActing = isPressed || (acts ?? undefined) !== undefined
	// Of every kind of step: which one is asked of the entry itself.
	return (Object.values(STEPS) as StepEntry<Step>[]).filter(
		({ needsActor, needsPresser, sentence }) =>
			(isPressed || !needsPresser) &&
			(isActing || !needsActor) &&
			(takes !== 'nothing' || sentence.kind.kind !== 'take') &&
			(isOfRemoved || sentence.kind.kind !== 'restore')
	)
}

export interface StepFound extends Found {
	/** The step that it is about; none for the start. */
	readonly step?: { readonly id: string; readonly number: number }
}

interface CheckedIn {
	readonly catalogue: Catalogue
	readonly hasRole: (id: number) => boolean
	readonly hasScreen: (id: string) => boolean
	readonly findRoutine: AroundStep['findRoutine']
	readonly findSignoff: AroundStep['findSignoff']
}

/** Everything in a routine that would not work. */
export function checkRoutine(
	routine: Routine,
	{ catalogue, hasRole, hasScreen, findRoutine, findSignoff }: CheckedIn
): StepFound[] {
	const { start, steps, acts } = routine
	const { check, isPressed, takes } = entryOfStart(start)
	const id = tableOfStart(start)
	const table = id === undefined ? undefined : catalogue.tables.get(id)
	if (id !== undefined && !table) return mistake(TABLE_GONE)
	const role = acts ?? undefined
	return [
		...(steps.length === 0 ? mistake('It has no step yet.') : []),
		...(role === undefined || hasRole(role) ? [] : mistake('The role that it acts as is gone. Choose another.')),
		...check(start, table, catalogue),
		...placedSteps(routine).flatMap((placed) => {
			const found = checkPlaced(placed, {
				catalogue,
				hasRole,
				hasScreen,
				findRoutine,
				findSignoff,
				isPressed,
				takes,
				here: hereIn(heldIn(routine), catalogue) ?? new Map(),
				given: hereIn(givenTo(routine), catalogue) ?? new Map(),
				hasMe: isPressed && role === undefined,
				acts: isPressed || role !== undefined,
				actsAsRole: role !== undefined
			})
			return found.map((each) => ({ ...each, step: { id: placed.step.id, number: placed.number } }))
		})
	]
}

/** Steps that do something to a row, or show it. */
const NOT_OF_REMOVED: ReadonlySet<string> = new Set<Step['kind']>([
	'set',
	'link',
	'remove',
	'ask',
	'until',
	'run',
	'signoff',
	'document'
])

/** Steps at which a routine stands still. */
const WAITING: ReadonlySet<string> = new Set(['ask', 'until', 'wait'])
const ONE_AFTER_ANOTHER =
	'Rows come one after the other, so each waits here for the one before it. To let all wait at once, run another routine on each row.'

function checkPlaced(
	{ step, within, before, isRemoved, ...place }: PlacedStep,
	{ takes, ...around }: Omit<AroundStep, 'table' | 'outer' | 'holds'> & { readonly takes: StartEntry<never>['takes'] }
): Found[] {
	const entry = entryOfStep(step)
	const of = (id: number | undefined) => (id === undefined ? undefined : around.catalogue.tables.get(id))
	if (!mayHoldStep(within.at(-1)?.kind, step.kind)) return mistake('It may not stand here. Move it out, or remove it.')
	if (step.kind === 'else' && (!before || !isDecided(before)))
		return mistake('"Otherwise" comes right after an "If", an "Ask" or a "Wait until". Move it there, or remove it.')
	if (step.kind === 'else' && (before?.kind === 'ask' || before?.kind === 'until') && !before.ends)
		return mistake('What stands before it waits without end, so this never comes: say there for how long at most.')
	if (entry.needsRow && place.table === undefined)
		return mistake('There is no row here: put it into "For each row of" a table.')
	if (entry.needsPresser && !around.isPressed)
		return mistake('Nobody presses here, so there is nobody to say it to. Send a message instead.')
	if (entry.needsActor && !around.acts)
		return mistake('It writes, and nobody presses here: say at the start which role it acts as.')
	if (isRemoved && NOT_OF_REMOVED.has(step.kind))
		return mistake(
			'The row lies in the bin by then: of it there are only its values to read. Bring it back before this.'
		)
	if (step.kind === 'restore' && !isRemoved)
		return mistake('Only a row that was removed comes back. Let it start when a row is removed.')
	if (step.kind === 'take' && (within.length > 0 || (before && before.kind !== 'take')))
		return mistake('What it takes is there from the start: move this up, before everything else.')
	if (step.kind === 'take' && takes === 'nothing')
		return mistake(
			'Nothing that starts it gives it a value. Let another routine run it, or another program ask for it.'
		)
	if (step.kind === 'take' && takes === 'from outside' && step.what === 'a row')
		return mistake('Another program knows no rows of ours. Take a text, and look the row up by it.')
	const waits = WAITING.has(step.kind) && within.some(({ kind }) => kind === 'each') ? remark(ONE_AFTER_ANOTHER) : []
	return [
		...entry.check(step, { ...around, table: of(place.table), outer: of(place.outer), holds: of(place.holds) }),
		...waits
	]
}

function entryOfKind(kind: string): StepEntry<never> | undefined {
	// An entry takes any step that its own schema read; which one is known at run time only.
	return kind in STEPS ? (STEPS[kind as keyof typeof STEPS] as StepEntry<never>) : undefined
}
