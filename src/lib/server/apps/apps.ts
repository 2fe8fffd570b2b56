/** Apps: their drafts, which builders write, and their releases, which staff use. */
import type { AppSummary, SavedDraft } from '$lib/core/requests/bench.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { AppError } from '$lib/core/app-error.ts'
import { parseApp, type AppDocument } from '$lib/core/app/document.ts'
import { applyEdits } from '$lib/core/app/edits/apply-edits.ts'
import type { Edit } from '$lib/core/app/edits/edit.ts'
import { mapFormulas, tablesOf } from '$lib/core/app/walk-app.ts'
import { checkAccess } from '$lib/core/app/check-access.ts'
import { checkApp } from '$lib/core/app/check-app.ts'
import type { Finding } from '$lib/core/document/findings.ts'
import { check } from '$lib/core/formula/check/check.ts'
import { scopeOf } from '$lib/core/formula/check/rename.ts'
import { makeApp, type NewApp } from '$lib/core/app/make-screens.ts'
import { randomUUID } from 'node:crypto'
import { describePerson } from '../rights/accounts.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import { peopleWithApp, tellOfRelease } from '../people/sharing.ts'
import { writeHistory } from '../history/history.ts'
import type { Store } from '../store/store.ts'
import { readRelease } from '../releases/live.ts'
import { findTooDear } from '../derived/formula-cost.ts'
import { brokenExamples } from '../structure/examples.ts'
import { refuseUnheldRows } from './refuse-unheld-rows.ts'
import { indexSorts } from './index-sorts.ts'

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
const ADD_DRAFT = `INSERT INTO document (kind, version, body, made_at, made_by) VALUES (@kind, @version, @body, @now, @by)`
const LAST_RELEASE = `SELECT coalesce(max(number), 0) FROM release WHERE app = ?`
const ADD_RELEASE = `
	INSERT INTO release (app, number, body, made_at, made_by, note)
	VALUES (@app, @number, @body, @now, @by, @note)`
const RELEASES = `SELECT number, made_at AS madeAt, made_by AS by, note FROM release WHERE app = ? ORDER BY number DESC`
const SET_LIVE = `UPDATE app SET live_release = @number, name = @name, colour = @colour WHERE id = @app`

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
	const { catalogue } = store.workspace()
	const chosen = tables.flatMap((id) => catalogue.tables.get(id) ?? [])
	const document = makeApp(app, chosen, () => randomUUID().slice(0, 8))
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

/** Everything to mend or to look at before a release: the document, access, and examples of the tables it uses. */
export function checkDraft(store: Store, { app, now }: { app: number; now: number }): Finding[] {
	const workspace = store.workspace()
	const { document } = readDraft(store, app)
	const used = new Set(tablesOf(document).map(({ table }) => table))
	const broken = brokenExamples(store, now)
		.filter(({ table }) => used.has(table.id))
		.map(({ table, says }): Finding => ({
			weight: 'mistake',
			place: `An example of ${table.name}`,
			message: `${says}. Change the lines at Access, or take the example off there.`
		}))
	const found = [...checkApp(document, workspace), ...broken]
	return [...found, ...findTooDearIn(store, document), ...checkAccess(document, workspace)]
}

/** Conditions and formulas that nobody would wait for. */
function findTooDearIn(store: Store, document: AppDocument): Finding[] {
	const { catalogue } = store.workspace()
	const found: Finding[] = []
	mapFormulas(document, (text, standing, place) => {
		const { table, outer = table } = standing
		const isThere = [table, outer].every((each) => each === undefined || catalogue.tables.has(each))
		const { expr } = isThere ? check(text, scopeOf(standing, catalogue)) : { expr: undefined }
		const wrong = expr && findTooDear(store, expr)
		if (wrong !== undefined) found.push({ weight: 'mistake', place, message: `"${text}" asks for too much. ${wrong}` })
		return text
	})
	return found
}

/** Makes the draft the next numbered release, which staff use from now on. Mistakes keep it back. */
export function releaseApp(
	store: Store,
	{ app, note, tells = false, actor, now }: ByActor & { app: number; note: string; tells?: boolean }
): number {
	refuseUnlessBuilder(store, actor)
	const before = tells ? peopleWithApp(store, app) : undefined
	const mistakes = checkDraft(store, { app, now }).filter((finding) => finding.weight === 'mistake')
	if (mistakes.length > 0)
		throw new AppError('invalid', `${mistakes[0]?.place}: ${mistakes[0]?.message}`, { findings: mistakes })
	const { document, live } = readDraft(store, app)
	refuseUnheldRows(store, document, live === null ? undefined : readRelease(store, app, live), { actor, now })
	const number = Number(store.prepare(LAST_RELEASE).pluck().get(app)) + 1
	store.prepare(ADD_RELEASE).run({ app, number, body: JSON.stringify(document), now, by: actor.person, note })
	setLive(store, { app, number, document, actor, now, kind: 'release' })
	indexSorts(store, document)
	if (before) tellOfRelease(store, { app, number, before, actor, now })
	return number
}

/** Puts an earlier release back. Access is no part of a release, so it stays as it is. */
export function putBackRelease(
	store: Store,
	{ app, number, actor, now }: ByActor & { app: number; number: number }
): void {
	refuseUnlessBuilder(store, actor)
	const document = findRelease(store, { app, number })
	if (!document) throw new AppError('not_found', `There is no release ${number}.`)
	const { tables } = store.workspace().catalogue
	const lost = tablesOf(document).find(({ table }) => !tables.has(table))
	if (lost) throw new AppError('invalid', `${lost.place} needs a table that was taken out. Put the table back first.`)
	setLive(store, { app, number, document, actor, now, kind: 'put back' })
}

function setLive(
	store: Store,
	live: ByActor & { app: number; number: number; document: AppDocument; kind: string }
): void {
	const { app, number, document, actor, now, kind } = live
	store.prepare(SET_LIVE).run({ app, number, name: document.name, colour: document.colour })
	writeHistory(store, {
		at: now,
		person: actor.person,
		through: 'Release',
		kind,
		table: null,
		row: null,
		body: { app, number }
	})
	store.touched.add('access')
}
