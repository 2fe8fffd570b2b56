/**
 * A bringing-in into a table that is there, from the comparison to its end: in steps of the writer, so that the changes
 * of others go on between them. Few rows go in at once, in one transaction. Before many do, each is tried; should one
 * not fit all the same, or somebody stop it, what was done is undone.
 */
import type { Doing, Undone } from '$lib/core/requests/imports.ts'
import { AppError } from '$lib/core/app-error.ts'
import type { Comparison, Merged, Misfit } from '$lib/core/exchange/comparison.ts'
import type { Threads } from '../threads/threads.ts'
import { misfitError, NOTHING_APPLIED, type Applied, type Applying } from '../sources/apply-merge.ts'
import type { Span } from '../sources/judge-merge.ts'
import { intoOf, type Staging } from '../sources/stage-merge.ts'
import { NOTHING_UNDONE, type Undoing, type UndoStep } from '../sources/undo-merge.ts'

export interface Watch {
	readonly onProgress: (doing: Doing, done: number, of: number) => void
	/** Asked between steps. */
	readonly isStopped: () => boolean
}

/** Refused: nothing is in, and the staged rows still wait. */
export type Outcome =
	| { readonly merged: Merged }
	| { readonly refused: string; readonly misfits: readonly Misfit[]; readonly comparison: Comparison }

type Doors = Pick<Threads, 'read' | 'write'>

/** As many rows change in one transaction: a fifth of a second, in which the writer does nothing else. */
export const AT_ONCE = 2_000
/** What is judged in a step takes a few hundredths of a second. */
const JUDGED = { staged: 2_000, table: 5_000 }
const STOPPED = 'Stopped. Nothing was brought in.'

export async function compareInSteps(host: Doors, staging: Staging, watch: Watch): Promise<Comparison> {
	const ends = await host.read('measureMerge', staging)
	const of = ends.staged + ends.table
	for (const { from, to } of spans(ends.staged, JUDGED.staged)) {
		if (watch.isStopped()) throw new AppError('invalid', STOPPED)
		await host.write('judgeStaged', { ...staging, from, to })
		watch.onProgress('comparing', to, of)
	}
	for (const { from, to } of spans(ends.table, JUDGED.table)) {
		if (watch.isStopped()) throw new AppError('invalid', STOPPED)
		await host.write('judgeTable', { ...staging, from, to })
		watch.onProgress('comparing', ends.staged + to, of)
	}
	return host.read('comparison', staging)
}

function* spans(length: number, step: number): Generator<Span> {
	for (let from = 1; from <= length; from += step) yield { from, to: Math.min(length, from + step - 1) }
}

export interface ApplyRun extends Applying {
	/** What the builder saw. */
	readonly expected: Comparison
	/** Whether rows that fit go in although others do not. */
	readonly partly: boolean
}

/** Throws where the program fails, or had to take out again what was in already; then the staged rows are gone. */
export async function applyInSteps(host: Doors, run: ApplyRun, watch: Watch): Promise<Outcome> {
	const { expected, partly, ...applying } = run
	const comparison = await compareInSteps(host, applying, { ...watch, isStopped: () => false })
	const refuse = (refused: string, misfits: readonly Misfit[] = []): Outcome => ({ refused, misfits, comparison })
	if (watch.isStopped()) return refuse(STOPPED)
	if (hasChanged(comparison, expected)) return refuse('The table was changed meanwhile. This is what it comes to now.')
	const removed = intoOf(run.plan).how === 'replace' ? comparison.missing : 0
	const of = comparison.added + comparison.changed + removed
	if (of <= AT_ONCE) return applyAtOnce(host, { ...applying, partly }, refuse)
	if (!partly) {
		const tried = await inSteps(host, 'tryStep', applying, { watch, doing: 'trying', of })
		if (!tried.ended) return refuse(STOPPED)
		if (tried.misfitCount > 0) return refuse(misfitError(tried).message, tried.misfits)
	}
	return { merged: await applyMany(host, run, watch, of) }
}

async function applyAtOnce(
	host: Doors,
	asked: Applying & { partly: boolean },
	refuse: (refused: string, misfits?: readonly Misfit[]) => Outcome
): Promise<Outcome> {
	try {
		return { merged: await host.write('applyMerge', asked) }
	} catch (error) {
		if (!(error instanceof AppError)) throw error
		// A refused merge names its misfits in its details.
		return refuse(error.message, error.details['misfits'] as readonly Misfit[] | undefined)
	}
}

async function applyMany(host: Doors, run: ApplyRun, watch: Watch, of: number): Promise<Merged> {
	const { expected: _expected, partly, ...applying } = run
	const first = await host.write('beginApplying', applying)
	let soFar = NOTHING_APPLIED
	let failure: unknown
	try {
		soFar = await inSteps(host, 'applyStep', applying, { watch, doing: 'bringing in', of })
		if (!soFar.ended) failure = new AppError('invalid', 'Stopped. What had come in was taken out again.')
		else if (soFar.misfitCount > 0 && !partly) failure = misfitError(soFar)
	} catch (error) {
		failure = error
	}
	const merged = await host.write('endApplying', { ...applying, soFar, first })
	if (failure === undefined) return merged
	const { plan, actor, now } = applying
	await undoInSteps(host, { table: intoOf(plan).table, actor, now }, (undone) =>
		watch.onProgress('taking out again', undone, of)
	)
	throw failure
}

async function inSteps(
	host: Doors,
	step: 'tryStep' | 'applyStep',
	applying: Applying,
	{ watch, doing, of }: { watch: Watch; doing: Doing; of: number }
): Promise<Applied> {
	let soFar = NOTHING_APPLIED
	const sized = stepSize()
	while (!soFar.ended && !watch.isStopped()) {
		soFar = await sized((atMost) => host.write(step, { ...applying, soFar, atMost }))
		watch.onProgress(doing, soFar.added + soFar.changed + soFar.removed + soFar.misfitCount, of)
	}
	return soFar
}

export async function undoInSteps(
	host: Pick<Threads, 'write'>,
	asked: Omit<UndoStep, 'soFar' | 'atMost'>,
	onProgress: (undone: number) => void = () => undefined
): Promise<Undone> {
	let soFar: Undoing = NOTHING_UNDONE
	const sized = stepSize()
	while (!soFar.ended) {
		soFar = await sized((atMost) => host.write('undoStep', { ...asked, soFar, atMost }))
		onProgress(soFar.undone)
	}
	const { undone, left, leftCount } = soFar
	return { undone, left, leftCount }
}

/** Steps of about this long: what an edit of somebody else may wait, however much hangs on a row of the table. */
const STEP_MS = 15
const ROWS_A_STEP = { first: 50, least: 10, most: 400 }

function stepSize(): <T>(step: (atMost: number) => Promise<T>) => Promise<T> {
	let rows = ROWS_A_STEP.first
	return async (step) => {
		const started = performance.now()
		const result = await step(rows)
		const wanted = (rows * STEP_MS) / (performance.now() - started)
		rows = Math.round(Math.min(Math.max(wanted, ROWS_A_STEP.least), rows * 2, ROWS_A_STEP.most))
		return result
	}
}

function hasChanged(now: Comparison, expected: Comparison): boolean {
	return now.added !== expected.added || now.changed !== expected.changed || now.missing !== expected.missing
}
