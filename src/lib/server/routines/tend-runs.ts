/** What a builder does with routines and their runs: pausing, going on, trying a run again, cancelling it. */
import { AppError } from '$lib/core/app-error.ts'
import { findLiveApp } from '../releases/live.ts'
import { writeHistory } from '../history/history.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import { pauseRoutine, resumeRoutine } from './pauses.ts'
import { openId } from '../store/sealed-ids.ts'
import { findRun, keepRun, type Run } from './runs.ts'

interface OfRun extends ByActor {
	readonly app: number
	/** As the outside knows it. */
	readonly run: string
}

/** Goes on from the step at which it was given up, as the routine was when it began. */
export function tryRunAgain(store: Store, { app, run: sealed, actor, now }: OfRun): void {
	const run = getRun(store, { app, run: sealed, actor, now })
	if (run.state !== 'given up' || run.stack.length === 0)
		throw new AppError('conflict', 'This run was not given up at a step. Load the page again.')
	keepRun(store, run.id, { state: 'ready', dueAt: now, stack: run.stack })
	store.touched.add('jobs')
	note(store, run, 'try run again', { actor, now })
}

/** Ends a run where it stands; what it did stays done. */
export function cancelRun(store: Store, { app, run: sealed, actor, now }: OfRun): void {
	const run = getRun(store, { app, run: sealed, actor, now })
	if (run.state === 'done' || run.state === 'cancelled')
		throw new AppError('conflict', 'This run has ended already. Load the page again.')
	keepRun(store, run.id, { state: 'cancelled', dueAt: now, stack: run.stack, endedAt: now })
	note(store, run, 'cancel run', { actor, now })
}

/** Keeps a routine from starting; what would have started by the clock is passed over, runs that are under way wait. */
export function setRoutineOn(
	store: Store,
	{ app, routine, on, actor, now }: ByActor & { app: number; routine: string; on: boolean }
): void {
	refuseUnlessBuilder(store, actor)
	const found = findLiveApp(store, app)?.document.routines.find(({ id }) => id === routine)
	if (!found) throw new AppError('not_found', 'This routine is in no live release.')
	if (on) resumeRoutine(store, { app, routine, now })
	else pauseRoutine(store, { app, routine, why: '', by: actor.person, now })
	const entry = {
		at: now,
		person: actor.person,
		through: 'Routines' as const,
		kind: on ? 'routine on' : 'pause routine'
	}
	writeHistory(store, { ...entry, table: null, row: null, body: { app, routine, name: found.name } })
	store.touched.add('access')
}

function getRun(store: Store, { app, run, actor }: OfRun): Run {
	refuseUnlessBuilder(store, actor)
	const id = openId(store, 'run', run)
	const found = id === undefined ? undefined : findRun(store, id)
	if (found?.app !== app) throw new AppError('not_found', 'This run is not there.')
	return found
}

function note(store: Store, run: Run, kind: string, { actor, now }: ByActor): void {
	const entry = { at: now, person: actor.person, through: 'Routines' as const, kind, table: run.table, row: run.row }
	writeHistory(store, { ...entry, body: { app: run.app, run: run.id, routine: run.routine } })
	store.touched.add('access')
}
