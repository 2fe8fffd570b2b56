/** Starts a routine of the clock once by hand, in earnest: to send a report out of turn, or to see that it works. */
import { AppError } from '$lib/core/app-error.ts'
import { writeHistory } from '../history/history.ts'
import { findLiveApp } from '../releases/live.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { isPaused } from '../routines/pauses.ts'
import { addRun, BY_HAND, lastByHand } from '../routines/runs.ts'
import type { Store } from '../store/store.ts'
import { refuseUnheldRows } from './refuse-unheld-rows.ts'

/** A second press of the same button within this begins nothing. */
const AGAIN_MS = 60_000

/** For a builder who could release it: it acts as it does when its clock strikes. */
export function startNow(
	store: Store,
	{ app, routine: id, actor, now }: ByActor & { app: number; routine: string }
): void {
	refuseUnlessBuilder(store, actor)
	const live = findLiveApp(store, app)
	const routine = live?.document.routines.find((each) => each.id === id)
	if (!live || routine?.start.kind !== 'clock')
		throw new AppError('not_found', 'No routine of a live release starts so. Release it first.')
	const alone = { ...live.document, screens: [], signoffs: [], routines: [routine] }
	refuseUnheldRows(store, alone, undefined, { actor, now })
	if (isPaused(store, { app, routine: id })) throw new AppError('invalid', 'It is paused. Let it start again first.')
	if (lastByHand(store, { app, routine: id }) > now - AGAIN_MS)
		throw new AppError('conflict', 'It was started less than a minute ago. Look at its runs before you start it again.')
	const cause = `${BY_HAND}${app} ${id} ${now}`
	const run = { app, release: live.release, routine: id, cause, person: null, on: undefined, path: [routine.name], now }
	addRun(store, run)
	const entry = { at: now, person: actor.person, through: 'Routines' as const, kind: 'start routine', table: null }
	writeHistory(store, { ...entry, row: null, body: { app, routine: id, name: routine.name } })
	store.touched.add('access')
}
