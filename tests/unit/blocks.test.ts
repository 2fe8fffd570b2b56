/**
 * Many changes at once, and what comes of the cells that are sent: which go in, what is said of the others, and what a new row
 * gets by itself. A log of dives: Imke sees and changes those at her harbour, but not what they cost.
 */
import { beforeEach, describe, expect, test } from 'vitest'
import type { CellInput, Change } from '$lib/core/query/change.ts'
import { cellKey, type WireCell } from '$lib/core/query/wire.ts'
import type { LineEntry } from '$lib/core/workspace/document.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { changeBlock } from '$lib/server/rows/change-block.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readRows } from '$lib/server/rows/read.ts'
import type { Store } from '$lib/server/store/store.ts'
import { refusal } from '../support/refusal.ts'

const NOW = Date.parse('2026-11-28T12:00:00Z')
const [HARBOURS, H_NAME] = [2, 20]
const [DIVES, NO, SITE, HARBOUR, DEPTH, COST, SAID, DAY, SEEN, CALM] = [3, 30, 31, 32, 33, 34, 35, 36, 37, 38]
const [DIVERS, IMKE] = [10, 2]

let store: Store

beforeEach(() => {
	const keepers = [KEEPER]
	const line = (parts: Partial<LineEntry>): LineEntry => ({
		...{ id: 'x', table: DIVES, role: DIVERS, verbs: ['see', 'add', 'change', 'remove'], where: '' },
		columns: { kind: 'except', columns: [COST] },
		...parts
	})
	store = openScratch({
		now: NOW,
		roles: [{ id: DIVERS, name: 'Divers', includes: [] }],
		lines: [
			line({ id: 'd', where: 'Harbour.Name = "Ness"' }),
			line({ id: 'h', table: HARBOURS, where: 'Name <> "Orrin"', columns: { kind: 'all' } })
		],
		tables: [
			{ id: HARBOURS, name: 'harbours', keepers, label: H_NAME, columns: [{ id: H_NAME, name: 'Name', type: 'text' }] },
			{
				...{ id: DIVES, name: 'dives', keepers, label: NO },
				columns: [
					{ id: NO, name: 'No', type: 'text', numbering: 'D-{year}-{000}' },
					{ id: SITE, name: 'Site', type: 'text', unique: true },
					{ id: HARBOUR, name: 'Harbour', type: 'reference', to: HARBOURS, reverseName: 'dives' },
					{ id: DEPTH, name: 'Depth', type: 'decimal', places: 1, otherwise: '1 / 8' },
					{ id: COST, name: 'Cost', type: 'money', unit: '£', otherwise: '40' },
					{ id: SAID, name: 'Said', type: 'text', otherwise: 'IF(Site = "Wreck"; "mind the nets"; "")' },
					{ id: DAY, name: 'Day', type: 'date', otherwise: 'TODAY()' },
					{ id: SEEN, name: 'Deep', type: 'computed', formula: 'Depth > 10' },
					{ id: CALM, name: 'Calm', type: 'yes/no', otherwise: '1 / 0 > 1' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k) VALUES (${IMKE}, 0, 0, 'Imke', 'imke', 'i@x.example', 'i@x.example');
		INSERT INTO role_held (person, role) VALUES (${IMKE}, ${DIVERS});
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k) VALUES (1, 0, 0, 'Ness', 'ness'), (2, 0, 0, 'Varrow', 'varrow'),
			(3, 0, 0, 'Twin', 'twin'), (4, 0, 0, 'Twin', 'twin'), (5, 0, 0, 'Orrin', 'orrin');`)
})

const cellsOf = (values: Record<number, CellInput>) =>
	Object.entries(values).map(([column, value]) => ({ column: Number(column), value }))
const adding = (values: Record<number, CellInput>): Change => ({ kind: 'add', table: DIVES, cells: cellsOf(values) })
const changing = (row: string, values: Record<number, CellInput>, was: Record<number, WireCell> = {}): Change => ({
	...{ kind: 'change', table: DIVES, row },
	cells: cellsOf(values).map((cell) => (cell.column in was ? { ...cell, was: was[cell.column] as WireCell } : cell))
})
const by = (person: number, now = NOW) => ({ actor: { person }, now, through: 'grid' as const })
const add = (values: Record<number, CellInput>, person = KEEPER, now = NOW) =>
	changeRows(store, [adding({ [HARBOUR]: { match: 'Ness' }, ...values })], by(person, now))[0]?.row ?? ''
const cells = (row: string, person = KEEPER) =>
	readRows(store, { person }, { table: DIVES, row }, NOW).rows[0]?.cells ?? {}
const cell = (row: string, column: number) => cells(row)[cellKey(column)] ?? null
const block = (changes: readonly Change[], partly: boolean, person = IMKE) =>
	changeBlock(store, { changes, partly, context: by(person) })
/** As the writer calls it: a refusal undoes all. */
const whole = (changes: readonly Change[], person = IMKE) =>
	refusal(() => store.db.transaction(() => block(changes, false, person))())

describe('a block', () => {
	test('goes in whole, and gives the rows as their writer sees them, with what they may do', () => {
		const [a, b] = [add({ [SITE]: 'Bar' }), add({ [SITE]: 'Wreck' })]
		const done = block([changing(a, { [DEPTH]: 4.5 }), adding({ [SITE]: 'New', [HARBOUR]: { match: 'Ness' } }), changing(b, { [DEPTH]: 12 })], false) // prettier-ignore
		expect(done.misfits).toEqual([])
		expect(done.changed.map((each) => each?.rev)).toEqual([2, 1, 2])
		expect(done.rows.map((row) => [row?.cells[cellKey(DEPTH)], row?.cells[cellKey(SEEN)]])).toEqual([
			[4.5, false],
			[0.1, false],
			[12, true]
		])
		expect(done.rows.every((row) => row?.cells[cellKey(COST)] === undefined)).toBe(true)
		expect(done.rows[0]?.may).toBeDefined()
	})

	test('with one that does not fit goes in not at all, and names each that does not', () => {
		const [a, b] = [add({ [SITE]: 'Bar' }), add({ [SITE]: 'Wreck' })]
		const error = whole([changing(a, { [DEPTH]: 5 }), changing(b, { [SITE]: 'Bar' }), changing(b, { [DEPTH]: 'deep' })])
		expect(error.code).toBe('invalid')
		expect(error.message).toBe('2 of 3 rows do not fit. Nothing was put in.')
		expect(error.details['misfits']).toEqual([
			{ at: 1, column: SITE, message: 'Site: another row has this value already.' },
			{ at: 2, column: DEPTH, message: expect.stringContaining('Depth: ') }
		])
		expect(cell(a, DEPTH)).toBe(0.1)
	})

	test('says it of one row in the singular, and as forbidden where a right is wanting', () => {
		const a = add({ [SITE]: 'Bar' })
		expect(whole([changing(a, { [SITE]: 'x' }), changing(a, { [DEPTH]: 'deep' })]).message).toBe(
			'1 of 2 rows does not fit. Nothing was put in.'
		)
		expect(whole([changing(a, { [COST]: 1 }), changing(a, { [DEPTH]: 'deep' })]).code).toBe('forbidden')
	})

	test('names no more than two hundred', () => {
		const changes = Array.from({ length: 210 }, () => adding({ [DEPTH]: 'deep', [HARBOUR]: { match: 'Ness' } }))
		const error = whole(changes)
		expect(error.message).toBe('210 of 210 rows do not fit. Nothing was put in.')
		expect(error.details['misfits']).toHaveLength(200)
	})

	test('in part: rows that fit go in, and of a row the cells that fit', () => {
		const [a, b] = [add({ [SITE]: 'Bar' }), add({ [SITE]: 'Wreck' })]
		const done = block([changing(a, { [SITE]: 'Wreck', [DEPTH]: 5, [COST]: 1 }), changing(b, { [DEPTH]: 6 }), adding({ [DEPTH]: 'deep' })], true) // prettier-ignore
		expect(done.misfits.map(({ at, column }) => [at, column])).toEqual([
			[0, SITE],
			[0, COST],
			[2, DEPTH]
		])
		expect(done.changed.map((each) => each?.row)).toEqual([a, b, undefined])
		expect(done.rows.map((row) => row?.cells[cellKey(DEPTH)])).toEqual([5, 6, undefined])
		expect([cell(a, SITE), cell(a, DEPTH), cell(b, DEPTH)]).toEqual(['Bar', 5, 6])
		const kinds = store.db.prepare(`SELECT kind, body FROM history WHERE kind = 'refused'`).all()
		expect(kinds).toEqual([{ kind: 'refused', body: JSON.stringify({ what: '1 of 3 rows may not be changed so.' }) }])
	})

	test('in part: of two cells the one that fits goes in, a new row is one row, and a removal goes', () => {
		const [a, b] = [add({ [SITE]: 'Bar' }), add({ [SITE]: 'Wreck' })]
		const done = block([changing(a, { [SITE]: 'Wreck', [DEPTH]: 5 }), adding({ [SITE]: 'Reef', [DEPTH]: 7, [HARBOUR]: { match: 'Ness' } }), { kind: 'remove', table: DIVES, row: b }], true) // prettier-ignore
		expect(done.misfits.map(({ at, column }) => [at, column])).toEqual([[0, SITE]])
		expect([cell(a, SITE), cell(a, DEPTH)]).toEqual(['Bar', 5])
		// Decimals are kept in their last place.
		const rows = store.db.prepare(`SELECT c${SITE} AS site, c${DEPTH} AS depth FROM t${DIVES} ORDER BY n`).all()
		expect(rows).toEqual([
			{ site: 'Bar', depth: 50 },
			{ site: 'Reef', depth: 70 }
		])
	})

	test('in part, with nothing for want of a right: nothing is noted', () => {
		const a = add({ [SITE]: 'Bar' })
		block([changing(a, { [DEPTH]: 'deep' })], true)
		expect(store.db.prepare(`SELECT count(*) FROM history WHERE kind = 'refused'`).pluck().get()).toBe(0)
	})

	test.each([true, false])('tells what somebody else has changed meanwhile (in part: %s)', (partly) => {
		const a = add({ [SITE]: 'Bar', [DEPTH]: 3 })
		const change = changing(a, { [DEPTH]: 5, [SITE]: 'Bar 2' }, { [DEPTH]: 2, [SITE]: 'Bar' })
		const misfit = {
			...{ at: 0, column: DEPTH, message: 'Somebody else has changed it meanwhile.' },
			conflict: { column: DEPTH, theirs: 3, yours: 5 }
		}
		if (partly) expect(block([change], true).misfits).toEqual([misfit])
		else expect(whole([change]).details['misfits']).toEqual([misfit])
		expect(cell(a, DEPTH)).toBe(3)
		expect(cell(a, SITE)).toBe(partly ? 'Bar 2' : 'Bar')
	})

	test('reads no more than a thousand rows back', () => {
		const a = add({ [SITE]: 'Bar' })
		const done = block(
			Array.from({ length: 1002 }, () => changing(a, {})),
			false
		)
		expect(done.changed).toHaveLength(1002)
		expect(done.rows).toHaveLength(1000)
	})

	test('passes an error of the program on', () => {
		store.db.exec('DROP TABLE history')
		expect(() => block([adding({ [HARBOUR]: { match: 'Ness' } })], true)).toThrow('no such table')
	})
})

describe('a change', () => {
	test('of cells that were not seen conflicts with nothing; of a reference by the row it points to', () => {
		const a = add({ [SITE]: 'Bar' })
		const ness = { id: store.ids.toId(HARBOURS, 1), label: 'Ness' }
		const renamed = changing(a, { [HARBOUR]: { match: 'Varrow' } }, { [HARBOUR]: { ...ness, label: 'Nesse' } })
		expect(changeRows(store, [renamed], by(KEEPER))[0]?.conflicts).toEqual([])
		const moved = changing(a, { [HARBOUR]: { match: 'Ness' } }, { [HARBOUR]: ness })
		const [changed] = changeRows(store, [moved], by(KEEPER))
		expect(changed).toMatchObject({ rev: 2, conflicts: [{ column: HARBOUR, yours: { match: 'Ness' } }] })
		expect(changed?.conflicts[0]?.theirs).toMatchObject({ label: 'Varrow' })
		// Nothing was written: no history, and the row is as it was.
		expect(store.db.prepare(`SELECT count(*) FROM history WHERE kind = 'change'`).pluck().get()).toBe(1)
	})

	test('names the cells that somebody else has changed, and none beside them', () => {
		const a = add({ [SITE]: 'Bar', [DEPTH]: 4 })
		const both = changing(a, { [SITE]: 'Wreck', [DEPTH]: 9 }, { [SITE]: 'Reef' })
		expect(changeRows(store, [both], by(KEEPER))[0]?.conflicts.map(({ column }) => column)).toEqual([SITE])
		const right = changing(a, { [SITE]: 'Wreck', [DEPTH]: 9 }, { [SITE]: 'Bar' })
		expect(changeRows(store, [right], by(KEEPER))[0]?.conflicts).toEqual([])
	})

	test('a blank that was filled, and a reference that was cleared meanwhile, are such changes', () => {
		const a = add({ [SITE]: 'Bar' })
		const ness = { id: store.ids.toId(HARBOURS, 1), label: 'Ness' }
		const thoughtBlank = changing(a, { [HARBOUR]: { match: 'Varrow' } }, { [HARBOUR]: null })
		expect(changeRows(store, [thoughtBlank], by(KEEPER))[0]?.conflicts).toMatchObject([{ theirs: { label: 'Ness' } }])
		changeRows(store, [changing(a, { [HARBOUR]: null })], by(KEEPER))
		const thoughtNess = changing(a, { [HARBOUR]: { match: 'Varrow' } }, { [HARBOUR]: ness })
		expect(changeRows(store, [thoughtNess], by(KEEPER))[0]?.conflicts).toMatchObject([{ theirs: null }])
	})

	test.each<[number, CellInput, string]>([
		[HARBOUR, { match: 'Twin' }, 'Harbour: "Twin" stands there more than once. Choose one from the list.'],
		[HARBOUR, { match: 'Nowhere' }, 'Harbour: "Nowhere" was not found.'],
		[HARBOUR, 'Nowhere', 'Harbour: "Nowhere" was not found.'],
		[HARBOUR, { match: 'Orrin' }, 'Harbour: "Orrin" was not found.'],
		[HARBOUR, { id: 'nonsense' }, 'Harbour: that row was not found.'],
		[HARBOUR, { file: 'x' }, 'Harbour points to a row; it holds no files.'],
		[DEPTH, { id: 'x' }, 'Depth: a value of its own was expected here.'],
		[DEPTH, { file: 'x' }, 'Depth: a value of its own was expected here.'],
		[DAY, 'no day', 'Day: A date was expected here.']
	])('of column %i to %j says what is wrong', (column, value, says) => {
		const a = add({ [SITE]: 'Bar' })
		const error = refusal(() => changeRows(store, [changing(a, { [column]: value })], by(IMKE)))
		expect(error.message).toContain(says)
		expect(error).toMatchObject({ code: 'invalid', details: { column } })
	})

	test('to a row that only its keeper sees is found for the keeper alone', () => {
		const a = add({ [SITE]: 'Bar' })
		changeRows(store, [changing(a, { [HARBOUR]: 'Orrin' })], by(KEEPER))
		expect(cell(a, HARBOUR)).toMatchObject({ label: 'Orrin' })
	})

	test('to nothing clears the cell, of any type', () => {
		const a = add({ [SITE]: 'Bar', [DEPTH]: 4 })
		changeRows(store, [changing(a, { [SITE]: '', [DEPTH]: null, [DAY]: '', [HARBOUR]: null })], by(KEEPER))
		expect([SITE, DEPTH, DAY, HARBOUR].map((column) => cell(a, column))).toEqual([null, null, null, null])
		// A text that is cleared can stand again: its key went with it.
		expect(() => add({ [SITE]: 'Bar' })).not.toThrow()
	})
})

describe('a new row', () => {
	test('gets its number and defaults, those too that its writer does not see', () => {
		const row = add({ [SITE]: 'Wreck' }, IMKE)
		expect(cells(row)).toMatchObject({
			...{ [cellKey(NO)]: 'D-2026-001', [cellKey(DEPTH)]: 0.1, [cellKey(COST)]: 40, [cellKey(SEEN)]: false },
			...{ [cellKey(SAID)]: 'mind the nets', [cellKey(DAY)]: '2026-11-28' }
		})
		// A default in error, or one that comes to nothing, is none.
		expect(cell(row, CALM)).toBeNull()
		expect(cell(add({ [SITE]: 'Bar' }), SAID)).toBeNull()
	})

	test('keeps what was filled in; what was sent blank is filled', () => {
		const own = add({ [NO]: 'mine', [DEPTH]: 20, [DAY]: '2026-01-01' })
		expect([NO, DEPTH, DAY, SEEN].map((column) => cell(own, column))).toEqual(['mine', 20, '2026-01-01', true])
		const blank = add({ [NO]: '', [DEPTH]: null, [DAY]: '' })
		expect([NO, DEPTH, DAY].map((column) => cell(blank, column))).toEqual(['D-2026-001', 0.1, '2026-11-28'])
		expect(
			readRows(store, { person: KEEPER }, { table: DIVES, labelIs: 'D-2026-001' }, NOW).rows.map(({ id }) => id)
		).toEqual([blank])
	})

	test('is numbered on within its year, after the greatest that stands there, and no number comes twice', () => {
		add({ [NO]: 'D-2026-007' })
		add({ [NO]: 'D-2025-900' })
		add({ [NO]: 'D-2026-00x' })
		expect([add({}), add({})].map((row) => cell(row, NO))).toEqual(['D-2026-008', 'D-2026-009'])
		const refused = () => store.db.transaction(() => add({ [DEPTH]: 'deep' }))()
		expect(refused).toThrow('Depth')
		expect(cell(add({}), NO)).toBe('D-2026-010')
		expect(cell(add({}, KEEPER, Date.parse('2027-01-01T00:00:00Z')), NO)).toBe('D-2027-001')
		expect(cell(add({}), NO)).toBe('D-2026-011')
	})
})
