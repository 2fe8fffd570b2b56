/**
 * Runs that are due, many in one commit, each step in a savepoint of its own.
 *
 * - A refusal by a line or a guard, and a formula that fails, give the run up at once, with the sentence: it stays a no. What the
 *   steps before it did stays done.
 * - A fault of the program is tried again, three times in all.
 * - One run takes few steps at a time, so that the others go on beside one that goes through very many rows.
 */
import { AppError } from '$lib/core/app-error.ts'
import type { Stack } from '$lib/core/routine/program.ts'
import { dropOldFiles } from '../queue/messages.ts'
import { inSavepoint } from '../store/in-savepoint.ts'
import type { Store } from '../store/store.ts'
import { actingOf, refuseUnlessMayAct, type Acting } from './acting.ts'
import { findRoutine, takeStep, type InForce } from './go-on.ts'
import { isPaused, pauseRoutine } from './pauses.ts'
import { dueRuns, forgetOldRuns, keepRun, type Run } from './runs.ts'

const MOST_RUNS = 50
const MOST_STEPS = 50
/** How long others may be kept waiting for the one writer. */
const BATCH_MS = 8
const MOST_TRIES = 3
const PAUSED_MS = 60_000

/** Goes on with what is due; false if nothing is. Called within a transaction. */
export function runRoutines(store: Store, { now }: { now: number }): boolean {
	const due = dueRuns(store, { now, most: MOST_RUNS })
	const until = performance.now() + BATCH_MS
	const known: Known = new Map()
	for (const run of due) {
		goOn(store, run, { now, until, known })
		// Whoever acts may do something else now.
		if (store.touched.has('access')) known.clear()
		if (performance.now() > until) break
	}
	if (due.length > 0) return true
	forgetOldRuns(store, now)
	dropOldFiles(store, now)
	return false
}

interface Slice {
	readonly now: number
	/** Of `performance.now()`. */
	readonly until: number
	readonly known: Known
}

/** As whom runs of one batch act, by their routine, release and person: the same for all of them. */
type Known = Map<string, Acting>

function goOn(store: Store, run: Run, { now, until, known }: Slice): void {
	if (isPaused(store, run))
		return keepRun(store, run.id, { state: 'waiting', dueAt: now + PAUSED_MS, stack: run.stack })
	const inForce = inForceOf(store, run, { now, known })
	if (typeof inForce === 'string') return giveUp(store, run, { stack: run.stack, error: inForce, now })
	let { stack } = run
	for (let taken = 0; stack.length > 0 && taken < MOST_STEPS; taken++) {
		if (taken > 0 && performance.now() > until) break
		const step = inSavepoint(store, () => store.steadily(() => takeStep(store, stack, inForce)))
		if ('thrown' in step) return fail(store, run, { stack, thrown: step.thrown, now })
		;({ stack } = step.value)
		if (step.value.until !== undefined && stack.length > 0)
			return keepRun(store, run.id, { state: 'waiting', dueAt: step.value.until, stack })
	}
	if (stack.length > 0) keepRun(store, run.id, { state: 'ready', dueAt: now, stack })
	else keepRun(store, run.id, { state: 'done', dueAt: now, stack, endedAt: now })
}

/** What it runs and as whom; in words, why it cannot. A routine whose role nobody gives it stops altogether. */
function inForceOf(store: Store, run: Run, { now, known }: Pick<Slice, 'now' | 'known'>): InForce | string {
	const routine = findRoutine(store, run)
	if (!routine) return 'The routine is not in the release that it began with.'
	const key = `${run.app} ${run.release} ${run.routine} ${run.person}`
	const before = known.get(key)
	if (before) return { run, routine, now, acting: before }
	const by = run.person === null ? undefined : { person: run.person }
	const why = refusalOf(() =>
		refuseUnlessMayAct(store, { routine, release: { app: run.app, number: run.release }, by })
	)
	if (why !== undefined) {
		pauseRoutine(store, { ...run, why, by: null, now })
		return why
	}
	let acting: Acting | undefined
	const refused = refusalOf(() => void (acting = actingOf(store, { routine, by, now })))
	if (!acting) return refused ?? ''
	known.set(key, acting)
	return { run, routine, now, acting }
}

function refusalOf(work: () => void): string | undefined {
	try {
		work()
		return undefined
	} catch (thrown) {
		if (thrown instanceof AppError) return thrown.message
		throw thrown
	}
}

function fail(store: Store, run: Run, failed: { stack: Stack; thrown: unknown; now: number }): void {
	const { stack, thrown, now } = failed
	if (thrown instanceof AppError) return giveUp(store, run, { stack, error: thrown.message, now })
	const attempts = run.attempts + 1
	const error = `The program made a mistake here: ${String(thrown)}`
	if (attempts >= MOST_TRIES) return giveUp(store, run, { stack, error, now })
	keepRun(store, run.id, { state: 'waiting', dueAt: now + 1000 * 2 ** attempts, stack, attempts, error })
}

function giveUp(store: Store, run: Run, { stack, error, now }: { stack: Stack; error: string; now: number }): void {
	keepRun(store, run.id, { state: 'given up', dueAt: now, stack, error })
	store.touched.add('access')
}
