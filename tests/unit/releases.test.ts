/** Releases at a set time, who gains and loses screens by one, and the document of an app as a file. */
import { beforeEach, describe, expect, test } from 'vitest'
import type { AppDocument, ScreenInput } from '$lib/core/app/document.ts'
import { editsBetween } from '$lib/core/app/edits/edits-between.ts'
import { addAppFrom, listReleases, readDraft, saveDraft } from '$lib/server/apps/apps.ts'
import { compareDocument, putDocument } from '$lib/server/apps/document-file.ts'
import { releaseApp } from '$lib/server/apps/release-app.ts'
import { screensGained } from '$lib/server/apps/screens-gained.ts'
import { callOffRelease, plannedRelease, planRelease } from '$lib/server/apps/timed-release.ts'
import { queueState, runInsideJob } from '$lib/server/jobs/run-jobs.ts'
import { BUILDER } from '$lib/server/rights/system-roles.ts'
import type { Store } from '$lib/server/store/store.ts'
import { BERTHS, CODE, documentOf, IMKE, NOW, openPorts } from '../support/ports.ts'
import { KEEPER } from '../support/scratch-store.ts'

const HOUR = 3_600_000
const by = { actor: { person: KEEPER }, now: NOW }

let store: Store
let app: number

const list = (parts: object = {}): NonNullable<ScreenInput['lines']>[number] => ({
	...{ id: 'l', kind: 'list', table: BERTHS, where: '', sort: [], columns: [CODE], opens: null },
	...parts
})

beforeEach(() => {
	store = openPorts()
	store.db.prepare(`INSERT INTO role_held (person, role) VALUES (?, ?)`).run(KEEPER, BUILDER)
	app = addAppFrom(store, { document: documentOf([list()]), ...by })
	releaseApp(store, { app, note: 'First', ...by })
})

function write(document: AppDocument): void {
	const current = readDraft(store, app)
	saveDraft(store, { app, version: current.version, edits: editsBetween(current.document, document), ...by })
}

const renamed = (title: string, parts: object = {}): AppDocument => {
	const document = documentOf([list(parts)])
	return { ...document, screens: document.screens.map((screen) => ({ ...screen, title })) }
}
const live = () => {
	const released = listReleases(store, app)
	const { number } = store.db.prepare(`SELECT live_release AS number FROM app WHERE id = ?`).get(app) as {
		number: number
	}
	const body = store.db.prepare(`SELECT body FROM release WHERE app = ? AND number = ?`).pluck().get(app, number)
	return [released.length, (JSON.parse(String(body)) as AppDocument).screens[0]?.title]
}
const run = (now: number) => store.db.transaction(() => runInsideJob(store, { worker: 'w', now }))()
const messages = () => store.db.prepare(`SELECT person, subject, body FROM message ORDER BY id`).all() as { person: number; subject: string; body: string }[] // prettier-ignore

describe('a release at a set time', () => {
	test('is made then, of the version that was looked at', () => {
		write(renamed('Looked at'))
		planRelease(store, { app, note: 'Soon', at: NOW + HOUR, ...by })
		expect(plannedRelease(store, { app })).toEqual({ at: NOW + HOUR, by: 'Keeper', note: 'Soon', version: 2 })
		expect(queueState(store).nextAt).toBe(NOW + HOUR)
		write(renamed('Written since'))
		expect(run(NOW + HOUR - 1)).toBe(false)
		expect(live()).toEqual([1, 'S'])
		expect(run(NOW + HOUR)).toBe(true)
		expect(live()).toEqual([2, 'Looked at'])
		expect(listReleases(store, app)[0]).toMatchObject({ number: 2, note: 'Soon', madeBy: 'Keeper', madeAt: NOW + HOUR })
		expect(plannedRelease(store, { app })).toBeNull()
		expect(run(NOW + 2 * HOUR)).toBe(false)
	})

	test('that another takes the place of, or that is called off, is not made', () => {
		write(renamed('Once'))
		planRelease(store, { app, note: 'Once', at: NOW + HOUR, ...by })
		write(renamed('Twice'))
		planRelease(store, { app, note: 'Twice', at: NOW + 2 * HOUR, ...by })
		expect(run(NOW + HOUR)).toBe(false)
		expect(plannedRelease(store, { app })?.note).toBe('Twice')
		callOffRelease(store, { app, ...by })
		expect(run(NOW + 3 * HOUR)).toBe(false)
		expect(live()).toEqual([1, 'S'])
	})

	test('that cannot be made then is said to its maker, and changes nothing', () => {
		write(renamed('Planned'))
		planRelease(store, { app, note: '', at: NOW + HOUR, ...by })
		// Its maker builds no more.
		store.db.prepare(`DELETE FROM role_held WHERE person = ? AND role = ?`).run(KEEPER, BUILDER)
		expect(run(NOW + HOUR)).toBe(true)
		expect(live()).toEqual([1, 'S'])
		expect(messages()).toEqual([
			{ person: KEEPER, subject: 'Quay was not released', body: expect.stringContaining('waits with you') }
		])
		expect(store.pluck(`SELECT count(*) FROM job WHERE task = 'release' AND done_at IS NULL`)).toBe(0)
	})

	test('does not take the place of one that was made meanwhile', () => {
		write(renamed('Planned'))
		planRelease(store, { app, note: '', at: NOW + HOUR, ...by })
		write(renamed('By hand'))
		releaseApp(store, { app, note: 'At once', ...by })
		expect(run(NOW + HOUR)).toBe(true)
		expect(live()).toEqual([2, 'By hand'])
		expect(messages()[0]?.body).toContain('Another release was made meanwhile')
	})

	test.each([
		['in the past', NOW, 'still to come'],
		['further off than a year', NOW + 400 * 86_400_000, 'within a year'],
		['at no time', Number.NaN, 'still to come']
	])('%s is none', (_what, at, message) => {
		expect(() => planRelease(store, { app, note: '', at, ...by })).toThrow(message)
	})

	test('of what has mistakes, or by who builds nothing, is not planned', () => {
		write(renamed('Wrong', { columns: [99] }))
		expect(() => planRelease(store, { app, note: '', at: NOW + HOUR, ...by })).toThrow('no longer in berths')
		const other = { actor: { person: IMKE }, now: NOW }
		expect(() => planRelease(store, { app, note: '', at: NOW + HOUR, ...other })).toThrow('builder')
		expect(plannedRelease(store, { app })).toBeNull()
	})
})

test('who gains and loses screens is said by name, and what is for nobody', () => {
	const { screens, ...rest } = documentOf([list()])
	const [screen] = screens
	if (!screen) throw new Error('Expected a screen')
	const [CREW] = [10]
	const lines = (id: string) => screen.lines.map((line) => ({ ...line, id }))
	write({
		...rest,
		screens: [
			{ ...screen, who: [CREW] },
			{ ...screen, id: 't', title: 'All berths', lines: lines('l2') },
			{ ...screen, id: 'u', title: 'Nothing', lines: [] }
		]
	})
	expect(screensGained(store, { app, ...by })).toEqual({
		changes: [
			{ title: 'S', gains: [], loses: ['Bo', 'Keeper'] },
			{ title: 'All berths', gains: ['Bo', 'Imke', 'Keeper'], loses: [] }
		],
		forNobody: ['Nothing']
	})
})

describe('the document of an app as a file', () => {
	const asFile = (document: unknown) =>
		JSON.stringify({ $schema: 'http://x.example/schema/app.json', ...(document as object) })

	test('comes back as it was, and says before what it would change', () => {
		const { document } = readDraft(store, app)
		expect(compareDocument(store, { app, text: asFile(document), ...by }).parts).toEqual([])
		const text = asFile(renamed('From a file'))
		const { parts } = compareDocument(store, { app, text, ...by })
		expect(parts.map(({ place }) => place)).toEqual(['Screen From a file'])
		expect(readDraft(store, app).version).toBe(1)
		expect(putDocument(store, { app, text, ...by })).toEqual({ version: 2, document: null })
		expect(readDraft(store, app).document).toEqual(renamed('From a file'))
		// As an older program wrote it.
		const old = {
			...renamed('Old'),
			format: 2,
			screens: [{ id: 's', title: 'Old', lines: [{ ...list(), sort: null }] }]
		}
		putDocument(store, { app, text: asFile(old), ...by })
		expect(readDraft(store, app).document.screens[0]?.lines[0]).toMatchObject({ kind: 'list', sort: [] })
	})

	test.each([
		['{', 'it is no JSON'],
		['[]', 'format'],
		['null', 'it cannot be read'],
		['{"format": 99}', 'format "99"'],
		[JSON.stringify({ ...documentOf([]), name: 7 }), 'name: '],
		[JSON.stringify({ ...documentOf([]), screens: [{ id: 's', title: 'S', lines: [{ id: 'x', kind: 'list' }] }] }), 'screens 1 lines 1'] // prettier-ignore
	])('%s is refused with its place', (text, message) => {
		expect(() => putDocument(store, { app, text, ...by })).toThrow(message)
		expect(readDraft(store, app).version).toBe(1)
	})

	test('is put in by builders alone', () => {
		const given = { app, text: asFile(renamed('Theirs')), actor: { person: IMKE }, now: NOW }
		expect(() => putDocument(store, given)).toThrow('builder')
		expect(() => compareDocument(store, given)).toThrow('builder')
	})
})
