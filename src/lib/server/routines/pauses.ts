/** Routines that do not start at present: paused by somebody, or stopped with the reason. Their runs wait. */
import type { Store } from '../store/store.ts'

export interface OfRoutine {
	readonly app: number
	readonly routine: string
}

export interface Pause {
	readonly why: string
	/** Null where it stopped by itself. */
	readonly by: number | null
	readonly at: number
}

const PAUSE = `
	INSERT INTO routine_pause (app, routine, why, by, at) VALUES (@app, @routine, @why, @by, @now)
	ON CONFLICT (app, routine) DO UPDATE SET why = excluded.why, by = excluded.by, at = excluded.at`
/** What stopped by itself may have been mended. */
const FORGET_STOPS = `DELETE FROM routine_pause WHERE app = ? AND by IS NULL`
const GO_ON = `DELETE FROM routine_pause WHERE app = @app AND routine = @routine`
const WAKE = `UPDATE run SET due_at = @now WHERE app = @app AND routine = @routine AND state = 'waiting' AND attempts = 0 AND due_at <= @now + 60000`
const FIND = `SELECT why, by, at FROM routine_pause WHERE app = @app AND routine = @routine`

export function isPaused(store: Store, of: OfRoutine): boolean {
	return findPause(store, of) !== undefined
}

export function findPause(store: Store, { app, routine }: OfRoutine): Pause | undefined {
	return store.prepare<Pause>(FIND).get({ app, routine })
}

/** `why`: in words; blank where somebody paused it. */
export function pauseRoutine(
	store: Store,
	{ app, routine, why, by, now }: OfRoutine & Omit<Pause, 'at'> & { now: number }
): void {
	store.prepare(PAUSE).run({ app, routine, why, by, now })
}

/** With a release, which another may have made: routines that stopped by themselves start again, those that somebody paused do not. */
export function forgetStops(store: Store, app: number): void {
	store.prepare(FORGET_STOPS).run(app)
}

/** What waited in the meantime goes on. */
export function resumeRoutine(store: Store, { app, routine, now }: OfRoutine & { now: number }): void {
	store.prepare(GO_ON).run({ app, routine })
	store.prepare(WAKE).run({ app, routine, now })
	store.touched.add('jobs')
}
