/** The released documents that are in force, parsed once for each release. */
import { parseApp, type AppDocument } from '$lib/core/app/document.ts'
import { withSharedLines } from '$lib/core/app/shared-lines.ts'
import { rememberSettled } from '../store/turns.ts'
import type { Store } from '../store/store.ts'

export interface LiveApp {
	readonly id: number
	readonly release: number
	readonly document: AppDocument
}

const LIVE = `SELECT id, live_release AS release FROM app WHERE live_release IS NOT NULL ORDER BY id`
const BODY = `SELECT body FROM release WHERE app = ? AND number = ?`

/** The apps of which a release is in force, each with the document of it as it is shown. */
export function liveApps(store: Store): LiveApp[] {
	return releasesInForce(store).map(({ id, release }) => ({
		id,
		release,
		document: asShown(readRelease(store, id, release))
	}))
}

const releasesInForce = rememberSettled('app', (store) =>
	store.prepare<{ readonly id: number; readonly release: number }>(LIVE).all()
)

/** The same of one app, by its number. */
export function findLiveApp(store: Store, id: number): LiveApp | undefined {
	return liveApps(store).find((app) => app.id === id)
}

/** A document with shared lines in their places; worked out once for each. */
export function asShown(document: AppDocument): AppDocument {
	const known = SHOWN.get(document) ?? withSharedLines(document)
	SHOWN.set(document, known)
	return known
}

const SHOWN = new WeakMap<AppDocument, AppDocument>()

/** The document of one release. It changes only with the names of tables and columns, so it is kept until then. */
export function readRelease(store: Store, app: number, number: number): AppDocument {
	const { version } = store.workspace()
	let { known, at } = PARSED.get(store) ?? { known: new Map<string, AppDocument>(), at: version }
	if (at !== version) [known, at] = [new Map(), version]
	PARSED.set(store, { known, at })
	const key = `${app} ${number}`
	const kept = known.get(key)
	if (kept) return kept
	const body = store.prepare<string>(BODY).pluck().get(app, number)
	if (body === undefined) throw new Error(`Cannot find release "${number}" of app "${app}"`)
	const document = parseApp(body)
	known.set(key, document)
	return document
}

const PARSED = new WeakMap<Store, { known: Map<string, AppDocument>; at: number }>()
