/** Pictures and films of apps: which there are, and for whom. */
import { AppError } from '$lib/core/app-error.ts'
import { filesOfApp } from '$lib/core/app/files-of-app.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { isBuilder, refuseUnlessBuilder } from '../rights/builders.ts'
import type { Store } from '../store/store.ts'
import { isOpenTo, openApp, type AppPlace } from './open-screen.ts'

const ADD = `
	INSERT INTO app_file (sha, type, size, made_at, made_by) VALUES (@sha, @type, @size, @now, @by)
	ON CONFLICT (sha) DO NOTHING`
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
