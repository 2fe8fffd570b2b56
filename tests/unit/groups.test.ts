/**
 * What stands in a column, counted for a reader: the same as counting, one by one, the cells that the door shows them.
 * The oracle reads all rows through `readRows` and counts in plain TypeScript.
 */
import { beforeAll, describe, expect, test } from 'vitest'
import { stepWidth } from '$lib/core/query/bands.ts'
import type { Filter } from '$lib/core/query/filter.ts'
import { cellKey, isHiddenCell, isReferenceCell, type WireCell } from '$lib/core/query/wire.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readGroups } from '$lib/server/rows/read-groups.ts'
import { readRows } from '$lib/server/rows/read.ts'
import type { Store } from '$lib/server/store/store.ts'
import { randomFrom } from '../../demo/random.ts'
import { seeLine } from '../support/see-line.ts'

const NOW = Date.parse('2026-11-23T12:00:00Z')
const [HARBOURS, CALLS, CLERK, LOOKER] = [2, 3, 10, 11]
const [CORRIE, LOWEN, NOBODY] = [2, 3, 4]
const [BOAT, HARBOUR, NIGHTS, CREW, STATE, PAID, CAME, FEE, NOTE, LATE, KIND, MINE] = [
	30, 31, 32, 33, 34, 35, 36, 37, 38, 39, 40, 41
]
const COUNTED = [BOAT, HARBOUR, NIGHTS, STATE, PAID, CAME, FEE, LATE, KIND]
let store: Store

beforeAll(() => {
	const [see, seeHarbours] = [seeLine(CALLS), seeLine(HARBOURS)]
	store = openScratch({
		now: NOW,
		roles: [CLERK, LOOKER].map((id) => ({ id, name: `role ${id}`, includes: [] })),
		lines: [
			see('a', CLERK, 'nights > 2', [FEE]),
			see('b', CLERK, 'paid'),
			seeHarbours('c', CLERK, 'name <> "Gull Stair"'),
			see('d', LOOKER, '', [FEE, BOAT])
		],
		tables: [
			{
				id: HARBOURS,
				name: 'harbours',
				keepers: [KEEPER],
				label: 20,
				columns: [{ id: 20, name: 'name', type: 'text' }]
			},
			{
				id: CALLS,
				name: 'calls',
				keepers: [KEEPER],
				label: BOAT,
				columns: [
					{ id: BOAT, name: 'boat', type: 'text' },
					{ id: HARBOUR, name: 'harbour', type: 'reference', to: HARBOURS },
					{ id: NIGHTS, name: 'nights', type: 'whole number' },
					{ id: CREW, name: 'crew', type: 'several choices', choices: ['one', 'two'] },
					{ id: STATE, name: 'state', type: 'choice', choices: ['Expected', 'Moored', 'Gone'] },
					{ id: PAID, name: 'paid', type: 'yes/no' },
					{ id: CAME, name: 'came', type: 'date' },
					{ id: FEE, name: 'fee', type: 'money' },
					{ id: NOTE, name: 'note', type: 'long text' },
					{ id: LATE, name: 'late', type: 'computed', formula: 'came < TODAY() - 300' },
					{ id: KIND, name: 'kind', type: 'computed', formula: 'IF(nights > 4; "Long"; "short")' },
					{ id: MINE, name: 'others', type: 'computed', formula: 'COUNT(harbour.calls)' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (${CORRIE}, 0, 0, 'C', 'c'), (${LOWEN}, 0, 0, 'L', 'l'), (${NOBODY}, 0, 0, 'N', 'n');
		INSERT INTO role_held (person, role) VALUES (${CORRIE}, ${CLERK}), (${LOWEN}, ${LOOKER});
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k) VALUES (1, 0, 0, 'Ness Hythe', 'ness hythe'), (2, 0, 0, 'Gull Stair', 'gull stair'), (3, 0, 0, 'Brig', 'brig')`)
	const random = randomFrom(11)
	const sometimes = <T>(value: T) => (random.chance(0.15) ? null : value)
	for (let i = 0; i < 400; i++) {
		const cells = [
			{ column: BOAT, value: sometimes(random.pick(['Dunlin', 'dunlin', 'KNOT', 'Knot', 'Ruff'])) },
			{ column: HARBOUR, value: sometimes({ id: store.ids.toId(HARBOURS, 1 + random.below(3)) }) },
			{ column: NIGHTS, value: sometimes(random.below(8)) },
			{ column: STATE, value: sometimes(random.pick(['Expected', 'Moored', 'Gone'])) },
			{ column: PAID, value: sometimes(random.chance(0.5)) },
			{ column: CAME, value: sometimes(`2026-0${1 + random.below(9)}-1${random.below(10)}`) },
			{ column: FEE, value: sometimes(random.below(90_000) / 100 - 100) }
		]
		changeRows(store, [{ kind: 'add', table: CALLS, cells }], { actor: { person: KEEPER }, now: NOW, through: 'grid' })
	}
})

const groups = (person: number, column: number, filters: Filter[] = []) =>
	readGroups(store, { actor: { person }, request: { table: CALLS, filters }, column, now: NOW })

/** Every row that a person sees. */
function rowsOf(person: number, filters: Filter[] = []) {
	const rows = []
	let after: string | undefined
	do {
		const page = readRows(store, { person }, { table: CALLS, filters, limit: 1000, after }, NOW)
		rows.push(...page.rows)
		after = page.next ?? undefined
	} while (after !== undefined)
	return rows
}

/** By what a cell is the same as another. */
function nameOf(cell: WireCell): string {
	if (isReferenceCell(cell)) return cell.label
	if (isHiddenCell(cell)) return '(hidden)'
	return typeof cell === 'string' ? cell.toLowerCase() : String(cell)
}

function counted(person: number, column: number, filters: Filter[] = []) {
	const rows = rowsOf(person, filters)
	const cells = rows.flatMap(({ cells }) => (cellKey(column) in cells ? [cells[cellKey(column)] ?? null] : []))
	const filled = cells.filter((cell) => cell !== null)
	const by = new Map<string, number>()
	for (const cell of filled) by.set(nameOf(cell), (by.get(nameOf(cell)) ?? 0) + 1)
	return { rows: rows.length, unseen: rows.length - cells.length, blank: cells.length - filled.length, by, filled }
}

describe.each([
	['who keeps the table', KEEPER],
	['who sees some rows, and a column on some of these', CORRIE],
	['who sees all rows without two columns', LOWEN]
])('%s', (_who, person) => {
	test.each(COUNTED)('column %i is counted as its cells are shown', (column) => {
		for (const filters of [[], [{ column: STATE, is: 'equal' as const, text: 'Moored' }]]) {
			const [found, wanted] = [groups(person, column, filters), counted(person, column, filters)]
			if (person === LOWEN && (column === FEE || column === BOAT)) {
				expect([found, wanted.filled]).toEqual([null, []])
				continue
			}
			expect(found).toMatchObject({
				rows: wanted.rows,
				unseen: wanted.unseen,
				blank: wanted.blank,
				values: wanted.by.size
			})
			expect(found?.groups.reduce((sum, group) => sum + group.rows, 0)).toBe(wanted.filled.length)
			if (found?.by === 'value')
				expect(Object.fromEntries(found.groups.map(({ value, rows }) => [nameOf(value), rows]))).toEqual(
					Object.fromEntries(wanted.by)
				)
			for (const { value, before, rows } of found?.by === 'step' ? found.groups : [])
				expect(
					wanted.filled.filter((cell) => Number(cell) >= Number(value) && Number(cell) < Number(before)).length,
					`${String(value)} to ${before}`
				).toBe(rows)
			for (const { value, rows } of found?.by === 'month' ? found.groups : [])
				expect(wanted.filled.filter((cell) => String(cell).startsWith(String(value))).length).toBe(rows)
		}
	})
})

test('the ways of counting are all met: values, steps and months', () => {
	expect([BOAT, NIGHTS, FEE, CAME].map((column) => groups(KEEPER, column)?.by)).toEqual([
		'value',
		'value',
		'step',
		'month'
	])
})

test('the least, the most and the mean are of the cells that are shown', () => {
	for (const person of [KEEPER, CORRIE]) {
		const fees = counted(person, FEE).filled.map(Number)
		const found = groups(person, FEE)
		expect([found?.least, found?.most]).toEqual([Math.min(...fees), Math.max(...fees)])
		expect(found?.mean).toBeCloseTo(fees.reduce((sum, fee) => sum + fee, 0) / fees.length, 9)
	}
	expect(groups(KEEPER, FEE)?.most).not.toBe(groups(CORRIE, FEE)?.most)
})

test('references to rows that are not seen are one group without a name, and no row that is kept back is counted', () => {
	const found = groups(CORRIE, HARBOUR)
	expect(found?.groups.filter(({ value }) => isHiddenCell(value))).toHaveLength(1)
	expect(JSON.stringify(found)).not.toContain('Gull Stair')
	expect(JSON.stringify(groups(KEEPER, HARBOUR))).toContain('Gull Stair')
	expect(groups(LOWEN, HARBOUR)?.groups).toHaveLength(1)
})

test('a column that is seen nowhere, a table that is not seen, and one that cannot be counted give nothing', () => {
	expect([groups(LOWEN, FEE), groups(LOWEN, BOAT), groups(NOBODY, STATE)]).toEqual([null, null, null])
	expect([groups(KEEPER, NOTE), groups(KEEPER, CREW), groups(KEEPER, 999), groups(KEEPER, MINE)]).toEqual([
		null,
		null,
		null,
		null
	])
})

test.each([
	[0, 140, 14, 10],
	[0, 141, 14, 20],
	[-100, 800, 14, 100],
	[0, 0.3, 14, 0.05],
	[5, 5, 14, 1],
	[0, 1e12, 14, 1e11]
])('from %d to %d in about %d steps: %d wide', (least, most, about, width) => {
	expect(stepWidth(least, most, about)).toBeCloseTo(width, 12)
})
