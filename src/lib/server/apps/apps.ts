/** Apps: their drafts, which builders write, and what of them was released. */
import type { AppSummary, SavedDraft } from '$lib/core/requests/bench.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { AppError } from '$lib/core/app-error.ts'
import { parseApp, type AppDocument } from '$lib/core/app/document.ts'
import { applyEdits } from '$lib/core/app/edits/apply-edits.ts'
import type { Edit } from '$lib/core/app/edits/edit.ts'
import { makeApp, type NewApp } from '$lib/core/app/made/make-app.ts'
import { randomUUID } from 'node:crypto'
import { describePerson } from '../rights/accounts.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import { writeHistory } from '../history/history.ts'
import type { Store } from '../store/store.ts'
import { readRelease } from '../releases/live.ts'
import { listTables } from '../review/bench.ts'

export interface Draft {
	readonly id: number
	readonly version: number
	readonly document: AppDocument
	readonly live: number | null
	readonly ahead: boolean
}

export interface ReleaseEntry {
	readonly number: number
	readonly madeAt: number
	readonly madeBy: string
	readonly note: string
}

const LIST = `SELECT id, live_release AS live FROM app ORDER BY id`
const FIND = `SELECT id, live_release AS live FROM app WHERE id = ?`
const ADD = `INSERT INTO app (name, colour, made_at, made_by) VALUES (@name, @colour, @now, @by)`
const LAST_DRAFT = `SELECT version, body FROM document WHERE kind = ? ORDER BY version DESC LIMIT 1`
const VERSION = `SELECT body FROM document WHERE kind = @kind AND version = @version`
const ADD_DRAFT = `INSERT INTO document (kind, version, body, made_at, made_by) VALUES (@kind, @version, @body, @now, @by)`
const RELEASES = `SELECT number, made_at AS madeAt, made_by AS by, note FROM release WHERE app = ? ORDER BY number DESC`

/** All apps with the name and look of their live release, or of their draft where there is none. */
export function listApps(store: Store): AppSummary[] {
	const rows = store.prepare<{ id: number; live: number | null }>(LIST).all()
	return rows.map(({ id }) => {
		const { document, live, ahead } = readDraft(store, id)
		const shown = live === null ? document : readRelease(store, id, live)
		return { id, name: shown.name, about: shown.about, colour: shown.colour, icon: shown.icon, live, ahead }
	})
}

/** The newest draft of an app. Throws `not_found`. */
export function readDraft(store: Store, app: number): Draft {
	const found = store.prepare<{ id: number; live: number | null }>(FIND).get(app)
	const last = store.prepare<{ version: number; body: string }>(LAST_DRAFT).get(`app ${app}`)
	if (!found || !last) throw new AppError('not_found', 'This app is not there.')
	const document = parseApp(last.body)
	const released = found.live === null ? undefined : readRelease(store, app, found.live)
	const ahead = !released || JSON.stringify(released) !== JSON.stringify(document)
	return { id: app, version: last.version, document, live: found.live, ahead }
}

/** What a draft said in one of its versions; `not_found` where there is none. */
export function readVersion(store: Store, { app, version }: { app: number; version: number }): AppDocument {
	const body = store
		.prepare<string>(VERSION)
		.pluck()
		.get({ kind: `app ${app}`, version })
	if (body === undefined) throw new AppError('not_found', 'This version of the draft is not there.')
	return parseApp(body)
}

/** The newest release first. */
export function listReleases(store: Store, app: number): ReleaseEntry[] {
	const rows = store.prepare<{ number: number; madeAt: number; by: number; note: string }>(RELEASES).all(app)
	return rows.map(({ by, ...rest }) => ({ ...rest, madeBy: describePerson(store, by)?.name ?? '' }))
}

/** What a release says; null for a number that has none. */
export function findRelease(store: Store, { app, number }: { app: number; number: number }): AppDocument | null {
	const isThere = listReleases(store, app).some((release) => release.number === number)
	return isThere ? readRelease(store, app, number) : null
}

/** Makes an app with screens for the chosen tables and gives its number; refused to who builds nothing. */
export function addApp(
	store: Store,
	{ app, tables, actor, now }: ByActor & { app: NewApp; tables: readonly number[] }
): number {
	refuseUnlessBuilder(store, actor)
	// By what its builder holds of them.
	const all = listTables(store, { actor, now })
	const document = makeApp(app, { chosen: tables, all, newId: () => randomUUID().slice(0, 8) })
	return addAppFrom(store, { document, actor, now })
}

/** Adds an app that is written out already, for the demo and for files; asks nobody. */
export function addAppFrom(store: Store, { document, actor, now }: ByActor & { document: AppDocument }): number {
	const { name, colour } = document
	const id = Number(store.prepare(ADD).run({ name, colour, now, by: actor.person }).lastInsertRowid)
	writeDraft(store, { app: id, version: 1, document, by: actor.person, now })
	writeHistory(store, {
		at: now,
		person: actor.person,
		through: 'Bench',
		kind: 'make app',
		table: null,
		row: null,
		body: { app: id, name }
	})
	store.touched.add('access')
	return id
}

export interface SavingDraft extends ByActor {
	readonly app: number
	/** The version that was changed; another builder may have saved meanwhile. */
	readonly version: number
	readonly edits: readonly Edit[]
}

/**
 * Puts a builder's edits into the newest draft, whichever that is. One that would undo what another builder did meanwhile is a
 * `conflict`, with the draft as it is; a gap in the document is `invalid`. All of them go in, or none.
 */
export function saveDraft(store: Store, { app, version, edits, actor, now }: SavingDraft): SavedDraft {
	refuseUnlessBuilder(store, actor)
	const current = readDraft(store, app)
	const others = current.version === version ? null : current.document
	if (edits.length === 0) return { version: current.version, document: others }
	const applied = applyEdits(current.document, edits)
	if (!applied.ok && applied.conflict)
		throw new AppError('conflict', 'Another builder has changed the same place meanwhile. Theirs stands.', {
			version: current.version,
			document: current.document
		})
	if (!applied.ok)
		throw new AppError('invalid', 'This draft has a gap that cannot be kept. Undo the last change.', {
			issues: applied.issues
		})
	const next = current.version + 1
	writeDraft(store, { app, version: next, document: applied.document, by: actor.person, now })
	store.touched.add(`draft ${app}`)
	return { version: next, document: others && applied.document }
}

function writeDraft(
	store: Store,
	draft: { app: number; version: number; document: AppDocument; by: number; now: number }
): void {
	const { app, version, document, by, now } = draft
	store.prepare(ADD_DRAFT).run({ kind: `app ${app}`, version, body: JSON.stringify(document), now, by })
}
