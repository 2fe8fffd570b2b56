/**
 * Whatever a builder has judged, counted, worked out or sent stays within what that builder holds: in trials of conditions,
 * lines, defaults, the Lookout, and every formula of every routine and sign-off. Jory keeps vessels; payments and people are
 * kept by somebody else, and Jory sees neither payments nor phone numbers.
 */
import { beforeEach, describe, expect, test } from 'vitest'
import { AppError } from '$lib/core/app-error.ts'
import type { AppDocument, Signoff } from '$lib/core/app/document.ts'
import type { Routine } from '$lib/core/routine/routine.ts'
import { editsBetween } from '$lib/core/app/edits/edits-between.ts'
import { addAppFrom, readDraft, saveDraft } from '$lib/server/apps/apps.ts'
import { releaseApp } from '$lib/server/apps/release-app.ts'
import { KEEPER, openScratch, PEOPLE_TABLE } from '../support/scratch-store.ts'
import { openAsMe } from '$lib/server/people/open-as-me.ts'
import { BUILDER } from '$lib/server/rights/system-roles.ts'
import { readRows } from '$lib/server/rows/read.ts'
import { pressButton } from '$lib/server/routines/press-button.ts'
import type { Store } from '$lib/server/store/store.ts'
import { tryCondition } from '$lib/server/review/bench.ts'
import { changeColumn } from '$lib/server/structure/change-columns.ts'
import { noteRefusal, refuseGuessing } from '$lib/server/history/note-refusal.ts'
import { readAccess } from '$lib/server/review/read-access.ts'
import { saveLines } from '$lib/server/structure/tables.ts'
import { oneListApp } from '../support/one-list-app.ts'
import { seeLine } from '../support/see-line.ts'

const NOW = Date.parse('2026-11-28T12:00:00Z')
const [VESSELS, NAME, HOLDER, PHONE_OF, MINE] = [2, 20, 21, 22, 23]
const [PAYMENTS, VESSEL, AMOUNT] = [3, 30, 31]
const PHONE = 9
const FINANCE = 10
const [JORY, PETRA, IMKE] = [2, 3, 4]
const UNHELD = /of which you do not see every row/

let store: Store
const jory = { person: JORY }
const by = { actor: jory, now: NOW }

beforeEach(() => {
	store = openScratch({
		now: NOW,
		peopleColumns: [{ id: PHONE, name: 'phone', type: 'phone' }],
		roles: [
			{ id: BUILDER, name: 'Builders', includes: [] },
			{ id: FINANCE, name: 'Finance', includes: [] }
		],
		lines: [
			seeLine(PEOPLE_TABLE)('n', BUILDER, '', [PHONE]),
			seeLine(VESSELS)('v', FINANCE, ''),
			seeLine(PAYMENTS)('p', FINANCE, '')
		],
		tables: [
			{
				id: VESSELS,
				name: 'vessels',
				keepers: [JORY],
				label: NAME,
				columns: [
					{ id: NAME, name: 'name', type: 'text' },
					{ id: HOLDER, name: 'holder', type: 'reference', to: PEOPLE_TABLE, reverseName: 'vessels' },
					{ id: PHONE_OF, name: 'number', type: 'phone' },
					{ id: MINE, name: 'rings', type: 'computed', formula: 'number = me.phone' }
				]
			},
			{
				id: PAYMENTS,
				name: 'payments',
				keepers: [KEEPER],
				label: AMOUNT,
				columns: [
					{ id: VESSEL, name: 'vessel', type: 'reference', to: VESSELS, reverseName: 'payments' },
					{ id: AMOUNT, name: 'amount', type: 'money' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k, c9, c9k) VALUES
			(${JORY}, 0, 0, 'Jory', 'jory', 'jory@varrow.example', 'jory@varrow.example', '0700', '0700'),
			(${PETRA}, 0, 0, 'Petra', 'petra', 'petra@varrow.example', 'petra@varrow.example', '0701', '0701'),
			(${IMKE}, 0, 0, 'Imke', 'imke', 'imke@varrow.example', 'imke@varrow.example', '0702', '0702');
		INSERT INTO role_held (person, role) VALUES (${JORY}, ${BUILDER}), (${PETRA}, ${FINANCE}), (${IMKE}, ${FINANCE});
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21, c22, c22k) VALUES (1, 0, 0, 'Heron', 'heron', ${IMKE}, '0702', '0702'), (2, 0, 0, 'Gannet', 'gannet', ${PETRA}, '0701', '0701');
		INSERT INTO t3 (n, made_at, changed_at, c30, c31) VALUES (1, 0, 0, 1, 50000)`)
})

describe('a condition that is tried', () => {
	const counted = (actor: { person: number }, text: string) =>
		tryCondition(store, { actor, now: NOW, table: VESSELS, text, people: [PETRA], me: true })

	test('counts for others within what its writer sees', () => {
		expect(counted(jory, 'SUM(payments.amount) > 400').people).toEqual([{ name: 'Petra', rows: 0 }])
		expect(counted(jory, 'name = "Heron"').people).toEqual([{ name: 'Petra', rows: 1 }])
		store.db.exec(`INSERT INTO role_held (person, role) VALUES (${JORY}, ${FINANCE})`)
		expect(counted(jory, 'SUM(payments.amount) > 400').people).toEqual([{ name: 'Petra', rows: 1 }])
	})

	test.each(['number = me.phone', 'rings', 'me.phone = "0701"'])('counts nobody by a phone number: %s', (text) => {
		expect(counted(jory, text)).toMatchObject({ people: [], unheld: 'people, phone' })
	})

	test('counts by a column that a steward opened, or that its writer sees', () => {
		openAsMe(store, { column: PHONE, open: true, actor: { person: KEEPER }, now: NOW })
		expect(counted(jory, 'number = me.phone').people).toEqual([{ name: 'Petra', rows: 1 }])
		openAsMe(store, { column: PHONE, open: false, actor: { person: KEEPER }, now: NOW })
		expect(counted(jory, 'number = me.phone').people).toEqual([])
	})

	test('only stewards open a column', () => {
		expect(() => openAsMe(store, { column: PHONE, open: true, ...by })).toThrow('Only stewards')
	})
})

describe('lines, checks and defaults', () => {
	const line = (where: string) => [seeLine(VESSELS)('new', FINANCE, where)]
	const save = (where: string) =>
		saveLines(store, { table: VESSELS, lines: line(where), version: store.workspace().version, ...by })

	test.each(['number = me.phone', 'rings', 'COUNT(payments) > 0', 'holder.phone = "0702"'])('not by %s', (where) => {
		expect(() => save(where)).toThrow(UNHELD)
		expect(() => readAccess(store, { table: VESSELS, draft: line(where), ...by })).toThrow(UNHELD)
	})

	test('by what is held, and by what a steward opened', () => {
		expect(() => save('name = "Heron"')).not.toThrow()
		openAsMe(store, { column: PHONE, open: true, actor: { person: KEEPER }, now: NOW })
		expect(() => save('number = me.phone')).not.toThrow()
		openAsMe(store, { column: PHONE, open: false, actor: { person: KEEPER }, now: NOW })
		// What is in force stays as it is; something else may not be made of it.
		expect(() => save('number = me.phone')).not.toThrow()
		expect(() => save('number <> me.phone')).toThrow(UNHELD)
	})

	test('a default fills no table with phone numbers', () => {
		const words = { otherwise: 'me.phone' }
		expect(() => changeColumn(store, { table: VESSELS, column: PHONE_OF, words, ...by })).toThrow(UNHELD)
	})
})

describe('the Lookout', () => {
	const names = (actor: { person: number; lookedAtBy?: number }, where: string) =>
		readRows(store, actor, { table: VESSELS, where: [where] }, NOW).rows.length
	const asImke = { person: IMKE, lookedAtBy: JORY }

	test.each(['number = me.phone', 'rings', 'LEFT(me.phone; 3) = "070"'])(
		'says nothing of a phone number: %s',
		(where) => {
			expect(names({ person: IMKE }, where)).toBeGreaterThan(0)
			expect(names(asImke, where)).toBe(0)
		}
	)

	test('shows a computed column as if the number were blank, and rows by lines as they are', () => {
		const cell = (actor: { person: number; lookedAtBy?: number }) =>
			readRows(store, actor, { table: VESSELS }, NOW).rows.map((row) => row.cells[`c${MINE}`])
		expect(cell({ person: IMKE })).toEqual([true, false])
		expect(cell(asImke)).toEqual([false, false])
	})

	test('says it to who sees that person’s number, and of nobody else', () => {
		const document = store.workspace().document
		expect(document.lines.length).toBe(3)
		store.db.exec(
			`INSERT INTO row_grant (person, table_id, row_n, column_id, case_id) VALUES (${JORY}, ${PEOPLE_TABLE}, ${IMKE}, ${PHONE}, 1)`
		)
		store.db.exec('UPDATE access_epoch SET n = n + 1')
		expect(names(asImke, 'number = me.phone')).toBe(1)
		expect(names({ person: PETRA, lookedAtBy: JORY }, 'number = me.phone')).toBe(0)
	})
})

describe('a release', () => {
	const SECRETS = ['SUM(payments.amount) > 400', 'LEFT(holder.phone; 2) = "07"']
	const routine = (parts: Partial<Routine>): Routine => ({
		id: 'r',
		name: 'Tell',
		start: { kind: 'button', table: VESSELS },
		steps: [],
		...parts
	})
	const send = { id: 's', kind: 'send' as const, to: 'holder', subject: 'Hello', body: 'Hello' }
	const signoff = (parts: Partial<Signoff>): Signoff => ({
		...{ id: 'g', name: 'Ask', table: VESSELS, where: '', decider: 'holder', columns: [NAME], children: [] },
		...parts
	})
	const rows = { kind: 'rows' as const, table: VESSELS, when: 'added' as const, where: '' }
	const PLACES: readonly [string, (secret: string) => Partial<AppDocument>][] = [
		[
			'to, by a button',
			(secret) => ({ routines: [routine({ steps: [{ ...send, to: `IF(${secret}; "a@b.example"; "")` }] })] })
		],
		[
			'subject, by a button',
			(secret) => ({ routines: [routine({ steps: [{ ...send, subject: `So {${secret}}` }] })] })
		],
		['body, by a button', (secret) => ({ routines: [routine({ steps: [{ ...send, body: `So {${secret}}` }] })] })],
		[
			'a column that is set',
			(secret) => ({
				routines: [routine({ steps: [{ id: 't', kind: 'set', column: NAME, formula: `IF(${secret}; "a"; "b")` }] })]
			})
		],
		['when, by rows', (secret) => ({ routines: [routine({ start: { ...rows, where: secret }, steps: [send] })] })],
		[
			'to, by rows',
			(secret) => ({
				routines: [routine({ start: rows, steps: [{ ...send, to: `IF(${secret}; "a@b.example"; "")` }] })]
			})
		],
		[
			'body, by rows',
			(secret) => ({ routines: [routine({ start: rows, steps: [{ ...send, body: `So {${secret}}` }] })] })
		],
		['when, of a sign-off', (secret) => ({ signoffs: [signoff({ where: secret })] })],
		['decider, of a sign-off', (secret) => ({ signoffs: [signoff({ decider: `IF(${secret}; "a@b.example"; "")` })] })]
	]
	let app: number

	beforeEach(() => {
		app = addAppFrom(store, { document: oneListApp('Vessels', VESSELS, NAME), ...by })
	})
	const release = (parts: Partial<AppDocument>) => {
		const { version, document } = readDraft(store, app)
		saveDraft(store, { app, version, edits: editsBetween(document, { ...document, ...parts }), ...by })
		return releaseApp(store, { app, note: '', ...by })
	}

	test.each(PLACES.flatMap(([place, make]) => SECRETS.map((secret) => [place, secret, make] as const)))(
		'of a formula that reads more than its builder holds is refused: %s, %s',
		(_place, secret, make) => {
			expect(() => release(make(secret))).toThrow(UNHELD)
			expect(() => release(make('name = "Heron"'))).not.toThrow()
		}
	)

	test('of a column set to what somebody’s own row says is refused', () => {
		const step = { id: 't', kind: 'set' as const, column: PHONE_OF, formula: 'me.phone' }
		expect(() => release({ routines: [routine({ steps: [step] })] })).toThrow(UNHELD)
	})

	test('what is live already may be released again as it is, and not in another place', () => {
		const live = routine({ steps: [{ ...send, body: 'So {SUM(payments.amount)}' }] })
		store.db.exec(`INSERT INTO role_held (person, role) VALUES (${JORY}, ${FINANCE})`)
		release({ routines: [live] })
		store.db.exec(`DELETE FROM role_held WHERE person = ${JORY} AND role = ${FINANCE}`)
		expect(() => release({ about: 'again', routines: [live] })).not.toThrow()
		expect(() => release({ routines: [{ ...live, id: 'other' }] })).toThrow(UNHELD)
	})
})

describe('a button that only sends', () => {
	const press = (actor: { person: number }, row: string) => {
		const steps = [{ id: 's', kind: 'send' as const, to: 'holder', subject: 'Hello', body: 'Hello' }]
		const routine: Routine = { id: 'r', name: 'Tell', start: { kind: 'button', table: PAYMENTS }, steps }
		pressButton(store, { app: 1, release: 1, routine, row, actor, now: NOW })
	}
	const jobs = () => store.prepare('SELECT count(*) FROM run').pluck().get()

	test('does nothing on a row that its presser does not see, and answers as if there were none', () => {
		const row = store.ids.toId(PAYMENTS, 1)
		const answers = [row, store.ids.toId(PAYMENTS, 77), store.ids.toId(VESSELS, 1), 'x'].map((id) => {
			try {
				press(jory, id)
				return 'done'
			} catch (error) {
				return String(error)
			}
		})
		expect(new Set(answers)).toEqual(new Set(['AppError: This row is not there, or not for you to see.']))
		expect(jobs()).toBe(0)
		press({ person: PETRA }, row)
		expect(jobs()).toBe(1)
	})

	test('sends no more than anybody presses by hand', () => {
		const row = store.ids.toId(PAYMENTS, 1)
		const pressed = Array.from({ length: 200 }, () => {
			try {
				press({ person: IMKE }, row)
				return true
			} catch {
				return false
			}
		})
		expect(pressed.filter(Boolean)).toHaveLength(120)
	})
})

test('who asks for many rows that are not theirs is slowed, and nobody else is', () => {
	const asked = (person: number, now = NOW) => ({ table: VESSELS, actor: { person }, now })
	const missed = (person: number) =>
		noteRefusal(store, asked(person), new AppError('not_found', 'This row is not there.'))
	for (let i = 0; i < 60; i++) {
		expect(() => refuseGuessing(asked(77))).not.toThrow()
		missed(77)
	}
	expect(() => refuseGuessing(asked(77))).toThrow('too many rows')
	expect(() => refuseGuessing(asked(78))).not.toThrow()
	expect(() => refuseGuessing(asked(77, NOW + 16 * 60_000))).not.toThrow()
})
