/**
 * A routine: what starts it, and what it does then, step by step. A new kind of step or start is one file beside its
 * siblings, its schema in the union here and its entry in the record: the compiler asks for the rest.
 */
import { z } from 'zod'
import { id, number, words } from '../document/parts.ts'
import { addStep, addStepSchema, cellStep, cellStepSchema, linkStep, linkStepSchema, type AddStep } from './add-step.ts'
import { askStep, askStepSchema, type AskStep } from './ask-step.ts'
import { buttonStart, buttonStartSchema } from './button-start.ts'
import { callStep, callStepSchema, type CallStep } from './call-step.ts'
import { calledStart, calledStartSchema } from './called-start.ts'
import { clockStart, clockStartSchema } from './clock-start.ts'
import { comesStart, comesStartSchema } from './comes-start.ts'
import { decidedStart, decidedStartSchema } from './decided-start.ts'
import {
	documentStep,
	documentStepSchema,
	headingStep,
	headingStepSchema,
	listStep,
	listStepSchema,
	pictureStep,
	pictureStepSchema,
	valuesStep,
	valuesStepSchema,
	wordsStep,
	wordsStepSchema,
	type DocumentStep
} from './document-step.ts'
import { fileStart, fileStartSchema } from './file-start.ts'
import { dueStart, dueStartSchema } from './due-start.ts'
import {
	eachStep,
	eachStepSchema,
	elseStep,
	elseStepSchema,
	ifStep,
	ifStepSchema,
	stopStep,
	stopStepSchema,
	waitStep,
	waitStepSchema,
	type EachStep,
	type ElseStep,
	type IfStep
} from './flow-steps.ts'
import { reportStep, reportStepSchema } from './report-step.ts'
import { openStep, openStepSchema } from './open-step.ts'
import { restoreStep, restoreStepSchema } from './restore-step.ts'
import { removeStep, removeStepSchema, sayStep, sayStepSchema } from './row-steps.ts'
import { requestStart, requestStartSchema } from './request-start.ts'
import { scanStart, scanStartSchema } from './scan-start.ts'
import { roleStep, roleStepSchema } from './role-step.ts'
import { rowsStart, rowsStartSchema } from './rows-start.ts'
import { runStep, runStepSchema, type RunStep } from './run-step.ts'
import { sendStep, sendStepSchema } from './send-step.ts'
import { setStep, setStepSchema } from './set-step.ts'
import type { StartEntry, StepEntry } from './step-entry.ts'
import { signoffStep, signoffStepSchema } from './signoff-step.ts'
import { untilStep, untilStepSchema, type UntilStep } from './until-step.ts'
import { keepStep, keepStepSchema, takeStep, takeStepSchema, giveStep, giveStepSchema } from './value-steps.ts'

/** Kinds that hold no other. */
const PLAIN = [
	setStepSchema,
	cellStepSchema,
	linkStepSchema,
	removeStepSchema,
	restoreStepSchema,
	sendStepSchema,
	reportStepSchema,
	headingStepSchema,
	wordsStepSchema,
	valuesStepSchema,
	listStepSchema,
	pictureStepSchema,
	sayStepSchema,
	openStepSchema,
	signoffStepSchema,
	roleStepSchema,
	takeStepSchema,
	keepStepSchema,
	giveStepSchema,
	waitStepSchema,
	stopStepSchema
] as const

type Holder = { readonly lines: readonly Step[] }
type HolderInput = { readonly lines?: readonly StepInput[] | undefined }

export type Step =
	| z.infer<(typeof PLAIN)[number]>
	| (AddStep & Holder)
	| (AskStep & Holder)
	| (DocumentStep & Holder)
	| (UntilStep & Holder)
	| (RunStep & Holder)
	| (CallStep & Holder)
	| (IfStep & Holder)
	| (ElseStep & Holder)
	| (EachStep & Holder)

/** A step as it is written: what has a default may be left out. */
export type StepInput =
	| z.input<(typeof PLAIN)[number]>
	| (AddStep & HolderInput)
	| (z.input<typeof askStepSchema> & HolderInput)
	| (z.input<typeof documentStepSchema> & HolderInput)
	| (z.input<typeof untilStepSchema> & HolderInput)
	| (RunStep & HolderInput)
	| (CallStep & HolderInput)
	| (IfStep & HolderInput)
	| (ElseStep & HolderInput)
	| (EachStep & HolderInput)

const lines = z.lazy(() => z.array(stepSchema)).default([])

export const stepSchema: z.ZodType<Step, StepInput> = z.discriminatedUnion('kind', [
	...PLAIN,
	addStepSchema.extend({ lines }),
	askStepSchema.extend({ lines }),
	documentStepSchema.extend({ lines }),
	untilStepSchema.extend({ lines }),
	runStepSchema.extend({ lines }),
	callStepSchema.extend({ lines }),
	ifStepSchema.extend({ lines }),
	elseStepSchema.extend({ lines }),
	eachStepSchema.extend({ lines })
])

export const routineSchema = z.object({
	id,
	name: words,
	/** The role that it acts as; whoever pressed, where there is none. */
	acts: number.nullish(),
	start: z.discriminatedUnion('kind', [
		buttonStartSchema,
		rowsStartSchema,
		comesStartSchema,
		decidedStartSchema,
		clockStartSchema,
		dueStartSchema,
		calledStartSchema,
		requestStartSchema,
		scanStartSchema,
		fileStartSchema
	]),
	steps: z.array(stepSchema)
})

export type Routine = z.infer<typeof routineSchema>
export type StepKind = Step['kind']
export type StepOf<K extends StepKind> = Extract<Step, { kind: K }>
export type Start = Routine['start']

/** In the order in which they are offered. */
export const STEPS: { readonly [K in StepKind]: StepEntry<StepOf<K>> } = {
	set: setStep,
	add: addStep,
	cell: cellStep,
	link: linkStep,
	remove: removeStep,
	restore: restoreStep,
	send: sendStep,
	report: reportStep,
	document: documentStep,
	heading: headingStep,
	words: wordsStep,
	values: valuesStep,
	list: listStep,
	picture: pictureStep,
	ask: askStep,
	say: sayStep,
	open: openStep,
	signoff: signoffStep,
	role: roleStep,
	run: runStep,
	call: callStep,
	take: takeStep,
	keep: keepStep,
	give: giveStep,
	if: ifStep,
	else: elseStep,
	each: eachStep,
	wait: waitStep,
	until: untilStep,
	stop: stopStep
}

export const STARTS: { readonly [K in Start['kind']]: StartEntry<Extract<Start, { kind: K }>> } = {
	button: buttonStart,
	scan: scanStart,
	rows: rowsStart,
	comes: comesStart,
	file: fileStart,
	decided: decidedStart,
	due: dueStart,
	clock: clockStart,
	called: calledStart,
	request: requestStart
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

/** The table whose rows it starts with; none by the clock. */
export function tableOfStart(start: Start): number | undefined {
	return 'table' in start ? start.table : undefined
}

/** Whether it comes to a yes or a no, and "Otherwise" may come after it: a condition holds, an answer is there, or in time. */
export function isDecided({ kind }: Step): boolean {
	return kind === 'if' || kind === 'ask' || kind === 'until'
}

/** What a step holds. */
export function linesOf(step: Step): readonly Step[] {
	return 'lines' in step ? step.lines : []
}
