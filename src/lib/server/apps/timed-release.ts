/**
 * Releases at a set time: of the version that was looked at, checked again then, under the rights that their maker has then. One
 * that cannot be made is said to its maker, and waits with them.
 */
import { AppError } from '$lib/core/app-error.ts'
import type { PlannedRelease } from '$lib/core/requests/bench.ts'
import { addMessage } from '../queue/messages.ts'
import { addJob, payloadOf, type Job } from '../queue/queue.ts'
import { describePerson } from '../rights/accounts.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import { listReleases, readDraft } from './apps.ts'
import { checkDraft } from './check-draft.ts'
import { releaseApp, type Releasing } from './release-app.ts'

const PLANNED = `SELECT id, run_at AS at, payload FROM job WHERE task = 'release' AND done_at IS NULL ORDER BY run_at`
const DROP = `UPDATE job SET done_at = @now, last_error = 'called off' WHERE id = @id AND done_at IS NULL`
/** Whoever plans further ahead has mistyped the year. */
const FURTHEST_MS = 366 * 86_400_000

/** Plans the release of the newest draft; a planned one of the same app is called off. `at`: epoch ms. */
export function planRelease(store: Store, { at, ...asked }: Omit<Releasing, 'version'> & { at: number }): void {
	const { app, note, tells = false, actor, now } = asked
	refuseUnlessBuilder(store, actor)
	if (!(at > now) || at - now > FURTHEST_MS)
		throw new AppError('invalid', 'Choose a time that is still to come, within a year.')
	const [first] = checkDraft(store, { app, now }).filter(({ weight }) => weight === 'mistake')
	if (first) throw new AppError('invalid', `${first.place}: ${first.message}`)
	callOffRelease(store, { app, actor, now })
	const { version } = readDraft(store, app)
	addJob(store, 'release', { app, version, after: newestOf(store, app), note, tells, person: actor.person }, at)
}

export function callOffRelease(store: Store, { app, actor, now }: ByActor & { app: number }): void {
	refuseUnlessBuilder(store, actor)
	for (const { id } of planned(store, app)) store.prepare(DROP).run({ id, now })
	store.touched.add('jobs')
}

/** The one that is planned for an app. */
export function plannedRelease(store: Store, { app }: { app: number }): PlannedRelease | null {
	const [found] = planned(store, app)
	if (!found) return null
	const { at, given } = found
	return { at, by: describePerson(store, given.person)?.name ?? '', note: given.note, version: given.version }
}

/** Makes a planned release; what keeps it back is said to its maker. Called where a refusal can be undone. */
export function runReleaseJob(store: Store, job: Job<'release'>, now: number): void {
	const { app, version, after, note, tells, person } = payloadOf(job)
	store.db.exec('SAVEPOINT timed_release')
	try {
		// What was looked at then would take the place of what was looked at later.
		if (newestOf(store, app) !== after)
			throw new AppError('conflict', 'Another release was made meanwhile. Look at the draft again, and release it.')
		releaseApp(store, { app, version, note, tells, actor: { person }, now })
		store.db.exec('RELEASE timed_release')
	} catch (thrown) {
		store.db.exec('ROLLBACK TO timed_release; RELEASE timed_release')
		if (!(thrown instanceof AppError)) throw thrown
		const { name } = readDraft(store, app).document
		addMessage(store, {
			cause: `timed release ${job.id}`,
			person,
			subject: `${name} was not released`,
			body: `The release of ${name} that you had planned for now was not made, and waits with you.\n\n${thrown.message}`,
			link: `/bench/${app}/release`,
			now
		})
	}
}

/** The number of the last release; 0 where there is none. */
function newestOf(store: Store, app: number): number {
	return listReleases(store, app)[0]?.number ?? 0
}

function planned(store: Store, app: number) {
	const rows = store.prepare<{ id: number; at: number; payload: string }>(PLANNED).all()
	return rows
		.map(({ id, at, payload }) => ({ id, at, given: payloadOf({ task: 'release', payload }) }))
		.filter(({ given }) => given.app === app)
}
