/** Pictures and films of apps: which there are, and for whom. */
import { AppError } from '$lib/core/app-error.ts'
import { filesOfApp } from '$lib/core/app/files-of-app.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { isBuilder, refuseUnlessBuilder } from '../rights/builders.ts'
import type { Store } from '../store/store.ts'
import { isOpenTo, openApp, type AppPlace } from './open-screen.ts'

const ADD = `
	INSERT INTO app_file (sha, type, size, made_at, made_by) VALUES (@sha, @type, @size, @now, @by)
	ON CONFLICT (sha) DO UPDATE SET made_at = excluded.made_at`
/** Every version of a draft and every release is kept, so that what one of them shows can be put back. */
const DROP_UNUSED = `
	DELETE FROM app_file
	WHERE made_at < @before
		AND NOT EXISTS (SELECT 1 FROM document WHERE kind LIKE 'app %' AND instr(body, app_file.sha) > 0)
		AND NOT EXISTS (SELECT 1 FROM release WHERE instr(body, app_file.sha) > 0)
	RETURNING sha`
const LIES_IN_A_CELL = `SELECT 1 FROM upload WHERE sha = ? LIMIT 1`
const FIND = `SELECT sha, type, size FROM app_file WHERE sha = ?`

export interface KnownAppFile {
	readonly sha: string
	readonly type: string
	readonly size: number
}

/** Notes a file whose bytes are safe on disk. */
export function noteAppFile(store: Store, { actor, now, ...file }: ByActor & KnownAppFile): void {
	refuseUnlessBuilder(store, actor)
	store.prepare(ADD).run({ ...file, now, by: actor.person })
}

/** Files that no app has shown for so long go. */
const RETENTION_MS = 7 * 24 * 3_600_000

/** Forgets files that were given to an app and stand in none, and names those whose bytes nothing knows of any more. */
export function dropUnusedAppFiles(store: Store, { now }: { now: number }): string[] {
	const dropped = store
		.prepare<string>(DROP_UNUSED)
		.pluck()
		.all({ before: now - RETENTION_MS })
	return dropped.filter((sha) => store.prepare(LIES_IN_A_CELL).get(sha) === undefined)
}

/** One that the app shows, for whoever it is open to; any, for a builder on the Bench, where no app is named. */
export function findAppFile(
	store: Store,
	{ sha, place, actor, now }: ByActor & { sha: string; place: AppPlace | undefined }
): KnownAppFile {
	const found = store.prepare<KnownAppFile>(FIND).get(sha)
	const isTheirs = place
		? filesOfApp(openApp(store, place).document).has(sha) && isOpenTo(store, { ...place, actor, now })
		: isBuilder(store, actor)
	if (!found || !isTheirs) throw new AppError('not_found', 'This picture is not there, or not for you to see.')
	return found
}
