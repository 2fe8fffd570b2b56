/** Starters: each is whole, passes the check, is open to the role that works with it, and is found by what it is for. */
import { beforeEach, describe, expect, test } from 'vitest'
import { allLines } from '$lib/core/app/lines/tree.ts'
import { STARTERS } from '$lib/core/app/starters/all.ts'
import { findStarters } from '$lib/core/app/starters/find-starters.ts'
import { readDraft } from '$lib/server/apps/apps.ts'
import { checkDraft } from '$lib/server/apps/check-draft.ts'
import { openScreen } from '$lib/server/apps/open-screen.ts'
import { releaseApp } from '$lib/server/apps/release-app.ts'
import { startFrom } from '$lib/server/apps/start-from.ts'
import { BUILDER } from '$lib/server/rights/system-roles.ts'
import type { Store } from '$lib/server/store/store.ts'
import { NOW } from '../support/ports.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'

const [CREW, IMKE, UNA] = [10, 2, 3]
const by = { actor: { person: KEEPER }, now: NOW }

let store: Store

beforeEach(() => {
	store = openScratch({ now: NOW, roles: [{ id: CREW, name: 'Crew', includes: [] }], tables: [] })
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (${IMKE}, 0, 0, 'Imke', 'imke'), (${UNA}, 0, 0, 'Una', 'una');
		INSERT INTO role_held (person, role) VALUES (${KEEPER}, ${BUILDER}), (${IMKE}, ${CREW})`)
})

const start = (starter: string, role = CREW) => startFrom(store, { starter, name: 'New', about: '', role, ...by })

describe.each(STARTERS.map(({ id, name }) => [name, id]))('%s', (_name, id) => {
	test('is released as it is, and opens for who works with it and for nobody else', () => {
		const app = start(id)
		expect(checkDraft(store, { app, now: NOW }).filter(({ weight }) => weight === 'mistake')).toEqual([])
		releaseApp(store, { app, note: '', ...by })
		for (const screen of readDraft(store, app).document.screens) {
			// Those of one row are opened from it.
			if (screen.lines[0]?.kind === 'record') continue
			const asked = { app, draft: false, screen: screen.id, now: NOW }
			const kinds = openScreen(store, { ...asked, actor: { person: IMKE } }).screen?.lines.map(({ kind }) => kind)
			expect(kinds?.length, screen.title).toBeGreaterThan(0)
			expect(() => openScreen(store, { ...asked, actor: { person: UNA } }), screen.title).toThrow('not for you to see')
		}
	})

	test('can be begun twice, with tables of its own', () => {
		const [first, second] = [start(id), start(id)]
		const tables = (app: number) =>
			new Set(readDraft(store, app).document.screens.flatMap(({ lines }) => allLines(lines).flatMap((line) => ('table' in line ? [line.table] : [])))) // prettier-ignore
		expect([...tables(first)].filter((table) => tables(second).has(table))).toEqual([])
		const names = store.workspace().document.tables.map(({ name }) => name)
		expect(new Set(names).size).toBe(names.length)
	})
})

test('its rows are known by what is typed, never by what they point to', () => {
	for (const { id } of STARTERS) start(id)
	const labels = store
		.workspace()
		.document.tables.map(({ label, columns }) => columns.find((each) => each.id === label))
	expect(labels.map((column) => column?.type)).not.toContain('reference')
})

test('has the marks, the counting, the sign-off and the questions that its job asks for', () => {
	const kinds = (id: string) =>
		readDraft(store, start(id)).document.screens.flatMap(({ lines }) => allLines(lines).map(({ kind }) => kind))
	expect(kinds('stock')).toEqual(expect.arrayContaining(['tally', 'mark', 'chart']))
	expect(kinds('visits')).toEqual(expect.arrayContaining(['steps', 'ask', 'answer']))
	expect(kinds('jobs')).toEqual(expect.arrayContaining(['board', 'calendar', 'map']))
	expect(kinds('inspections')).toEqual(expect.arrayContaining(['mark', 'chart', 'map']))
	expect(readDraft(store, start('requests')).document.signoffs.map(({ decider }) => decider)).toEqual(['Asked of'])
})

test('is refused without a role that is there, by who builds nothing, and by a name that is none; nothing of it stays', () => {
	const tables = store.workspace().document.tables.length
	const begin = (over: object) =>
		store.db.transaction(() =>
			startFrom(store, { starter: 'jobs', name: 'New', about: '', role: CREW, ...by, ...over })
		)
	expect(begin({ role: 99 })).toThrow('which role')
	expect(begin({ starter: 'ships' })).toThrow('not there any more')
	expect(begin({ actor: { person: IMKE } })).toThrow('builder')
	// Refused at its very end, with the tables made by then.
	expect(begin({ name: '' })).toThrow('name')
	store.forget()
	expect(store.workspace().document.tables.length).toBe(tables)
})

test.each([
	['what has run short on the shelf', 'stock'],
	['approval of purchases', 'requests'],
	['safety checks', 'inspections'],
	['kiosk for visitors', 'visits'],
	['phone numbers', 'directory'],
	['jobs on a map', 'jobs']
])('"%s" finds it', (typed, id) => {
	expect(findStarters(typed)[0]?.id).toBe(id)
})

test('nothing finds all, and what is none of them finds none', () => {
	expect(findStarters(' ').length).toBe(STARTERS.length)
	expect(findStarters('quantum')).toEqual([])
})
