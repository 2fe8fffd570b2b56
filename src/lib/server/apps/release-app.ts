/** Releasing a draft, and putting an earlier release back: what staff use from then on. */
import type { AppDocument } from '$lib/core/app/document.ts'
import { tablesOf } from '$lib/core/app/walk-app.ts'
import { AppError } from '$lib/core/app-error.ts'
import { writeHistory } from '../history/history.ts'
import { peopleWithApp, tellOfRelease } from '../people/sharing.ts'
import { readRelease } from '../releases/live.ts'
import { setClocks } from '../routines/clocks.ts'
import { forgetStops } from '../routines/pauses.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import { findRelease, readDraft, readVersion } from './apps.ts'
import { checkDraft } from './check-draft.ts'
import { indexSorts } from './index-sorts.ts'
import { refuseUnheldRows } from './refuse-unheld-rows.ts'

const LAST_RELEASE = `SELECT coalesce(max(number), 0) FROM release WHERE app = ?`
const ADD_RELEASE = `
	INSERT INTO release (app, number, body, made_at, made_by, note)
	VALUES (@app, @number, @body, @now, @by, @note)`
const SET_LIVE = `UPDATE app SET live_release = @number, name = @name, colour = @colour WHERE id = @app`

export interface Releasing extends ByActor {
	readonly app: number
	/** What has changed, in its maker's words. */
	readonly note: string
	/** Whether those who get the app by it are told. */
	readonly tells?: boolean | undefined
	/** Of the draft; the newest, if left out. */
	readonly version?: number | undefined
}

/** Makes the draft the next numbered release, which staff use from now on. Mistakes keep it back. */
export function releaseApp(store: Store, { app, note, tells = false, version, actor, now }: Releasing): number {
	refuseUnlessBuilder(store, actor)
	const before = tells ? peopleWithApp(store, app) : undefined
	const mistakes = checkDraft(store, { app, version, now }).filter((finding) => finding.weight === 'mistake')
	if (mistakes.length > 0)
		throw new AppError('invalid', `${mistakes[0]?.place}: ${mistakes[0]?.message}`, { findings: mistakes })
	const { document: newest, live } = readDraft(store, app)
	const document = version === undefined ? newest : readVersion(store, { app, version })
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
	forgetStops(store, app)
	setClocks(store, { app, now })
	store.touched.add('access')
}
