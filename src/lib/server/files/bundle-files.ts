/** The pictures, films and grounds of an app in its bundle: their bytes put into it, and taken out of it again. */
import { AppError } from '$lib/core/app-error.ts'
import type { Bundle, SavedBundle } from '$lib/core/app/bundle.ts'
import type { TakenAppFile } from '$lib/core/requests/app-files.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import type { Threads } from '../threads/threads.ts'
import type { MadeBundle } from '../bundles/make-bundle.ts'
import { readBundle } from '../bundles/read-bundle.ts'
import type { GivenAppFile } from './app-files.ts'
import type { FileStore } from './file-store.ts'

type Files = Bundle['files']

interface Holder extends Pick<Threads, 'read' | 'now'> {
	readonly files: Pick<FileStore, 'read'>
	readonly takeAppFile: (given: GivenAppFile) => Promise<TakenAppFile>
}

const KINDS: readonly (readonly [start: string, kind: Files[number]['kind']])[] = [
	['image/', 'picture'],
	['video/', 'film'],
	['application/geo+json', 'ground']
]

/** A bundle as it leaves. What is gone from the disk is left out of it. */
export async function withFiles(
	host: Holder,
	{ bundle, shows, leftOut }: MadeBundle,
	actor: Actor
): Promise<SavedBundle> {
	const files: Files = []
	for (const sha of shows) {
		const { type } = await host.read('appFile', { sha, place: undefined, actor, now: host.now() })
		const kind = KINDS.find(([start]) => type.startsWith(start))?.[1]
		const body = await host.files.read(sha)
		if (kind && body)
			files.push({ sha, kind, base64: Buffer.from(await new Response(body).arrayBuffer()).toString('base64') })
	}
	return { ...bundle, files, leftOut }
}

/** A bundle as it is put in: its files are taken as from any builder, and named anew where that made them otherwise. */
export async function takeFiles(host: Holder, text: string, actor: Actor): Promise<string> {
	const { files, ...bundle } = readBundle(text)
	let taken = JSON.stringify({ ...bundle, files: [] })
	for (const [i, { sha, kind, base64 }] of files.entries()) {
		const body = new Blob([Buffer.from(base64, 'base64')]).stream()
		const { file } = await host.takeAppFile({ kind, name: 'file', body, actor }).catch((thrown: unknown) => {
			if (thrown instanceof AppError) throw new AppError(thrown.code, `File ${i + 1} of the bundle: ${thrown.message}`)
			throw thrown
		})
		taken = taken.replaceAll(sha, file.sha)
	}
	return taken
}
