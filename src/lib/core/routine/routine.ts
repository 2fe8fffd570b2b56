/**
 * A routine: what starts it, and what it does then, step by step. A new kind of step or start is one file beside its
 * siblings, its schema in the union here and its entry in the record: the compiler asks for the rest.
 */
import { z } from 'zod'
import { id, words } from '../document/parts.ts'
import { buttonStart, buttonStartSchema } from './button-start.ts'
import { rowsStart, rowsStartSchema } from './rows-start.ts'
import { sendStep, sendStepSchema } from './send-step.ts'
import { setStep, setStepSchema } from './set-step.ts'
import type { StartEntry, StepEntry } from './step-entry.ts'

export const routineSchema = z.object({
	id,
	name: words,
	start: z.discriminatedUnion('kind', [buttonStartSchema, rowsStartSchema]),
	steps: z.array(z.discriminatedUnion('kind', [setStepSchema, sendStepSchema]))
})

export type Routine = z.infer<typeof routineSchema>
export type Step = Routine['steps'][number]
export type Start = Routine['start']

export const STEPS: { readonly [K in Step['kind']]: StepEntry<Extract<Step, { kind: K }>> } = {
	set: setStep,
	send: sendStep
}

export const STARTS: { readonly [K in Start['kind']]: StartEntry<Extract<Start, { kind: K }>> } = {
	button: buttonStart,
	rows: rowsStart
}

/** What is known of the kind of a step. */
export function entryOfStep(step: Step): StepEntry<Step> {
	// Kind by kind the record holds this; for the union the compiler cannot tell.
	return STEPS[step.kind] as StepEntry<Step>
}

/** What is known of the kind of a start. */
export function entryOfStart(start: Start): StartEntry<Start> {
	// Kind by kind the record holds this; for the union the compiler cannot tell.
	return STARTS[start.kind] as StartEntry<Start>
}

/** The steps that may follow a start: what acts as whoever pressed has its place after a press alone. */
export function stepsAfter(start: Start): readonly StepEntry<Step>[] {
	const { isPressed } = entryOfStart(start)
	// Of every kind of step: which one is asked of the entry itself.
	return (Object.values(STEPS) as StepEntry<Step>[]).filter(
		({ withoutPresser }) => isPressed || withoutPresser === undefined
	)
}
