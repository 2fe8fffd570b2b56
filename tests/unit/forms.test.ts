/**
 * Forms from the inside: what their conditions come to for whoever fills them in, what may be chosen, and that what is sent goes in
 * whole or not at all. A quay of two ports: Imke (of North) sees the berths of her port, but not what is owed on them; Bo sees all.
 */
import { beforeEach, describe, expect, test } from 'vitest'
import { APP_FORMAT, appSchema, type AppDocument, type AppInput, type ScreenInput } from '$lib/core/app/document.ts'
import type { CellChange } from '$lib/core/query/change.ts'
import type { LineEntry } from '$lib/core/workspace/document.ts'
import { addAppFrom } from '$lib/server/apps/apps.ts'
import { releaseApp } from '$lib/server/apps/release-app.ts'
import { judgeFilled, offerChoices, sendForm, type FilledForm } from '$lib/server/apps/forms/fill-form.ts'
import { openScreen } from '$lib/server/apps/open-screen.ts'
import { BUILDER } from '$lib/server/rights/system-roles.ts'
import { listCases, readCase } from '$lib/server/signoffs/cases.ts'
import type { Store } from '$lib/server/store/store.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'

const NOW = Date.parse('2026-11-29T12:00:00Z')
const [BERTHS, CODE, PORT, OWED, NICK] = [2, 20, 21, 22, 23]
const [REQUESTS, WHAT, BERTH, AMOUNT, WHY, SECRET] = [3, 30, 31, 32, 33, 34]
const [ITEMS, ITEM, REQUEST, QUANTITY, EACH] = [4, 40, 41, 42, 43]
const [CREW, BOSSES] = [10, 11]
const [IMKE, BO] = [2, 3]

const line = (id: string, table: number, role: number, parts: Partial<LineEntry> = {}): LineEntry => ({
	...{ id, table, role, verbs: ['see', 'add', 'change'], where: '', columns: { kind: 'all' } },
	...parts
})

const LINES = [
	line('b', BERTHS, CREW, { where: 'port = me.port', columns: { kind: 'except', columns: [OWED] } }),
	line('r', REQUESTS, CREW, { columns: { kind: 'except', columns: [SECRET] } }),
	line('i', ITEMS, CREW),
	...[BERTHS, REQUESTS, ITEMS].map((table) => line(`x${table}`, table, BOSSES))
]

type FormInput = Extract<ScreenInput['lines'][number], { kind: 'form' }>

let store: Store
let app: number

function open(form: Partial<FormInput>, parts: Partial<AppInput> = {}, lines = LINES): void {
	store = openScratch({
		now: NOW,
		peopleColumns: [{ id: 3, name: 'port', type: 'text' }],
		roles: [
			{ id: BUILDER, name: 'Builders', includes: [] },
			{ id: CREW, name: 'Crew', includes: [] },
			{ id: BOSSES, name: 'Bosses', includes: [] }
		],
		lines,
		tables: [
			{
				...{ id: BERTHS, name: 'berths', keepers: [KEEPER], label: CODE },
				columns: [
					{ id: CODE, name: 'code', type: 'text' },
					{ id: PORT, name: 'port', type: 'text' },
					{ id: OWED, name: 'owed', type: 'money' },
					{ id: NICK, name: 'nick', type: 'text' }
				]
			},
			{
				...{ id: REQUESTS, name: 'requests', keepers: [KEEPER], label: WHAT },
				columns: [
					{ id: WHAT, name: 'what', type: 'text', required: true },
					{ id: BERTH, name: 'berth', type: 'reference', to: BERTHS },
					{ id: AMOUNT, name: 'amount', type: 'money' },
					{ id: WHY, name: 'why', type: 'long text' },
					{ id: SECRET, name: 'secret', type: 'text' }
				]
			},
			{
				...{ id: ITEMS, name: 'items', keepers: [KEEPER], label: ITEM },
				columns: [
					{ id: ITEM, name: 'item', type: 'text', required: true },
					{ id: REQUEST, name: 'request', type: 'reference', to: REQUESTS, reverseName: 'items' },
					{ id: QUANTITY, name: 'quantity', type: 'whole number' },
					{ id: EACH, name: 'each', type: 'money' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c3, c3k) VALUES (2, 0, 0, 'Imke', 'imke', 'North', 'north'), (3, 0, 0, 'Bo', 'bo', 'South', 'south');
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21, c21k, c22) VALUES
			(1, 0, 0, 'N1', 'n1', 'North', 'north', 90000), (2, 0, 0, 'N2', 'n2', 'North', 'north', 0), (3, 0, 0, 'S1', 's1', 'South', 'south', 0);
		INSERT INTO role_held (person, role) VALUES (1, ${BUILDER}), (2, ${CREW}), (3, ${BOSSES})`)
	const document: AppDocument = appSchema.parse({
		...{ format: APP_FORMAT, name: 'Quay', about: '', colour: 'sea', routines: [], signoffs: [] },
		screens: [
			{
				...{ id: 's', title: 'Ask' },
				lines: [{ id: 'f', kind: 'form', table: REQUESTS, columns: [WHAT, AMOUNT], thanks: '', ...form }]
			}
		],
		...parts
	} satisfies AppInput)
	app = addAppFrom(store, { document, actor: { person: KEEPER }, now: NOW })
	releaseApp(store, { app, note: '', actor: { person: KEEPER }, now: NOW })
}

const filled = (cells: readonly CellChange[], more: Partial<FilledForm> = {}): FilledForm => ({
	...{ app, draft: false, screen: 's', line: 'f', actor: { person: IMKE }, now: NOW, cells, items: {} },
	...more
})
const berth = (n: number) => ({ column: BERTH, value: { id: store.ids.toId(BERTHS, n) } })
const rows = (table: number) =>
	store.db.prepare(`SELECT * FROM t${table} ORDER BY n`).all() as Record<string, unknown>[]
const shownForm = (person = IMKE) =>
	openScreen(store, { app, draft: false, actor: { person }, now: NOW }).screen?.lines.find(
		({ kind }) => kind === 'form'
	)

describe('conditions of entries', () => {
	beforeEach(() =>
		open({
			lines: [
				{ id: 'e1', kind: 'entry', column: BERTH },
				{ id: 'e2', kind: 'entry', column: WHY, when: 'amount > 100', must: 'amount > 500' },
				{ id: 'e3', kind: 'entry', column: AMOUNT, unless: 'amount > 0', says: 'More than nothing.' },
				{ id: 's1', kind: 'shown', value: 'amount * 2', label: 'Twice' },
				{ id: 's2', kind: 'shown', value: 'berth.owed', label: 'Owed' }
			]
		})
	)

	test.each([
		['nothing', [], { unasked: ['e2'], must: [], refused: {}, shown: { s1: '', s2: '' } }],
		['a little', [{ column: AMOUNT, value: 40 }], { unasked: ['e2'], must: [], refused: {} }],
		['more', [{ column: AMOUNT, value: 250.5 }], { unasked: [], must: [], shown: { s1: '£501.00', s2: '' } }],
		['much', [{ column: AMOUNT, value: 501 }], { unasked: [], must: ['e2'] }],
		['too little', [{ column: AMOUNT, value: -1 }], { refused: { e3: 'More than nothing.' } }],
		['what cannot be read', [{ column: AMOUNT, value: 'lots' }], { unasked: ['e2'], refused: {} }]
	] satisfies [string, CellChange[], object][])('after %s', (_what, cells, verdict) => {
		expect(judgeFilled(store, filled(cells))).toMatchObject(verdict)
	})

	test('read what whoever fills it in sees, and no more', () => {
		const bo = { actor: { person: BO } }
		expect(judgeFilled(store, filled([berth(1)], bo)).shown['s2']).toBe('£900.00')
		expect(judgeFilled(store, filled([berth(1)])).shown['s2']).toBe('')
		// Another port's berth is no berth for Imke.
		expect(judgeFilled(store, filled([berth(3)])).shown['s2']).toBe('')
	})

	test('are judged again when it is sent, and nothing goes in', () => {
		const what = { column: WHAT, value: 'A winch' }
		expect(() => sendForm(store, filled([what, { column: AMOUNT, value: -1 }]))).toThrow('More than nothing.')
		expect(() => sendForm(store, filled([what, { column: AMOUNT, value: 900 }]))).toThrow('why must be filled in.')
		store.db.exec('DELETE FROM t3')
		sendForm(store, filled([what, { column: AMOUNT, value: 40 }, { column: WHY, value: 'typed before' }]))
		expect(rows(REQUESTS)).toMatchObject([{ c30: 'A winch', c32: 4000, c33: null }])
	})

	test('nothing is taken that it does not ask for', () => {
		sendForm(store, filled([{ column: WHAT, value: 'A winch' }, { column: SECRET, value: 'x' }], { actor: { person: BO } })) // prettier-ignore
		expect(rows(REQUESTS)).toMatchObject([{ c34: null }])
	})
})

test('what was typed is its writer’s to read, also in a column that they see nowhere', () => {
	const seen = line('r', REQUESTS, CREW, { verbs: ['see'], columns: { kind: 'except', columns: [WHAT] } })
	const added = line('a', REQUESTS, CREW, { verbs: ['add'] })
	open({ lines: [{ id: 'e', kind: 'entry', column: WHY, when: 'what = "boat"' }] }, {}, [seen, added])
	expect(judgeFilled(store, filled([{ column: WHAT, value: 'boat' }])).unasked).toEqual([])
	expect(judgeFilled(store, filled([{ column: WHAT, value: 'car' }])).unasked).toEqual(['e'])
})

describe('what an entry offers', () => {
	beforeEach(() =>
		open({
			lines: [
				{ id: 'e1', kind: 'entry', column: WHY },
				{ id: 'e2', kind: 'entry', column: BERTH, from: 'port = this.why' }
			]
		})
	)
	const offered = (cells: readonly CellChange[], starts = '', person = BO) =>
		offerChoices(store, { ...filled(cells, { actor: { person } }), entry: 'e2', starts, own: [] }).map(
			({ label }) => label
		)

	test('follows what was filled in before', () => {
		expect(offered([{ column: WHY, value: 'North' }])).toEqual(['N1', 'N2'])
		expect(offered([{ column: WHY, value: 'North' }], 'n2')).toEqual(['N2'])
		expect(offered([{ column: WHY, value: 'South' }])).toEqual(['S1'])
		expect(offered([])).toEqual([])
	})

	test('is never a row that its reader does not see', () => {
		expect(offered([{ column: WHY, value: 'North' }], '', IMKE)).toEqual(['N1', 'N2'])
		expect(offered([{ column: WHY, value: 'South' }], '', IMKE)).toEqual([])
	})
})

test('an entry begins with what its formula comes to for its reader', () => {
	open({
		columns: [WHAT],
		lines: [
			{ id: 'e1', kind: 'entry', column: AMOUNT, starts: '12 / 5' },
			{ id: 'e2', kind: 'entry', column: WHY, starts: '"for " & me.name & me.port' },
			{ id: 'e3', kind: 'entry', column: BERTH, starts: '"no berth"' }
		]
	})
	const form = shownForm()
	const parts = form?.kind === 'form' ? form.pages.flatMap((page) => page.parts) : []
	// Nobody may see People here: of her own row Imke is told her name alone.
	expect(parts).toMatchObject([
		{ kind: 'entry', id: `c${WHAT}`, starts: null },
		{ id: 'e1', starts: 2.4 },
		{ id: 'e2', starts: 'for Imke' },
		{ id: 'e3', starts: null }
	])
})

test('what it refuses by the row that it belongs to is refused when it is sent', () => {
	open({
		...{ of: BERTH, columns: [] },
		lines: [{ id: 'e', kind: 'entry', column: WHAT, unless: 'berth.code <> "N1"', says: 'N1 is full.' }]
	})
	const send = (n: number) =>
		sendForm(store, filled([{ column: WHAT, value: 'x' }], { row: store.ids.toId(BERTHS, n) }))
	expect(() => send(1)).toThrow('N1 is full.')
	store.db.exec('DELETE FROM t3')
	send(2)
	expect(rows(REQUESTS)).toMatchObject([{ c30: 'x', c31: 2 }])
})

describe('rows that go in with it', () => {
	const SIGNOFFS: AppInput['signoffs'] = [
		{
			...{ id: 'o', name: 'Spend', table: REQUESTS, where: '', decider: '"keeper@varrow.example"', columns: [WHAT] },
			children: [{ table: ITEMS, column: REQUEST, columns: [ITEM, EACH] }]
		}
	]
	const item = (text: string, each: number, quantity = 1): CellChange[] => [
		{ column: ITEM, value: text },
		{ column: QUANTITY, value: quantity },
		{ column: EACH, value: each }
	]
	const what = { column: WHAT, value: 'Chain' }

	beforeEach(() =>
		open(
			{
				lines: [
					{
						...{ id: 'g', kind: 'items', table: ITEMS, of: REQUEST, columns: [ITEM, QUANTITY], least: 1 },
						lines: [
							{ id: 'e', kind: 'entry', column: EACH, unless: 'each < 1000 or this.amount > 5000', says: 'Too dear.' },
							{ id: 't', kind: 'shown', value: 'quantity * each', label: 'Total' }
						]
					}
				]
			},
			{ signoffs: SIGNOFFS }
		)
	)

	test('a request and two items in one send: one case that shows both', () => {
		sendForm(store, filled([what], { items: { g: [item('Shackle', 4), item('Swivel', 9.5, 2)] } }))
		expect(rows(ITEMS)).toMatchObject([
			{ c40: 'Shackle', c41: 1 },
			{ c40: 'Swivel', c41: 1, c42: 2 }
		])
		const keeper = { actor: { person: KEEPER }, now: NOW }
		const { waiting } = listCases(store, keeper)
		expect(waiting).toHaveLength(1)
		expect(readCase(store, { id: String(waiting[0]?.id), ...keeper }).children).toMatchObject([{ rows: [{}, {}] }])
	})

	test('a refused item leaves nothing', () => {
		const send = () => sendForm(store, filled([what], { items: { g: [item('Shackle', 4), item('', 4)] } }))
		expect(() => store.db.transaction(send)()).toThrow('item must be filled in.')
		const { waiting } = listCases(store, { actor: { person: KEEPER }, now: NOW })
		expect([...rows(REQUESTS), ...rows(ITEMS), ...waiting]).toEqual([])
	})

	test('rows that are blank throughout do not count', () => {
		expect(() => sendForm(store, filled([what], { items: { g: [[]] } }))).toThrow('At least 1 of items')
	})

	test('their formulas reach the row that they go in with as this', () => {
		const verdict = (amount: number) =>
			judgeFilled(store, filled([what, { column: AMOUNT, value: amount }], { items: { g: [item('Crane', 2000)] } }))
		expect(verdict(100).items['g']?.rows[0]?.refused).toEqual({ e: 'Too dear.' })
		expect(verdict(9000).items['g']?.rows[0]?.refused).toEqual({})
	})

	test('are added up as they are typed', () => {
		const { items } = judgeFilled(store, filled([what], { items: { g: [item('a', 0.1), item('b', 0.1, 2)] } }))
		expect(items['g']).toMatchObject({
			rows: [{ shown: { t: '£0.10' } }, { shown: { t: '£0.20' } }],
			sums: { t: '£0.30' }
		})
	})

	test('a page cannot point them elsewhere', () => {
		sendForm(store, filled([what], { items: { g: [item('Shackle', 4)] } }))
		const elsewhere = [...item('Stolen', 4), { column: REQUEST, value: { id: store.ids.toId(REQUESTS, 1) } }]
		sendForm(store, filled([what], { items: { g: [elsewhere] } }))
		expect(rows(ITEMS)).toMatchObject([{ c41: 1 }, { c40: 'Stolen', c41: 2 }])
	})
})

describe('a form that changes the row that is shown', () => {
	const FORM: Partial<FormInput> = {
		...{ table: BERTHS, columns: [CODE, OWED, NICK], changes: 'the row that is shown' },
		lines: [
			{ id: 'code', kind: 'entry', column: CODE, unless: 'LEN(code) < 4', says: 'Too long.', must: 'port = "North"' },
			{ id: 'all', kind: 'shown', value: 'port & ": " & code', label: 'Whole' }
		]
	}
	const row = (n: number) => store.ids.toId(BERTHS, n)
	const shown = (person: number, n?: number) => {
		const given = n === undefined ? {} : { row: row(n) }
		const screen = openScreen(store, { app, draft: false, screen: 's', actor: { person }, now: NOW, ...given })
		return screen.screen?.lines.find((each) => each.kind === 'form')
	}
	const fill = (person: number, n: number, cells: CellChange[]): FilledForm => ({
		...{ app, draft: false, screen: 's', line: 'f', actor: { person }, now: NOW, row: row(n) },
		...{ cells, items: {} }
	})
	const stands = (n: number) => store.db.prepare(`SELECT c20, c21, c23, rev FROM t2 WHERE n = ?`).raw().get(n)

	beforeEach(() => open(FORM))

	test('begins with what its reader sees there, and asks what they may change', () => {
		const form = shown(IMKE, 1)
		expect(form).toMatchObject({
			changes: true,
			isOfRow: true,
			verdict: { must: ['code'], shown: { all: 'North: N1' } }
		})
		const asked = (form?.pages ?? []).flatMap(({ parts }) =>
			parts.flatMap((part) => (part.kind === 'entry' ? [[part.column.id, part.starts]] : []))
		)
		expect(asked).toEqual([
			[NICK, null],
			[CODE, 'N1']
		])
		// Of another port nothing is hers to see.
		expect(shown(IMKE, 3)).toBeUndefined()
		expect(shown(BO, 3)).toMatchObject({ changes: true })
		expect(shown(BO)).toMatchObject({ changes: false, isOfRow: false })
	})

	test('judges what was typed together with what stands there', () => {
		expect(judgeFilled(store, fill(IMKE, 1, [{ column: CODE, value: 'N9' }])).shown).toEqual({ all: 'North: N9' })
		expect(judgeFilled(store, fill(IMKE, 1, [])).shown).toEqual({ all: 'North: N1' })
	})

	test('changes what was typed and nothing else', () => {
		const done = sendForm(store, fill(IMKE, 1, [{ column: NICK, value: 'Nan', was: null }]))
		expect(done).toMatchObject({ row: row(1), conflicts: [] })
		expect(stands(1)).toMatchObject({ 0: 'N1', 1: 'North', 2: 'Nan' })
		// A column that she does not see is not taken from a page that sends it all the same.
		sendForm(
			store,
			fill(IMKE, 1, [
				{ column: OWED, value: 1 },
				{ column: NICK, value: 'Non', was: 'Nan' }
			])
		)
		expect(store.pluck<number>('SELECT c22 FROM t2 WHERE n = 1')).toBe(90_000)
	})

	test('says where somebody else was faster, and puts nothing over it', () => {
		store.db.exec(`UPDATE t2 SET c23 = 'Theirs', c23k = 'theirs' WHERE n = 1`)
		const done = sendForm(store, fill(IMKE, 1, [{ column: NICK, value: 'Mine', was: null }]))
		expect(done.conflicts).toMatchObject([{ column: NICK, theirs: 'Theirs', yours: 'Mine' }])
		expect(stands(1)).toMatchObject({ 2: 'Theirs' })
	})

	test('is refused as one that adds is, and leaves the row as it was', () => {
		const before = stands(1)
		const send = (cells: CellChange[]) => store.db.transaction(() => sendForm(store, fill(IMKE, 1, cells)))
		expect(send([{ column: CODE, value: 'N12345' }])).toThrow('Too long.')
		expect(send([{ column: CODE, value: null }])).toThrow('code must be filled in.')
		expect(() => sendForm(store, fill(IMKE, 3, [{ column: NICK, value: 'x' }]))).toThrow('not there, or not for you')
		expect(stands(1)).toEqual(before)
	})

	test('adds where no row is shown, and only where it asks for all that it must', () => {
		const added = sendForm(store, { ...fill(BO, 1, [{ column: CODE, value: 'S2' }]), row: undefined })
		expect(added.row).not.toBe(row(1))
		open({ table: REQUESTS, columns: [AMOUNT], changes: 'the row that is shown' })
		expect(shown(BO)).toBeUndefined()
	})
})
