/** A report or a document that is to be written: put into the queue by its step, so that the writer does not wait while rows are read. */
import { wholeDocumentSchema } from '$lib/core/routine/document-step.ts'
import type { StepOf } from '$lib/core/routine/routine.ts'
import { addJob, type Payload } from '../queue/queue.ts'
import { recipientOf, type StepNow, type StepResult } from './step-now.ts'
import type { RowAt } from './work-out.ts'

export function reportTo(step: StepOf<'report'>, now: StepNow): StepResult {
	return writeFor(step, 'reported', now)
}

export function documentFor(step: StepOf<'document'>, now: StepNow): StepResult {
	// Its lines are of the kinds that stand in a document: the check before the release has seen to that.
	return writeFor(wholeDocumentSchema.parse(step), 'written', now)
}

function writeFor(step: Payload<'report'>['step'], cameTo: string, now: StepNow): StepResult {
	const outcome = { kind: 'done', many: 1 } as const
	const person = recipientOf(step, now)
	if (person === undefined) return { outcome, cameTo: 'nobody was named' }
	const { store, app, routine, cause, at, outer } = now
	const rows = { at: numbersOf(at), outer: numbersOf(outer) }
	addJob(store, 'report', { app, routine, person, cause, step, ...rows }, now.now)
	return { outcome, cameTo, person }
}

function numbersOf(row: RowAt | undefined) {
	return row ? { table: row.table.id, n: row.n } : null
}
