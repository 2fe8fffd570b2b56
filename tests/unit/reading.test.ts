/**
 * A page of rows as it travels: cells of each kind, what may be done with a row, places to go on from, rows chosen by their label,
 * pages that start further on. Imke sees buoys that are lit, without what they cost; where they lie she sees of some.
 */
import { beforeAll, describe, expect, test } from 'vitest'
import { cellKey } from '$lib/core/query/wire.ts'
import type { LineEntry } from '$lib/core/workspace/document.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { countRows, readRows } from '$lib/server/rows/read.ts'
import { labelText } from '$lib/server/rows/to-wire.ts'
import { readAnchors } from '$lib/server/rows/read-anchors.ts'
import type { RowsRequest } from '$lib/server/rows/resolve.ts'
import type { Store } from '$lib/server/store/store.ts'
import { getColumn, getTable } from '$lib/core/model/table.ts'

const NOW = Date.parse('2026-11-28T12:00:00Z')
const [PORTS, P_NO, P_OPENED] = [2, 20, 21]
const [BUOYS, CODE, PORT, COST, LIT, SHARE, PHOTO, ODD] = [3, 30, 31, 32, 33, 34, 35, 36]
const [CREW, IMKE] = [10, 2]

let store: Store

beforeAll(() => {
	const keepers = [KEEPER]
	const line = (id: string, parts: Partial<LineEntry> = {}): LineEntry => ({
		...{ id, table: BUOYS, role: CREW, verbs: ['see'], where: 'lit', columns: { kind: 'except', columns: [COST] } },
		...parts
	})
	store = openScratch({
		now: NOW,
		roles: [{ id: CREW, name: 'Crew', includes: [] }],
		lines: [
			line('a'),
			line('b', { verbs: ['change'], columns: { kind: 'only', columns: [SHARE, ODD] } }),
			line('d', { verbs: ['change'], where: 'code = "A"', columns: { kind: 'only', columns: [LIT] } }),
			line('c', { verbs: ['remove'], where: 'code = "b"', columns: { kind: 'all' } }),
			line('p', { table: PORTS, where: 'no > 100', columns: { kind: 'all' } })
		],
		tables: [
			{
				...{ id: PORTS, name: 'ports', keepers, label: P_NO },
				columns: [
					{ id: P_NO, name: 'no', type: 'whole number' },
					{ id: P_OPENED, name: 'opened', type: 'date' }
				]
			},
			{
				...{ id: BUOYS, name: 'buoys', keepers, label: CODE },
				columns: [
					{ id: CODE, name: 'code', type: 'text' },
					{ id: PORT, name: 'port', type: 'reference', to: PORTS, reverseName: 'buoys' },
					{ id: COST, name: 'cost', type: 'money' },
					{ id: LIT, name: 'lit', type: 'yes/no' },
					{ id: SHARE, name: 'share', type: 'decimal', places: 2 },
					{ id: PHOTO, name: 'photo', type: 'photo' },
					{ id: ODD, name: 'odd', type: 'computed', formula: '1 / share' }
				]
			}
		]
	})
	const file = JSON.stringify({ hash: 'ab', name: 'bow.png', size: 12, type: 'image/png' })
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k) VALUES (${IMKE}, 0, 0, 'Imke', 'imke', 'i@x.example', 'i@x.example');
		INSERT INTO role_held (person, role) VALUES (${IMKE}, ${CREW});
		INSERT INTO t2 (n, made_at, changed_at, c20, c21) VALUES (1, 0, 0, 1200, '2026-01-05'), (2, 0, 0, 12, NULL), (3, 0, 0, 130, NULL), (4, 0, 0, NULL, NULL);
		INSERT INTO t3 (n, made_at, changed_at, c30, c30k, c31, c32, c33, c34, c35, c36, c36e) VALUES
			(1, 0, 0, 'A', 'a', 1, 4000, 1, 250, '${file}', 0.4, NULL),
			(2, 0, 0, 'b', 'b', 2, 100, 1, 0, NULL, NULL, 2),
			(3, 0, 0, 'C', 'c', 4, NULL, 0, NULL, NULL, NULL, 2),
			(4, 0, 0, NULL, NULL, NULL, NULL, 1, NULL, NULL, NULL, 2)`)
})

const read = (person: number, request: Partial<RowsRequest> = {}) =>
	readRows(store, { person }, { table: BUOYS, ...request }, NOW)
const codes = (person: number, request: Partial<RowsRequest> = {}) =>
	read(person, request).rows.map(({ cells }) => cells[cellKey(CODE)] ?? '-')
const id = (n: number, table = BUOYS) => store.ids.toId(table, n)

describe('cells', () => {
	test('travel as what they are: label, file, error, blank', () => {
		const [a, b, c] = read(KEEPER).rows
		expect(a?.id).toBe(id(1))
		expect(a?.cells).toMatchObject({
			...{
				[cellKey(CODE)]: 'A',
				[cellKey(COST)]: 40,
				[cellKey(LIT)]: true,
				[cellKey(SHARE)]: 2.5,
				[cellKey(ODD)]: 0.4
			},
			[cellKey(PORT)]: { id: id(1, PORTS), label: '1200' },
			[cellKey(PHOTO)]: { file: { name: 'bow.png' } }
		})
		expect(b?.cells[cellKey(ODD)]).toEqual({ error: '#DIV/0!' })
		expect(b?.cells[cellKey(PHOTO)]).toBeNull()
		expect(c?.cells[cellKey(PORT)]).toEqual({ id: id(4, PORTS), label: '' })
		expect(c?.cells[cellKey(LIT)]).toBe(false)
	})

	test('that are not seen are absent, and a reference to a row that is not seen is hidden', () => {
		const { rows, columns } = read(IMKE)
		expect(rows.map((row) => row.cells[cellKey(PORT)])).toEqual([
			{ id: id(1, PORTS), label: '1200' },
			{ hidden: true },
			null
		])
		expect(rows.every((row) => !(cellKey(COST) in row.cells))).toBe(true)
		expect(columns).toEqual([CODE, PORT, LIT, SHARE, PHOTO, ODD])
		expect(read(IMKE, { columns: [COST, CODE, 999] }).columns).toEqual([CODE])
	})

	test('a label is written as people know it: digits together, a date as a date', () => {
		const ports = getTable(store.workspace().catalogue, PORTS)
		expect(labelText(getColumn(ports, P_NO), 12_000)).toBe('12000')
		expect(labelText(getColumn(ports, P_OPENED), '2026-01-05')).toBe('5 Jan 2026')
		expect(labelText(getColumn(ports, P_NO), null)).toBe('')
	})
})

test('what may be done with each row is said where it is asked, column by column', () => {
	const offers = (person: number) => read(person, { offers: true }).rows.map(({ may }) => may)
	expect(offers(IMKE)).toEqual([
		{ change: [LIT, SHARE], remove: false },
		{ change: [SHARE], remove: true },
		{ change: [SHARE], remove: false }
	])
	expect(offers(KEEPER)[0]).toEqual({ change: [CODE, PORT, COST, LIT, SHARE, PHOTO], remove: true })
	expect(read(IMKE).rows[0]?.may).toBeUndefined()
})

describe('which rows', () => {
	test.each<[string, () => Partial<RowsRequest>, string[]]>([
		['all', () => ({}), ['A', 'b', 'C', '-']],
		['one', () => ({ row: id(2) }), ['b']],
		['none under an id that is none', () => ({ row: 'nonsense' }), []],
		['those that point to one', () => ({ pointing: { column: PORT, to: id(1, PORTS) } }), ['A']],
		['none that point to what is none', () => ({ pointing: { column: PORT, to: 'nonsense' } }), []],
		['none by a column that points nowhere', () => ({ pointing: { column: CODE, to: id(1, PORTS) } }), []],
		['those that fit every condition', () => ({ where: ['lit', ' ', 'share > 1'] }), ['A']],
		['those whose label is a text, whatever its case', () => ({ labelIs: 'B' }), ['b']],
		['those whose label begins so', () => ({ labelStarts: 'a' }), ['A']],
		['all, where nothing was typed', () => ({ labelStarts: '' }), ['A', 'b', 'C', '-']]
	])('%s', (_what, ask, wanted) => {
		const request = ask()
		expect(codes(KEEPER, request)).toEqual(wanted)
		expect(countRows(store, { person: KEEPER }, { ...request, table: BUOYS, limit: 100 }, NOW)).toBe(wanted.length)
	})

	test('by a label that is a number: as it is, or as it begins', () => {
		const ports = (request: Partial<RowsRequest>) =>
			read(KEEPER, { table: PORTS, ...request }).rows.map((row) => row.id)
		expect(ports({ labelIs: '12' })).toEqual([id(2, PORTS)])
		expect(ports({ labelIs: 'twelve' })).toEqual([])
		expect(ports({ labelStarts: '12' })).toEqual([id(1, PORTS), id(2, PORTS)])
		expect(ports({ labelStarts: '13' })).toEqual([id(3, PORTS)])
		for (const text of ['x', '1.', '1234567890123456']) expect(ports({ labelStarts: text })).toEqual([])
	})

	test.each<[string, string, number[], number[]]>([
		['whole number', '0', [4], [4]],
		['whole number', '-1', [], [3]],
		['whole number', ' 12 ', [1], [1, 2]],
		['decimal', '12.5', [], [2]],
		['money', '£12.50', [2], []],
		['money', '12', [1], [1, 2]],
		['date', '2026-01', [], [1]],
		['date', '5 Jan 2026', [1], []],
		['choice', 'var', [], [1]],
		['choice', 'VARROW', [1], [1]],
		['yes/no', 'yes', [1], []]
	])('by a label that is a %s, typed as "%s"', (type, text, is, starts) => {
		const values: Record<string, unknown[]> = {
			'whole number': [12, 125, -17, 0],
			...{
				decimal: [12, 12.55, -12, 0],
				money: [12, 12.5, 0.12, null],
				date: ['2026-01-05', '2025-12-01', null, null]
			},
			...{ choice: ['Varrow', 'Ness', null, null], 'yes/no': [true, false, null, null] }
		}
		const label = { id: 20, name: 'label', type: type as 'text', ...(type === 'choice' ? { choices: ['Varrow', 'Ness'] } : {}) } // prettier-ignore
		const own = openScratch({
			now: NOW,
			tables: [{ id: 2, name: 'own', keepers: [KEEPER], label: 20, columns: [label] }]
		})
		for (const value of values[type] ?? []) {
			const cells = [{ column: 20, value: value as string }]
			changeRows(own, [{ kind: 'add', table: 2, cells }], { actor: { person: KEEPER }, now: NOW, through: 'grid' })
		}
		const found = (request: Partial<RowsRequest>) =>
			readRows(own, { person: KEEPER }, { table: 2, ...request }, NOW).rows.map((row) => own.ids.fromId(2, row.id))
		expect(found({ labelIs: text })).toEqual(is)
		expect(found({ labelStarts: text })).toEqual(starts)
	})

	test('a condition that cannot be read is said, and a table that is not seen holds none', () => {
		expect(() => read(KEEPER, { where: ['nothing like it > 1'] })).toThrow(/nothing/)
		expect(read(99)).toEqual({ rows: [], next: null, columns: [] })
		expect(read(KEEPER, { table: 77 })).toEqual({ rows: [], next: null, columns: [] })
		expect(countRows(store, { person: 99 }, { table: BUOYS, limit: 10 }, NOW)).toBe(0)
		expect(countRows(store, { person: KEEPER }, { table: BUOYS, limit: 3 }, NOW)).toBe(3)
		expect(readAnchors(store, { person: 99 }, { table: BUOYS }, NOW)).toEqual({ count: 0, anchors: [] })
	})
})

test('a condition may ask who looks', () => {
	expect(codes(IMKE, { where: ['me.name = "Imke"'] })).toEqual(codes(IMKE))
	expect(codes(KEEPER, { where: ['me.name = "Imke"'] })).toEqual([])
})

describe('pages', () => {
	const sorts = [undefined, { column: SHARE, descending: false }, { column: SHARE, descending: true }, { column: CODE, descending: true }] // prettier-ignore
	test.each(sorts)('of one row each, and from any row on, are the list as a whole (%j)', (sort) => {
		for (const person of [KEEPER, IMKE]) {
			const all = codes(person, { sort })
			const one: unknown[] = []
			for (let after: string | undefined, more = true; more;) {
				const page = read(person, { sort, limit: 1, after })
				one.push(...page.rows.map(({ cells }) => cells[cellKey(CODE)] ?? '-'))
				after = page.next ?? undefined
				more = page.next !== null
			}
			expect(one).toEqual(all)
			for (const skip of [0, 1, 2, 3, 4, 9]) {
				expect(codes(person, { sort, skip }), `from ${skip}`).toEqual(all.slice(skip))
				expect(codes(person, { sort, skip, limit: 2 }), `two from ${skip}`).toEqual(all.slice(skip, skip + 2))
			}
			expect(readAnchors(store, { person }, { table: BUOYS, sort }, NOW)).toEqual({ count: all.length, anchors: [] })
		}
	})

	test('the last page has no next one, even where it is just full', () => {
		expect(read(KEEPER, { limit: 4 }).next).toBeNull()
		expect(read(KEEPER, { limit: 3 }).next).not.toBeNull()
	})

	const cursor = (parts: unknown) => Buffer.from(JSON.stringify(parts)).toString('base64url')
	test.each([
		['no text of ours', 'x'],
		['no list', cursor({ a: 1 })],
		['an id that is none', cursor([0, [], 'nonsense'])],
		['a number for an id', cursor([0, [], 5])],
		['no branch', cursor(['a', [], 'ID'])],
		['half a branch', cursor([0.5, [], 'ID'])],
		['values that are no list', cursor([0, 'a', 'ID'])],
		['a value that is none', cursor([0, [{}], 'ID'])]
	])('a place made of %s is no longer known', (_what, after) => {
		const text = Buffer.from(after, 'base64url')
			.toString()
			.replace('"ID"', JSON.stringify(id(1)))
		const made = after === 'x' ? after : Buffer.from(text).toString('base64url')
		expect(() => read(KEEPER, { after: made })).toThrow('This place in the list is no longer known.')
	})
	test('a place that a client makes up shows no more than its reader sees', () => {
		const made = Buffer.from(JSON.stringify([0, [], id(2)])).toString('base64url')
		expect(codes(KEEPER, { after: made })).toEqual(['C', '-'])
		expect(codes(IMKE, { after: made })).toEqual(['-'])
		const beyond = Buffer.from(JSON.stringify([9, [], id(2)])).toString('base64url')
		expect(read(IMKE, { after: beyond })).toMatchObject({ rows: [], next: null })
	})
})
