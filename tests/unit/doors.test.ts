import { beforeAll, beforeEach, afterEach, describe, expect, test } from 'vitest'
import type { CellChange, Change } from '$lib/core/query/change.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { findBrokenSeal } from '$lib/server/history/history.ts'
import { countRows, readRows } from '$lib/server/rows/read.ts'
import type { RowsRequest } from '$lib/server/rows/resolve.ts'
import { readHistory } from '$lib/server/rows/read-history.ts'
import { saveWorkspace } from '$lib/server/structure/save.ts'
import { saveLines } from '$lib/server/structure/tables.ts'
import type { LineEntry } from '$lib/core/workspace/document.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import type { Store } from '$lib/server/store/store.ts'
import { refusal } from '../support/refusal.ts'

/**
 * Harbours and moorings small enough to count by hand. Imke (2) dives at Ness Hythe, Osric (3) leads Varrow Quay,
 * Corrie (4) is a clerk who sees all moorings but the arrears of Varrow Quay only.
 */
const NOW = Date.parse('2026-11-23T12:00:00Z')
const HARBOURS = 2
const MOORINGS = 3
const [NAME, SINCE] = [10, 11]
const [CODE, HARBOUR, DEPTH, ARREARS, STATE, LOOKED, DUE, DOUBLE] = [20, 21, 22, 23, 24, 25, 26, 27]
const [DIVERS, MASTERS, CLERKS] = [10, 11, 12]
const BOATS = 28

const lines: LineEntry[] = [
	{ id: 'h', table: HARBOURS, role: DIVERS, verbs: ['see'], where: 'name = me.site', columns: { kind: 'all' } },
	{
		id: 'd',
		table: MOORINGS,
		role: DIVERS,
		verbs: ['see', 'change'],
		where: 'harbour.name = me.site',
		columns: { kind: 'except', columns: [ARREARS] }
	},
	{
		id: 'm',
		table: MOORINGS,
		role: MASTERS,
		verbs: ['see', 'add', 'change', 'remove'],
		where: 'harbour.name = me.site',
		columns: { kind: 'all' }
	},
	{ id: 'mh', table: HARBOURS, role: MASTERS, verbs: ['see'], where: '', columns: { kind: 'all' } },
	{
		id: 'c',
		table: MOORINGS,
		role: CLERKS,
		verbs: ['see'],
		where: '',
		columns: { kind: 'except', columns: [ARREARS, BOATS] }
	},
	{
		id: 'ca',
		table: MOORINGS,
		role: CLERKS,
		verbs: ['see'],
		where: 'harbour.name = "Varrow Quay"',
		columns: { kind: 'only', columns: [CODE, ARREARS] }
	},
	{ id: 'ch', table: HARBOURS, role: CLERKS, verbs: ['see'], where: 'name = "Varrow Quay"', columns: { kind: 'all' } }
]

let store: Store
const ids = new Map<string, string>()

function act(person: number, change: Change) {
	return changeRows(store, [change], { actor: { person }, now: NOW, through: 'grid' })[0]
}

function add(table: number, cells: Record<number, CellChange['value']>, person = KEEPER): string {
	const list = Object.entries(cells).map(([column, value]) => ({ column: Number(column), value }))
	return act(person, { kind: 'add', table, cells: list })?.row ?? ''
}

function read(person: number, request: Partial<RowsRequest> = {}) {
	return readRows(store, { person }, { table: MOORINGS, ...request }, NOW)
}

const codes = (person: number, request: Partial<RowsRequest> = {}) =>
	read(person, request).rows.map((row) => row.cells[cellKey(CODE)])

beforeAll(() => {
	store = openScratch({
		now: NOW,
		peopleColumns: [{ id: 3, name: 'site', type: 'text' }],
		roles: [DIVERS, MASTERS, CLERKS].map((id) => ({ id, name: `role ${id}`, includes: [] })),
		lines,
		tables: [
			{
				id: HARBOURS,
				name: 'Harbours',
				keepers: [KEEPER],
				label: NAME,
				columns: [
					{ id: NAME, name: 'name', type: 'text', unique: true },
					{ id: SINCE, name: 'moorings counted', type: 'computed', formula: 'COUNT(moorings)' },
					{ id: 12, name: 'all moorings', type: 'computed', formula: 'COUNT(moorings)', vouched: true }
				]
			},
			{
				id: MOORINGS,
				name: 'Moorings',
				keepers: [KEEPER],
				label: CODE,
				columns: [
					{ id: CODE, name: 'code', type: 'code', unique: true, required: true },
					{ id: HARBOUR, name: 'harbour', type: 'reference', to: HARBOURS },
					{ id: DEPTH, name: 'depth', type: 'decimal', places: 1 },
					{ id: ARREARS, name: 'arrears', type: 'money' },
					{ id: STATE, name: 'state', type: 'choice', choices: ['Sound', 'Watch', 'Replace'] },
					{ id: LOOKED, name: 'last look', type: 'date' },
					{ id: DUE, name: 'next due', type: 'computed', formula: 'EDATE(last look; 12)' },
					{ id: DOUBLE, name: 'arrears twice', type: 'computed', formula: 'arrears * 2' },
					{ id: BOATS, name: 'boats', type: 'whole number' }
				]
			}
		]
	})
	for (const [name, site, role] of [
		['Imke', 'Ness Hythe', DIVERS],
		['Osric', 'Varrow Quay', MASTERS],
		['Corrie', null, CLERKS],
		['Wim', 'Varrow Quay', 0]
	] as const) {
		const person = add(1, { 1: name, 2: `${name}@varrow.example`, 3: site })
		store.db.prepare('INSERT INTO role_held (person, role) VALUES (?, ?)').run(store.ids.fromId(1, person), role)
	}
	for (const name of ['Varrow Quay', 'Ness Hythe']) ids.set(name, add(HARBOURS, { [NAME]: name }))
	const rows: [string, string, number | null, number | null, string | null][] = [
		['VQ-001', 'Varrow Quay', 9, 120, '2025-11-12'],
		['VQ-002', 'Varrow Quay', 8.7, 0, null],
		['VQ-003', 'Varrow Quay', null, 310, '2026-01-31'],
		['NH-001', 'Ness Hythe', 1.2, 86.5, '2025-11-19'],
		['NH-002', 'Ness Hythe', 1.4, null, '2026-02-28']
	]
	for (const [code, harbour, depth, arrears, looked] of rows) {
		const cells = {
			[CODE]: code,
			[HARBOUR]: { id: ids.get(harbour) ?? '' },
			[DEPTH]: depth,
			[ARREARS]: arrears,
			[LOOKED]: looked
		}
		ids.set(code, add(MOORINGS, cells))
	}
})

const [IMKE, OSRIC, CORRIE, WIM] = [2, 3, 4, 5]

// Every test leaves the rows as it found them.
beforeEach(() => void store.db.exec('SAVEPOINT each'))
afterEach(() => {
	store.db.exec('ROLLBACK TO each')
	store.db.exec('RELEASE each')
	store.forget()
})

describe('the door out', () => {
	test('nobody sees anything unless a line lets them', () => {
		expect(read(WIM)).toEqual({ rows: [], next: null, columns: [] })
		expect(countRows(store, { person: WIM }, { table: MOORINGS, limit: 10 }, NOW)).toBe(0)
	})

	test('a reader gets their rows, without the columns that are kept back', () => {
		const page = read(IMKE)
		expect(page.rows.map((row) => row.cells[cellKey(CODE)])).toEqual(['NH-001', 'NH-002'])
		for (const row of page.rows) expect(row.cells).not.toHaveProperty(cellKey(ARREARS))
		expect(page.columns).not.toContain(ARREARS)
	})

	test('a computed cell is seen only where every operand in its row is', () => {
		for (const row of read(IMKE).rows) expect(row.cells).not.toHaveProperty(cellKey(DOUBLE))
		const corrie = Object.fromEntries(
			read(CORRIE).rows.map((row) => [row.cells[cellKey(CODE)], row.cells[cellKey(DOUBLE)]])
		)
		// Her line over every row covers the computed column, but its operand she sees at Varrow Quay alone.
		expect(corrie).toEqual({ 'VQ-001': 240, 'VQ-002': 0, 'VQ-003': 620, 'NH-001': undefined, 'NH-002': undefined })
		expect(read(OSRIC).rows[0]?.cells[cellKey(DOUBLE)]).toBe(240)
	})

	test('a column that is seen on some rows only can be sorted by, and its hidden order does not show', () => {
		const sort = { column: ARREARS, descending: true }
		expect(codes(CORRIE, { sort })).toEqual(['VQ-003', 'VQ-001', 'VQ-002', 'NH-001', 'NH-002'])
		const ascending = { column: ARREARS, descending: false }
		expect(codes(CORRIE, { sort: ascending })).toEqual(['VQ-002', 'VQ-001', 'VQ-003', 'NH-001', 'NH-002'])
		const cells = read(CORRIE, { sort }).rows.map((row) => row.cells[cellKey(ARREARS)])
		expect(cells).toEqual([310, 120, 0, undefined, undefined])
	})

	test('pages of one row each come to the same, through every branch', () => {
		const sort = { column: ARREARS, descending: true }
		const found: unknown[] = []
		let after: string | undefined
		do {
			const page = read(CORRIE, { sort, limit: 1, after })
			found.push(...page.rows.map((row) => row.cells[cellKey(CODE)]))
			after = page.next ?? undefined
		} while (after)
		expect(found).toEqual(codes(CORRIE, { sort }))
	})

	test('blanks come last, whichever way a column is sorted', () => {
		const up = codes(OSRIC, { sort: { column: DEPTH, descending: false } })
		const down = codes(OSRIC, { sort: { column: DEPTH, descending: true } })
		expect(up).toEqual(['VQ-002', 'VQ-001', 'VQ-003'])
		expect(down).toEqual(['VQ-001', 'VQ-002', 'VQ-003'])
	})

	test('a condition of a screen is judged as the reader sees the data', () => {
		expect(codes(CORRIE, { where: ['arrears > 50'] })).toEqual(['VQ-001', 'VQ-003'])
		expect(codes(CORRIE, { where: ['not (arrears > 50)'] })).toEqual(['VQ-002', 'NH-001', 'NH-002'])
		expect(codes(CORRIE, { where: ['ISBLANK(arrears)'] })).toEqual(['NH-001', 'NH-002'])
	})

	test('two readers get different counts over one back-reference reference', () => {
		const counted = (person: number) =>
			readRows(store, { person }, { table: HARBOURS }, NOW).rows.map((row) => [
				row.cells[cellKey(NAME)],
				row.cells[cellKey(SINCE)],
				row.cells[cellKey(12)]
			])
		expect(counted(IMKE)).toEqual([['Ness Hythe', 2, 2]])
		// Osric sees both harbours, but only the moorings of his own; the vouched column counts them all.
		expect(counted(OSRIC)).toEqual([
			['Varrow Quay', 3, 3],
			['Ness Hythe', 0, 2]
		])
	})

	test('a total inside a line counts the data as it is', () => {
		const more: LineEntry = {
			id: 'x',
			table: HARBOURS,
			role: DIVERS,
			verbs: ['see'],
			where: 'COUNT(moorings) >= 3',
			columns: { kind: 'all' }
		}
		const own = [...lines.filter((line) => line.table === HARBOURS), more]
		saveLines(store, {
			table: HARBOURS,
			lines: own,
			version: store.workspace().version,
			actor: { person: KEEPER },
			now: NOW
		})
		const names = readRows(store, { person: IMKE }, { table: HARBOURS }, NOW).rows.map((row) => [
			row.cells[cellKey(NAME)],
			row.cells[cellKey(SINCE)]
		])
		// The line lets her see Varrow Quay for its three moorings, of which she herself sees none.
		expect(names).toEqual([
			['Varrow Quay', 0],
			['Ness Hythe', 2]
		])
	})

	test('the label of a row that is not seen is hidden, and its id with it', () => {
		const harbours = read(CORRIE).rows.map((row) => row.cells[cellKey(HARBOUR)])
		expect(harbours[0]).toEqual({ id: ids.get('Varrow Quay'), label: 'Varrow Quay' })
		expect(harbours[4]).toEqual({ hidden: true })
	})

	test.each([
		['an id of another table', () => ids.get('Varrow Quay') ?? ''],
		['an id that was made up', () => 'A'.repeat(22)],
		['text that is no id', () => "' OR 1=1 --"],
		['a row that is not hers', () => ids.get('VQ-001') ?? '']
	])('%s is answered like one that is not there', (_what, id) => {
		expect(read(IMKE, { row: id() }).rows).toEqual([])
		expect(refusal(() => act(IMKE, { kind: 'change', table: MOORINGS, row: id(), cells: [] })).code).toBe('not_found')
	})

	test('rows lose themselves as soon as the right goes', () => {
		expect(codes(IMKE)).toHaveLength(2)
		saveLines(store, {
			table: MOORINGS,
			lines: [],
			version: store.workspace().version,
			actor: { person: KEEPER },
			now: NOW
		})
		expect(codes(IMKE)).toEqual([])
	})
})

describe('the door in', () => {
	const change = (person: number, code: string, cells: Record<number, CellChange['value']>) =>
		act(person, {
			kind: 'change',
			table: MOORINGS,
			row: ids.get(code) ?? '',
			cells: Object.entries(cells).map(([column, value]) => ({ column: Number(column), value }))
		})

	test('a change that a line allows goes through, with its computed columns', () => {
		change(IMKE, 'NH-001', { [LOOKED]: '2026-11-23' })
		expect(read(IMKE, { row: ids.get('NH-001') }).rows[0]?.cells[cellKey(DUE)]).toBe('2027-11-23')
	})

	test.each([
		['a column that the line leaves out', IMKE, 'NH-001', { [ARREARS]: 0 }, 'forbidden'],
		['a computed column', OSRIC, 'VQ-001', { [DUE]: '2030-01-01' }, 'forbidden'],
		['a column that does not exist', OSRIC, 'VQ-001', { 999: 1 }, 'forbidden'],
		['a row that is only seen', CORRIE, 'VQ-001', { [DEPTH]: 1 }, 'forbidden'],
		['a value of another kind', OSRIC, 'VQ-001', { [DEPTH]: 'deep' }, 'invalid'],
		['a choice that is none', OSRIC, 'VQ-001', { [STATE]: 'Sunk' }, 'invalid'],
		['a date that does not exist', OSRIC, 'VQ-001', { [LOOKED]: '2026-02-30' }, 'invalid'],
		['a required column made blank', OSRIC, 'VQ-001', { [CODE]: null }, 'invalid'],
		['a reference to a row that is not seen', IMKE, 'NH-001', { [HARBOUR]: { match: 'Varrow Quay' } }, 'invalid']
	])('%s is refused, and nothing of it stays', (_what, person, code, cells, wanted) => {
		const before = store.db.prepare(`SELECT * FROM t${MOORINGS}`).all()
		store.db.exec('SAVEPOINT tried')
		expect(refusal(() => change(person, code, cells as Record<number, CellChange['value']>)).code).toBe(wanted)
		store.db.exec('ROLLBACK TO tried')
		expect(store.db.prepare(`SELECT * FROM t${MOORINGS}`).all()).toEqual(before)
	})

	test('a refusal does not name a column that the person sees nowhere', () => {
		expect(refusal(() => change(IMKE, 'NH-001', { [ARREARS]: 0 })).message).not.toContain('arrears')
		expect(refusal(() => change(CORRIE, 'VQ-001', { [DEPTH]: 0 })).message).toContain('You may not change')
		// Nor does the check of a value, on a column that no line lets them fill.
		const cells = [{ column: ARREARS, value: 'much' }]
		expect(refusal(() => act(IMKE, { kind: 'add', table: MOORINGS, cells })).message).not.toContain('arrears')
	})

	test('a row may not be changed out of the line that allows the change', () => {
		const out = refusal(() => change(OSRIC, 'VQ-001', { [HARBOUR]: { match: 'Ness Hythe' } }))
		expect(out.code).toBe('forbidden')
	})

	test('a clash with a row that is seen says so; with one that is not, only that the value cannot be used', () => {
		expect(refusal(() => change(IMKE, 'NH-001', { [CODE]: 'nh-002' })).message).toBe(
			'code: another row has this value already.'
		)
		expect(refusal(() => change(IMKE, 'NH-001', { [CODE]: 'VQ-001' })).message).toBe('code: This value cannot be used.')
	})

	test('what nobody else changed goes through; for the rest both values are told', () => {
		change(OSRIC, 'VQ-001', { [DEPTH]: 7 })
		const cells = [
			{ column: DEPTH, value: 5, was: 9 },
			{ column: STATE, value: 'Watch', was: null }
		]
		const changed = act(OSRIC, { kind: 'change', table: MOORINGS, row: ids.get('VQ-001') ?? '', cells })
		expect(changed?.conflicts).toEqual([{ column: DEPTH, theirs: 7, yours: 5 }])
		const now = read(OSRIC, { row: ids.get('VQ-001') }).rows[0]?.cells
		expect([now?.[cellKey(DEPTH)], now?.[cellKey(STATE)]]).toEqual([7, 'Watch'])
	})

	test('a removed row is out of every read, and comes back whole', () => {
		const row = ids.get('VQ-002') ?? ''
		act(OSRIC, { kind: 'remove', table: MOORINGS, row })
		expect(codes(OSRIC)).toEqual(['VQ-001', 'VQ-003'])
		act(OSRIC, { kind: 'restore', table: MOORINGS, row })
		expect(codes(OSRIC)).toEqual(['VQ-001', 'VQ-002', 'VQ-003'])
	})

	test('the number of a row that was removed is not given to the next one', () => {
		const gone = add(MOORINGS, { [CODE]: 'NH-100' })
		act(KEEPER, { kind: 'remove', table: MOORINGS, row: gone })
		const next = add(MOORINGS, { [CODE]: 'NH-101' })
		expect(next).not.toBe(gone)
		act(KEEPER, { kind: 'restore', table: MOORINGS, row: gone })
		expect(read(KEEPER, { row: gone }).rows[0]?.cells[cellKey(CODE)]).toBe('NH-100')
		expect(readHistory(store, { table: MOORINGS, row: next, actor: { person: KEEPER }, now: NOW })).toHaveLength(1)
	})

	test('what has lain in the bin for thirty days goes with the next removal', () => {
		act(OSRIC, { kind: 'remove', table: MOORINGS, row: ids.get('VQ-002') ?? '' })
		store.db.prepare('UPDATE bin SET removed_at = ?').run(NOW - 31 * 86_400_000)
		act(OSRIC, { kind: 'remove', table: MOORINGS, row: ids.get('VQ-003') ?? '' })
		const back = () => act(OSRIC, { kind: 'restore', table: MOORINGS, row: ids.get('VQ-002') ?? '' })
		expect(refusal(back).code).toBe('not_found')
	})

	test('a row that others point to is kept', () => {
		const asked = () => act(KEEPER, { kind: 'remove', table: HARBOURS, row: ids.get('Varrow Quay') ?? '' })
		expect(refusal(asked).message).toContain('Rows of Moorings still point to this one.')
	})

	test('every change is in the history, sealed entry to entry', () => {
		change(OSRIC, 'VQ-001', { [DEPTH]: 6 })
		expect(findBrokenSeal(store)).toBeUndefined()
		store.db
			.prepare(
				`UPDATE history SET body = json_set(body, '$.after.c${DEPTH}', 1) WHERE seq = (SELECT max(seq) FROM history)`
			)
			.run()
		expect(findBrokenSeal(store)).toBe(store.db.prepare('SELECT max(seq) FROM history').pluck().get())
	})

	test('a history shows a cell only to who may see it now, and might have then', () => {
		const row = ids.get('NH-001') ?? ''
		change(IMKE, 'NH-001', { [DEPTH]: 2 })
		const named = (person: number) =>
			readHistory(store, { table: MOORINGS, row, actor: { person }, now: NOW }).flatMap((entry) =>
				entry.cells.map((cell) => cell.name)
			)
		expect(named(IMKE)).toContain('depth')
		expect(named(IMKE)).not.toContain('arrears')
		expect(named(KEEPER)).toContain('arrears')
		// The row moves to Varrow Quay: Osric sees it from now on, but not what it was before.
		change(KEEPER, 'NH-001', { [HARBOUR]: { match: 'Varrow Quay' } })
		const seen = readHistory(store, { table: MOORINGS, row, actor: { person: OSRIC }, now: NOW }).flatMap(
			(entry) => entry.cells
		)
		expect(seen.every((cell) => cell.from === '')).toBe(true)
	})
})

describe('what a builder writes reads only what they hold', () => {
	test('a line may not look into a table that somebody else keeps', () => {
		const secret = store.workspace().document
		const others = {
			id: 50,
			name: 'Wages',
			keepers: [OSRIC ?? 0],
			label: 500,
			columns: [{ id: 500, name: 'wage', type: 'whole number' as const }]
		}
		const mine = {
			id: 51,
			name: 'Rota',
			keepers: [KEEPER],
			label: 510,
			columns: [
				{ id: 510, name: 'day', type: 'text' as const },
				{ id: 511, name: 'of', type: 'reference' as const, to: 50 }
			]
		}
		saveWorkspace(store, { ...secret, tables: [...secret.tables, others, mine] }, { now: NOW, by: null })
		const line = (where: string): LineEntry => ({
			id: 'probe',
			table: 51,
			role: DIVERS,
			verbs: ['see'],
			where,
			columns: { kind: 'all' }
		})
		const save = (where: string) => () =>
			saveLines(store, {
				table: 51,
				lines: [line(where)],
				version: store.workspace().version,
				actor: { person: KEEPER },
				now: NOW
			})
		expect(refusal(save('of.wage > 30000')).message).toContain('This line reads "Wages, wage"')
		expect(save('day = "Monday"')).not.toThrow()
	})
})
