/** A ceiling over what one routine starts: beyond it something went wrong, and somebody should look before more comes of it. */
import { findLiveApp } from '../releases/live.ts'
import { addMessage } from '../queue/messages.ts'
import type { Store } from '../store/store.ts'
import { isPaused, pauseRoutine, type OfRoutine } from './pauses.ts'

/** So many runs of one routine may wait for their turn. */
export const MOST_READY = 10_000

const READY = `
	SELECT count(*) FROM (SELECT 1 FROM run WHERE state = 'ready' AND app = @app AND routine = @routine LIMIT ${MOST_READY})`
const RELEASED_BY = `SELECT made_by FROM release WHERE app = ? AND number = ?`

/** Stops a routine of which too many runs wait, and tells whoever released it; what waits is kept. */
export function stopAtCeiling(store: Store, { app, routine, now }: OfRoutine & { now: number }): void {
	const ready = store.prepare<number>(READY).pluck().get({ app, routine }) ?? 0
	if (ready < MOST_READY || isPaused(store, { app, routine })) return
	const count = MOST_READY.toLocaleString('en-GB')
	const why = `${count} runs of it wait, more than anybody meant. Look at them, cancel what should not be, then let it start again.`
	pauseRoutine(store, { app, routine, why, by: null, now })
	store.touched.add('access')
	const live = findLiveApp(store, app)
	const name = live?.document.routines.find(({ id }) => id === routine)?.name
	const person = live && store.prepare<number>(RELEASED_BY).pluck().get(app, live.release)
	if (name === undefined || person === undefined) return
	const link = `/bench/${app}/routines?routine=${routine}`
	addMessage(store, { cause: `ceiling ${app} ${routine} ${now}`, person, subject: `${name} was stopped`, body: why, link, now }) // prettier-ignore
}
