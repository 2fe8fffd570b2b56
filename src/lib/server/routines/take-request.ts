/** A request of another program, its signature checked: begins the run of the routine that it asks for, once for each key of its work. */
import { createHash } from 'node:crypto'
import { AppError } from '$lib/core/app-error.ts'
import { takenBy } from '$lib/core/routine/held-values.ts'
import type { Routine } from '$lib/core/routine/routine.ts'
import { readRequest } from '$lib/core/signing/request-values.ts'
import { nameKey } from '$lib/core/text/key.ts'
import { findLiveApp } from '../releases/live.ts'
import { sealId } from '../store/sealed-ids.ts'
import type { Store } from '../store/store.ts'
import { addRun } from './runs.ts'

export interface Request {
	readonly app: number
	/** The id of the routine. */
	readonly routine: string
	readonly program: { readonly id: number; readonly name: string }
	readonly idempotencyKey: string
	readonly body: string
	readonly now: number
}

const SEEN = `SELECT digest, run FROM request_seen WHERE program = @program AND idempotency_key = @key`
const NOTE = `INSERT INTO request_seen (program, idempotency_key, digest, run, at) VALUES (@program, @key, @digest, @run, @now)`
const FORGET = `DELETE FROM request_seen WHERE (program, idempotency_key) IN
	(SELECT program, idempotency_key FROM request_seen WHERE at < ? LIMIT 100)`

const KEPT_MS = 30 * 86_400_000
const MOST_KEY = 200

/** The name of the run for the outside. The same request again gives the same; the same key for something else is refused. */
export function takeRequest(
	store: Store,
	{ app, routine: id, program, idempotencyKey: key, body, now }: Request
): string {
	const live = findLiveApp(store, app)
	const routine = live?.document.routines.find((each) => each.id === id)
	if (!live || !routine || !asks(routine, program.name))
		throw new AppError('not_found', 'Nothing is asked for at this address by this program.')
	if (key === '' || key.length > MOST_KEY)
		throw new AppError('invalid', `Idempotency-Key is a name for this piece of work, of at most ${MOST_KEY} letters.`)
	const digest = createHash('sha256').update(`${app} ${id} ${body}`).digest('hex')
	const seen = store.prepare<{ digest: string; run: number }>(SEEN).get({ program: program.id, key })
	if (seen && seen.digest !== digest)
		throw new AppError('invalid', 'This Idempotency-Key was used for something else. Take a new one for new work.')
	if (seen) return sealId(store, 'run', seen.run)
	const read = readRequest(takenBy(routine), body)
	if ('why' in read) throw new AppError('invalid', read.why)
	const held = Object.fromEntries(Object.entries(read.values).map(([name, value]) => [nameKey(name), value]))
	const begun = {
		app,
		release: live.release,
		routine: id,
		person: null,
		on: undefined,
		path: [routine.name],
		held,
		now
	}
	const run = addRun(store, { ...begun, cause: `request ${program.id} ${key}` })
	if (run === undefined) throw new AppError('conflict', 'This piece of work was begun already.')
	store.prepare(NOTE).run({ program: program.id, key, digest, run, now })
	store.prepare(FORGET).run(now - KEPT_MS)
	return sealId(store, 'run', run)
}

function asks({ start }: Routine, name: string): boolean {
	return start.kind === 'request' && nameKey(start.from) === nameKey(name)
}
