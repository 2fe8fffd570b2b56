/**
 * Cases of a sign-off from the asking to the decision, each thing that is kept or said of them: a register of requests with
 * their items, asked by Imke once they are ready, waiting on Petra; Osric sees requests by a line of his own.
 */
import { beforeEach, describe, expect, test } from 'vitest'
import type { AppDocument } from '$lib/core/app/document.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import { movesFor, type CaseState, type Move } from '$lib/core/signoff/moves.ts'
import type { LineEntry, WorkspaceDocument } from '$lib/core/workspace/document.ts'
import { editsBetween } from '$lib/core/app/edits/edits-between.ts'
import { addAppFrom, readDraft, saveDraft } from '$lib/server/apps/apps.ts'
import { releaseApp } from '$lib/server/apps/release-app.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { BUILDER } from '$lib/server/rights/system-roles.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readRows } from '$lib/server/rows/read.ts'
import { caseOfRow, countWaiting, decideCase, listCases, readCase } from '$lib/server/signoffs/cases.ts'
import type { Store } from '$lib/server/store/store.ts'
import { saveWorkspace } from '$lib/server/structure/save.ts'
import { oneListApp } from '../support/one-list-app.ts'

const NOW = Date.parse('2026-11-28T12:00:00Z')
const [REQUESTS, WHAT, AMOUNT, WHY, READY, DECIDER] = [3, 30, 31, 32, 33, 34]
const [ITEMS, ITEM, REQUEST, EACH, NOTE] = [4, 40, 41, 42, 43]
const [ASKERS, READERS] = [10, 11]
const [IMKE, OSRIC, PETRA] = [2, 3, 4]

const line = (id: string, table: number, role: number, parts: Partial<LineEntry> = {}): LineEntry => ({
	...{ id, table, role, verbs: ['see', 'add', 'change', 'remove'], where: '', columns: { kind: 'all' } },
	...parts
})
const LINES = [line('r', REQUESTS, ASKERS), line('i', ITEMS, ASKERS), line('o', REQUESTS, READERS, { verbs: ['see'] })]
const TABLES: WorkspaceDocument['tables'] = [
	{
		...{ id: REQUESTS, name: 'requests', keepers: [KEEPER], label: WHAT },
		columns: [
			{ id: WHAT, name: 'what', type: 'text' },
			{ id: AMOUNT, name: 'amount', type: 'whole number' },
			{ id: WHY, name: 'why', type: 'text' },
			{ id: READY, name: 'ready', type: 'yes/no' },
			{ id: DECIDER, name: 'decider', type: 'email' }
		]
	},
	{
		...{ id: ITEMS, name: 'items', keepers: [KEEPER], label: ITEM },
		columns: [
			{ id: ITEM, name: 'item', type: 'text' },
			{ id: REQUEST, name: 'request', type: 'reference', to: REQUESTS, reverseName: 'items' },
			{ id: EACH, name: 'each', type: 'whole number' },
			{ id: NOTE, name: 'note', type: 'text' }
		]
	}
]
const APP: AppDocument = {
	...oneListApp('Spending', REQUESTS, WHAT),
	signoffs: [
		{
			...{ id: 's', name: 'Spend request', table: REQUESTS, where: 'ready', decider: 'decider', columns: [AMOUNT] },
			children: [{ table: ITEMS, column: REQUEST, columns: [EACH] }]
		}
	]
}

let store: Store
let app: number

beforeEach(() => open(LINES))

function open(lines: LineEntry[]): void {
	const roles = [
		{ id: BUILDER, name: 'Builders', includes: [] },
		{ id: ASKERS, name: 'Askers', includes: [] },
		{ id: READERS, name: 'Readers', includes: [] }
	]
	store = openScratch({ now: NOW, roles, lines, tables: TABLES })
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k) VALUES (${IMKE}, 0, 0, 'Imke', 'imke', 'i@x.example', 'i@x.example'),
			(${OSRIC}, 0, 0, 'Osric', 'osric', 'o@x.example', 'o@x.example'), (${PETRA}, 0, 0, 'Petra', 'petra', 'p@x.example', 'p@x.example');
		INSERT INTO role_held (person, role) VALUES (${KEEPER}, ${BUILDER}), (${IMKE}, ${ASKERS}), (${OSRIC}, ${READERS});`)
	const by = { actor: { person: KEEPER }, now: NOW }
	app = addAppFrom(store, { document: APP, ...by })
	releaseApp(store, { app, note: '', ...by })
}

const cellsOf = (values: Record<number, unknown>) =>
	Object.entries(values).map(([column, value]) => ({ column: Number(column), value: value as string }))
const add = (table: number, values: Record<number, unknown>, person = IMKE) =>
	changeRows(store, [{ kind: 'add', table, cells: cellsOf(values) }], {
		...{ actor: { person }, now: NOW, through: 'form' }
	})[0]?.row ?? ''
const set = (row: string, values: Record<number, unknown>, { person = IMKE, now = NOW } = {}) =>
	changeRows(store, [{ kind: 'change', table: REQUESTS, row, cells: cellsOf(values) }], {
		...{ actor: { person }, now, through: 'form' }
	})

/** A request with two items, one of another request beside it; asked for at the time given. */
function ask(what = 'A winch', { now = NOW, decider = 'p@x.example' } = {}): string {
	const row = add(REQUESTS, { [WHAT]: what, [AMOUNT]: 600, [WHY]: 'between us', [DECIDER]: decider })
	const other = add(REQUESTS, { [WHAT]: `Not ${what}`, [AMOUNT]: 1 })
	add(ITEMS, { [ITEM]: 'Drum', [REQUEST]: { id: row }, [EACH]: 400, [NOTE]: 'dear' })
	add(ITEMS, { [ITEM]: 'Rope', [REQUEST]: { id: other }, [EACH]: 9 })
	add(ITEMS, { [ITEM]: 'Hook', [REQUEST]: { id: row }, [EACH]: 200 })
	set(row, { [READY]: true }, { now })
	return row
}

const list = (person: number) => listCases(store, { actor: { person }, now: NOW })
const sheet = (person: number, id: string) => readCase(store, { id, actor: { person }, now: NOW })
const waiting = (person = PETRA) => list(person).waiting[0]?.id ?? ''
function decide(move: Move, over: { id?: string; person?: number; comment?: string; now?: number } = {}): string {
	const { id = waiting(), person = PETRA, comment = '', now = NOW + 1_000 } = over
	const { fingerprint } = sheet(person, id)
	decideCase(store, { id, move, comment, fingerprint, actor: { person }, now })
	return id
}
const all = (query: string) => store.prepare(query).all()
const messages = () => all('SELECT person, subject, body, link FROM message ORDER BY id')
const n = (row: string) => store.ids.fromId(REQUESTS, row) ?? 0

describe('asking', () => {
	test('keeps one case, with who asked, on what, and whom it waits on', () => {
		const row = ask()
		expect(all('SELECT app, table_id, row_n, asked_by, asked_at, waits_on, state FROM signoff_case')).toEqual([
			{ app, table_id: REQUESTS, row_n: n(row), asked_by: IMKE, asked_at: NOW, waits_on: PETRA, state: 'waiting' }
		])
		expect(all(`SELECT at, person, through, table_id, row_n, body FROM history WHERE kind = 'ask'`)).toEqual([
			{
				...{ at: NOW, person: IMKE, through: 'Spend request', table_id: REQUESTS, row_n: n(row) },
				body: JSON.stringify({ case: 1, waitsOn: PETRA })
			}
		])
		expect(countWaiting(store, { person: PETRA })).toBe(1)
		expect(countWaiting(store, { person: IMKE })).toBe(0)
	})

	test('opens the named columns and the label, of the row and of what belongs to it, to the decider alone', () => {
		const row = ask()
		expect(
			all('SELECT person, table_id, row_n, column_id, case_id FROM row_grant ORDER BY table_id, row_n, column_id')
		).toEqual(
			[
				[REQUESTS, n(row), WHAT],
				[REQUESTS, n(row), AMOUNT],
				...[1, 3].flatMap((item) => [ITEM, REQUEST, EACH].map((column) => [ITEMS, item, column]))
			].map(([table_id, row_n, column_id]) => ({ person: PETRA, table_id, row_n, column_id, case_id: 1 }))
		)
		const seen = readRows(store, { person: PETRA }, { table: REQUESTS }, NOW)
		expect(seen.rows.map(({ cells }) => [cells[cellKey(WHAT)], cells[cellKey(AMOUNT)], cells[cellKey(WHY)]])).toEqual([
			['A winch', 600, undefined]
		])
		expect(readRows(store, { person: PETRA }, { table: ITEMS }, NOW).rows).toHaveLength(2)
	})

	test('tells the decider once, and who else sees the page nothing', () => {
		ask()
		expect(messages()).toEqual([
			{
				...{ person: PETRA, subject: 'Spend request: A winch', link: `/waiting/${waiting()}` },
				body: 'Imke asks you to decide A winch. Nothing happens until you do.'
			}
		])
		expect(store.touched.has('access')).toBe(true)
	})

	test('asks no second time while it waits or once it was decided, but again after it was taken back', () => {
		const row = ask()
		const cases = () => store.db.prepare('SELECT count(*) FROM signoff_case').pluck().get()
		expect(() => set(row, { [READY]: true })).toThrow('Closed to changes: this row is waiting on a decision.')
		decide('withdraw', { person: IMKE, id: waiting() })
		set(row, { [AMOUNT]: 700 })
		expect(cases()).toBe(2)
		expect(sheet(PETRA, waiting()).row?.cells[cellKey(AMOUNT)]).toBe(700)
		expect(list(IMKE).asked.map(({ state }) => state)).toEqual(['waiting', 'withdrawn'])
		decide('approve')
		expect(() => set(row, { [AMOUNT]: 800 })).toThrow('Closed to changes: this row has been approved.')
		expect(cases()).toBe(2)
	})

	test('asks once for a row, also where a second sign-off of the app fits it', () => {
		const by = { actor: { person: KEEPER }, now: NOW }
		const second = { ...(APP.signoffs[0] as AppDocument['signoffs'][number]), id: 's2', name: 'Second' }
		const { version, document } = readDraft(store, app)
		saveDraft(store, {
			app,
			version,
			edits: editsBetween(document, { ...document, signoffs: [...APP.signoffs, second] }),
			...by
		})
		releaseApp(store, { app, note: '', ...by })
		ask()
		expect(list(PETRA).waiting.map(({ name }) => name)).toEqual(['Spend request'])
	})

	test.each([
		['nobody@x.example', 'Spend request: nobody is named who could decide this, so it was not sent.'],
		['i@x.example', 'Spend request: this would wait on yourself, and nobody decides their own request.']
	])('is refused where it would wait on %s, and nothing of it stays', (decider, says) => {
		store.db.exec('SAVEPOINT asking')
		expect(() => ask('A winch', { decider })).toThrow(says)
		store.db.exec('ROLLBACK TO asking')
		expect(all('SELECT 1 FROM signoff_case')).toEqual([])
		expect(messages()).toEqual([])
	})
})

describe('the sheet of a case', () => {
	test('holds what was asked about, in the words and rows that its reader sees', () => {
		const row = ask()
		const shown = sheet(PETRA, waiting())
		expect(shown).toMatchObject({
			...{ name: 'Spend request', label: 'A winch', askedBy: 'Imke', askedAt: NOW, decider: 'Petra' },
			...{ state: 'waiting', decidedAt: null, comment: '', moves: ['approve', 'decline'] },
			events: [{ at: NOW, who: 'Imke', what: 'asked for a decision', comment: '' }]
		})
		expect(shown.columns.map(({ name }) => name)).toEqual(['what', 'amount'])
		expect(shown.row?.id).toBe(row)
		expect(shown.row?.cells).toEqual({ [cellKey(WHAT)]: 'A winch', [cellKey(AMOUNT)]: 600 })
		expect(shown.children.map(({ name, columns }) => [name, columns.map((each) => each.name)])).toEqual([
			['items', ['each']]
		])
		expect(shown.children[0]?.rows.map(({ cells }) => cells[cellKey(EACH)])).toEqual([400, 200])
		expect(sheet(IMKE, waiting()).moves).toEqual(['withdraw'])
	})

	test('is there for nobody else, nor under an id that is none', () => {
		ask()
		for (const id of [waiting(), store.ids.toId(0, 999), store.ids.toId(REQUESTS, 1), 'nonsense']) {
			expect(() => sheet(OSRIC, id)).toThrow('This request is not there, or not for you to see.')
		}
		expect(() => sheet(PETRA, store.ids.toId(0, 999))).toThrow('not there')
	})

	test('still opens when a column, or a table of what belonged to it, has gone meanwhile', () => {
		ask()
		const id = waiting()
		const { document } = store.workspace()
		const without = document.tables.map((table) => ({
			...table,
			columns: table.columns.filter((column) => column.id !== AMOUNT && column.id !== EACH)
		}))
		saveWorkspace(store, { ...document, tables: without }, { now: NOW, by: null })
		expect(sheet(PETRA, id).columns.map(({ name }) => name)).toEqual(['what'])
		expect(sheet(PETRA, id).children.map(({ name, columns }) => [name, columns])).toEqual([['items', []]])
		const tables = without.filter((table) => table.id !== ITEMS)
		const lines = document.lines.filter((each) => each.table !== ITEMS)
		saveWorkspace(store, { ...document, tables, lines }, { now: NOW, by: null })
		expect(sheet(PETRA, id)).toMatchObject({ label: 'A winch', children: [] })
		expect(list(PETRA).waiting).toHaveLength(1)
	})

	test('names people by what they are called, and says where somebody has left', () => {
		ask()
		store.db.exec(`DELETE FROM t1 WHERE n = ${IMKE}`)
		expect(sheet(PETRA, waiting())).toMatchObject({ askedBy: 'Somebody who has left', decider: 'Petra' })
	})

	test('calls a row whose label its reader does not see by its table', () => {
		const hidden = { columns: { kind: 'except' as const, columns: [WHAT] } }
		open([line('r', REQUESTS, ASKERS, hidden), line('i', ITEMS, ASKERS)])
		const row = add(REQUESTS, { [WHAT]: 'Secret', [DECIDER]: 'p@x.example' }, KEEPER)
		set(row, { [READY]: true })
		expect(list(IMKE).asked[0]?.label).toBe('a row of requests')
		expect(list(PETRA).waiting[0]?.label).toBe('Secret')
		decide('approve')
		expect(messages().at(-1)).toMatchObject({ person: IMKE, subject: 'a row of requests: approved' })
	})
})

describe('deciding', () => {
	test.each<[Move, CaseState, string, number, number]>([
		['approve', 'approved', 'approved it', PETRA, IMKE],
		['decline', 'declined', 'declined it', PETRA, IMKE],
		['withdraw', 'withdrawn', 'withdrew it', IMKE, PETRA]
	])('%s: kept with its time and comment, written down, and the other one is told', (move, state, what, by, told) => {
		const row = ask()
		const id = waiting()
		store.touched.clear()
		decide(move, { id, person: by, comment: '  As we said.  ' })
		const name = by === PETRA ? 'Petra' : 'Imke'
		expect(sheet(told, id)).toMatchObject({ state, decidedAt: NOW + 1_000, comment: '  As we said.  ', moves: [] })
		expect(sheet(by, id).events).toEqual([
			{ at: NOW, who: 'Imke', what: 'asked for a decision', comment: '' },
			{ at: NOW + 1_000, who: name, what, comment: '  As we said.  ' }
		])
		const [entry] = all(
			`SELECT at, person, through, kind, table_id, row_n, body FROM history ORDER BY seq DESC LIMIT 1`
		)
		expect(entry).toMatchObject({ at: NOW + 1_000, person: by, through: 'Spend request', kind: state, row_n: n(row) })
		expect(JSON.parse((entry as { body: string }).body)).toMatchObject({
			...{ case: 1, comment: '  As we said.  ', fingerprint: expect.stringMatching(/^[0-9a-f]{64}$/) }
		})
		expect(messages().slice(1)).toEqual([
			{
				...{ person: told, subject: `A winch: ${state}`, link: `/waiting/${id}` },
				body: `${name} has ${state} A winch.\n\n“As we said.”`
			}
		])
		expect([...store.touched]).toEqual(expect.arrayContaining([REQUESTS, 'access']))
		expect(list(PETRA)).toMatchObject({ waiting: [], decided: [{ id, state }], asked: [] })
		expect(list(IMKE)).toMatchObject({ waiting: [], decided: [], asked: [{ id, state }] })
	})

	test('without a comment nothing is quoted', () => {
		ask()
		decide('approve', { comment: '  ' })
		expect(messages().at(-1)).toMatchObject({ body: 'Petra has approved A winch.' })
	})

	test.each([
		['the row', `UPDATE t3 SET c31 = 900 WHERE n = 1`],
		['a row that belongs to it', `UPDATE t4 SET c42 = 900 WHERE n = 3`],
		['which rows belong to it', `UPDATE t4 SET c41 = 2 WHERE n = 3`]
	])('is refused where %s has changed since it was shown; taking it back is not', (_, change) => {
		ask()
		const id = waiting()
		const { fingerprint } = sheet(PETRA, id)
		store.db.exec(change)
		const decision = { id, comment: '', fingerprint, now: NOW }
		for (const move of ['approve', 'decline'] as const) {
			expect(() => decideCase(store, { ...decision, move, actor: { person: PETRA } })).toThrow(
				'What you were shown has changed since.'
			)
		}
		expect(sheet(PETRA, id).state).toBe('waiting')
		decideCase(store, { ...decision, move: 'withdraw', actor: { person: IMKE } })
		expect(sheet(PETRA, id).state).toBe('withdrawn')
	})

	test('what is not shown may change meanwhile', () => {
		ask()
		const id = waiting()
		const { fingerprint } = sheet(PETRA, id)
		store.db.exec(`UPDATE t3 SET c32 = 'other' WHERE n = 1; UPDATE t4 SET c43 = 'other' WHERE n = 1`)
		decideCase(store, { id, move: 'approve', comment: '', fingerprint, actor: { person: PETRA }, now: NOW })
		expect(sheet(PETRA, id).state).toBe('approved')
	})

	test.each<[string, Move, number, string]>([
		['by who asked', 'approve', IMKE, 'This has been kept for somebody else already.'],
		['taken back by who decides', 'withdraw', PETRA, 'This has been kept for somebody else already.']
	])('is refused %s', (_, move, person, says) => {
		ask()
		expect(() => decide(move, { person, id: waiting() })).toThrow(says)
		expect(list(PETRA).waiting).toHaveLength(1)
	})

	test('once only', () => {
		ask()
		const id = decide('decline')
		for (const [move, person] of [['approve', PETRA] as const, ['withdraw', IMKE] as const]) {
			expect(() => decide(move, { id, person })).toThrow('This has been declined already.')
		}
		expect(messages()).toHaveLength(2)
	})

	test('never by looking as somebody', () => {
		ask()
		const id = waiting()
		const { fingerprint } = sheet(PETRA, id)
		const actor = { person: PETRA, lookedAtBy: KEEPER }
		expect(() => decideCase(store, { id, move: 'approve', comment: '', fingerprint, actor, now: NOW })).toThrow(
			'This is the Lookout: nothing is decided in it.'
		)
	})
})

describe('lists of cases', () => {
	test('what waits stands oldest first; what was decided or asked, newest first', () => {
		for (const [what, at] of [['B', 2], ['A', 1], ['C', 3]] as const) ask(what, { now: NOW + at }) // prettier-ignore
		const labels = (cases: readonly { label: string }[]) => cases.map((each) => each.label)
		expect(labels(list(PETRA).waiting)).toEqual(['A', 'B', 'C'])
		expect(labels(list(IMKE).asked)).toEqual(['C', 'B', 'A'])
		const ids = new Map(list(PETRA).waiting.map((each) => [each.label, each.id]))
		for (const [what, at] of [['C', 10], ['A', 12], ['B', 11]] as const)
			decide('approve', { id: ids.get(what) ?? '', now: NOW + at }) // prettier-ignore
		expect(labels(list(PETRA).decided)).toEqual(['A', 'B', 'C'])
		expect(list(PETRA).decided[0]).toMatchObject({ askedAt: NOW + 1, decidedAt: NOW + 12, state: 'approved' })
		expect(list(OSRIC)).toEqual({ waiting: [], decided: [], asked: [] })
	})
})

describe('the case of a row', () => {
	const of = (person: number, row: string) => caseOfRow(store, { table: REQUESTS, n: n(row), actor: { person } })

	test('is none where nobody was asked, or it was taken back', () => {
		const row = ask()
		expect(of(OSRIC, add(REQUESTS, { [WHAT]: 'Another' }))).toBeNull()
		decide('withdraw', { person: IMKE, id: waiting() })
		expect(of(IMKE, row)).toBeNull()
	})

	test('tells its state to whoever sees the row, the way to it only to who asked or decides', () => {
		const row = ask()
		const id = waiting()
		const waits = { state: 'waiting', name: 'Spend request', decider: 'Petra', decidedAt: null, comment: '' }
		expect(of(OSRIC, row)).toEqual({ ...waits, link: null })
		for (const person of [IMKE, PETRA]) expect(of(person, row)).toEqual({ ...waits, link: `/waiting/${id}` })
		decide('decline', { comment: 'No.' })
		const declined = { ...waits, state: 'declined', decidedAt: NOW + 1_000 }
		expect(of(OSRIC, row)).toEqual({ ...declined, link: null })
		expect(of(IMKE, row)).toEqual({ ...declined, comment: 'No.', link: `/waiting/${id}` })
	})
})

describe('moves', () => {
	const who = { decides: true, asked: false }
	test.each<CaseState>(['approved', 'declined', 'withdrawn'])('there are none once it is %s', (state) => {
		expect(movesFor(state, who)).toEqual([])
		expect(movesFor(state, { decides: false, asked: true })).toEqual([])
	})
})
