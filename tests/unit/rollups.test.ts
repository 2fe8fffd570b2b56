/**
 * Totals over child rows that lie in the parent's row: always what counting anew gives, whatever wrote the children, and
 * for each reader what they would count of what they see. Both are compared with a count written by hand here.
 */
import { expect, test } from 'vitest'
import type { Change } from '$lib/core/query/change.ts'
import { planPage } from '$lib/core/query/plan.ts'
import { getColumn, getTable } from '$lib/core/model/table.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { standingOf } from '$lib/server/rights/rights-of-actor.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readRows } from '$lib/server/rows/read.ts'
import type { Store } from '$lib/server/store/store.ts'
import { convertColumn } from '$lib/server/structure/change-columns.ts'
import { createIndex } from '$lib/server/store/schema.ts'
import { setFormula } from '$lib/server/structure/tables.ts'
import { randomFrom, type Random } from '../../demo/random.ts'

const NOW = Date.parse('2026-11-23T12:00:00Z')
const by = { actor: { person: KEEPER }, now: NOW, through: 'grid' as const }
const [HARBOURS, MOORINGS, INSPECTIONS] = [2, 3, 4]
const [MASTER, DIVER, LOOKER, NARROW, URGENT, FILER] = [20, 21, 22, 23, 24, 25]

const TOTALS = [
	{ id: 50, name: 'seen', formula: 'COUNT(inspections)' },
	{ id: 51, name: 'bad', formula: 'COUNT(FILTER(inspections; verdict = "Replace" and depth > 2))' },
	{ id: 52, name: 'cost', formula: 'SUM(inspections.cost)' },
	{ id: 53, name: 'mean', formula: 'AVERAGE(FILTER(inspections; urgent).cost)' },
	{ id: 54, name: 'last', formula: 'MAX(inspections.done)' },
	{ id: 55, name: 'shallowest', formula: 'MIN(FILTER(inspections; not (note = "x")).depth)' },
	{ id: 56, name: 'mixed', formula: 'IF(COUNT(inspections) > 2; "many: " & SUM(inspections.cost); "few")' },
	{ id: 57, name: 'dear', formula: 'COUNT(FILTER(inspections; twice > 100))' },
	{
		id: 58,
		name: 'share',
		formula: 'IF(COUNT(inspections) = 0; 0; COUNT(FILTER(inspections; urgent)) / COUNT(inspections))'
	}
]

function makeStore(): Store {
	return openScratch({
		now: NOW,
		peopleColumns: [{ id: 3, name: 'harbour', type: 'reference', to: HARBOURS, reverseName: 'people' }],
		roles: [MASTER, DIVER, LOOKER, NARROW, URGENT, FILER].map((id) => ({ id, name: `role ${id}`, includes: [] })),
		lines: [
			line(MASTER, MOORINGS, 'harbour = me.harbour'),
			line(MASTER, INSPECTIONS, 'mooring.harbour = me.harbour'),
			line(DIVER, MOORINGS, ''),
			line(DIVER, INSPECTIONS, 'mooring.harbour = me.harbour or diver = me'),
			line(LOOKER, MOORINGS, ''),
			line(LOOKER, INSPECTIONS, 'diver = me'),
			line(URGENT, HARBOURS, ''),
			line(URGENT, MOORINGS, ''),
			line(URGENT, INSPECTIONS, 'diver = me and urgent'),
			line(FILER, MOORINGS, ''),
			line(FILER, INSPECTIONS, 'mooring.harbour = me.harbour or filer = me.email'),
			line(NARROW, MOORINGS, ''),
			{ ...line(NARROW, INSPECTIONS, ''), columns: { kind: 'except', columns: [43] } }
		],
		tables: [
			{
				id: HARBOURS,
				name: 'harbours',
				keepers: [KEEPER],
				label: 10,
				columns: [{ id: 10, name: 'name', type: 'text' }]
			},
			{
				id: MOORINGS,
				name: 'moorings',
				keepers: [KEEPER],
				label: 30,
				columns: [
					{ id: 30, name: 'code', type: 'text' },
					{ id: 31, name: 'harbour', type: 'reference', to: HARBOURS },
					...TOTALS.map((total) => ({ ...total, type: 'computed' as const }))
				]
			},
			{
				id: INSPECTIONS,
				name: 'inspections',
				keepers: [KEEPER],
				label: 47,
				columns: [
					{ id: 40, name: 'mooring', type: 'reference', to: MOORINGS },
					{ id: 41, name: 'verdict', type: 'choice', choices: ['Fine', 'Replace'] },
					{ id: 42, name: 'depth', type: 'decimal', places: 1 },
					{ id: 43, name: 'cost', type: 'money' },
					{ id: 44, name: 'done', type: 'date' },
					{ id: 45, name: 'urgent', type: 'yes/no' },
					{ id: 46, name: 'diver', type: 'reference', to: 1 },
					{ id: 47, name: 'note', type: 'text' },
					{ id: 49, name: 'filer', type: 'email' },
					{ id: 48, name: 'twice', type: 'computed', formula: 'cost * 2' }
				]
			}
		]
	})
}

function line(role: number, table: number, where: string) {
	return { id: `${role}-${table}`, role, table, verbs: ['see' as const], where, columns: { kind: 'all' as const } }
}

function fill(store: Store, random: Random): void {
	for (let h = 1; h <= 2; h++)
		store.db
			.prepare(`INSERT INTO t2 (n, made_at, changed_at, c10, c10k) VALUES (?, 0, 0, ?, ?)`)
			.run(h, `H${h}`, `h${h}`)
	const roles = [undefined, undefined, MASTER, DIVER, LOOKER, NARROW, URGENT, FILER]
	for (let n = 2; n < roles.length; n++) {
		store.db
			.prepare(`INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c2, c2k, c3) VALUES (?, 0, 0, ?, ?, ?, ?, ?)`)
			.run(n, `P${n}`, `p${n}`, `p${n}@varrow.example`, `p${n}@varrow.example`, (n % 2) + 1)
		store.db.prepare(`INSERT INTO role_held (person, role) VALUES (?, ?)`).run(n, roles[n])
	}
	for (let n = 1; n <= 5; n++)
		store.db
			.prepare(`INSERT INTO t3 (n, made_at, changed_at, c30, c30k, c31) VALUES (?, 0, 0, ?, ?, ?)`)
			.run(n, `M${n}`, `m${n}`, 1 + random.below(2))
}

function randomCells(store: Store, random: Random) {
	const sometimes = <T>(value: T) => (random.chance(0.2) ? null : value)
	return [
		{ column: 40, value: sometimes({ id: store.ids.toId(MOORINGS, 1 + random.below(5)) }) },
		{ column: 41, value: sometimes(random.pick(['Fine', 'Replace'])) },
		{ column: 42, value: sometimes(random.below(61) / 10) },
		{ column: 43, value: sometimes((random.below(25_000) - 5_000) / 100) },
		{ column: 44, value: sometimes(`2026-0${1 + random.below(9)}-1${random.below(10)}`) },
		{ column: 45, value: sometimes(random.chance(0.5)) },
		{ column: 46, value: sometimes({ id: store.ids.toId(1, 2 + random.below(5)) }) },
		{ column: 47, value: sometimes(random.pick(['x', 'X', 'y'])) },
		{ column: 49, value: sometimes(random.pick(['P7@varrow.example', 'p7@varrow.example', 'p8@varrow.example'])) }
	]
}

interface Child {
	readonly mooring: number
	readonly verdict: number | null
	readonly depth: number | null
	readonly cost: number | null
	readonly done: string | null
	readonly urgent: number | null
	readonly diver: number | null
	readonly note: string | null
	readonly filer: string | null
	readonly harbour: number
}

/** All inspections as they stand, read without the program. */
function children(store: Store): Child[] {
	return store.db
		.prepare(
			`SELECT i.c40 AS mooring, i.c41 AS verdict, i.c42 AS depth, i.c43 AS cost, i.c44 AS done, i.c45 AS urgent, i.c46 AS diver, i.c47 AS note, i.c49 AS filer, m.c31 AS harbour
			FROM t4 i JOIN t3 m ON m.n = i.c40`
		)
		.all() as Child[]
}

/** What the totals come to over some children; `costs`: whether their costs are seen. */
function counted(rows: readonly Child[], costs = true) {
	const cost = rows.flatMap((row) => (costs && row.cost !== null ? row.cost : []))
	const urgent = rows.flatMap((row) => (row.urgent === 1 && costs && row.cost !== null ? row.cost : []))
	const depths = rows.flatMap((row) => (row.note?.toLowerCase() !== 'x' && row.depth !== null ? row.depth : []))
	const sum = cost.reduce((a, b) => a + b, 0)
	const dates = rows.flatMap((row) => row.done ?? []).sort()
	return {
		seen: rows.length,
		bad: rows.filter((row) => row.verdict === 2 && (row.depth ?? 0) > 20).length,
		cost: sum / 100,
		mean: urgent.length === 0 ? null : urgent.reduce((a, b) => a + b, 0) / urgent.length / 100,
		last: dates.at(-1) ?? null,
		shallowest: depths.length === 0 ? null : Math.min(...depths) / 10,
		mixed: rows.length > 2 ? `many: ${sum / 100}` : 'few',
		share: rows.length === 0 ? 0 : rows.filter((row) => row.urgent === 1).length / rows.length,
		dear: rows.filter((row) => costs && row.cost !== null && row.cost * 2 > 10_000).length
	}
}

function shown(store: Store, person: number) {
	const page = readRows(store, { person }, { table: MOORINGS }, NOW)
	return page.rows.map(({ id, cells }) => ({
		n: store.ids.fromId(MOORINGS, id),
		...Object.fromEntries(TOTALS.map((total) => [total.name, cells[`c${total.id}`] ?? null]))
	}))
}

function expected(store: Store, moorings: readonly number[], sees: (row: Child) => boolean, costs = true) {
	const all = children(store).filter(sees)
	return moorings.map((n) => {
		const totals = counted(
			all.filter((row) => row.mooring === n),
			costs
		)
		return { n, ...totals, mean: totals.mean === null ? null : expect.closeTo(totals.mean, 9) }
	})
}

const ALL = [1, 2, 3, 4, 5]

function expectRight(store: Store, when: string): void {
	expect(shown(store, KEEPER), when).toEqual(expected(store, ALL, () => true))
	const own = (person: number) => (person % 2) + 1
	const mine = store.db.prepare('SELECT n FROM t3 WHERE c31 = ?').pluck()
	expect(shown(store, 2), `${when}, harbour master`).toEqual(
		expected(store, mine.all(own(2)) as number[], (row) => row.harbour === own(2))
	)
	expect(shown(store, 3), `${when}, diver`).toEqual(
		expected(store, ALL, (row) => row.harbour === own(3) || row.diver === 3)
	)
	expect(shown(store, 4), `${when}, own inspections`).toEqual(expected(store, ALL, (row) => row.diver === 4))
	expect(shown(store, 6), `${when}, own urgent inspections`).toEqual(
		expected(store, ALL, (row) => row.diver === 6 && row.urgent === 1)
	)
	expect(shown(store, 7), `${when}, own harbour or filed`).toEqual(
		expected(store, ALL, (row) => row.harbour === own(7) || row.filer?.toLowerCase() === 'p7@varrow.example')
	)
	expect(shown(store, 5), `${when}, no costs`).toEqual(expected(store, ALL, () => true, false))
}

test.each([1, 2, 3, 4])(
	'totals stay right through adding, moving, changing, removing and putting back, seed %i',
	(seed) => {
		const random = randomFrom(seed)
		const store = makeStore()
		fill(store, random)
		const rows: string[] = []
		const gone: string[] = []
		for (let step = 0; step < 120; step++) {
			const change = nextChange(store, random, { rows, gone })
			const [made] = changeRows(store, [change], by)
			if (change.kind === 'add' && made) rows.push(made.row)
			if (step % 10 === 9) expectRight(store, `step ${step}, ${change.kind}`)
		}
	}
)

function nextChange(store: Store, random: Random, { rows, gone }: { rows: string[]; gone: string[] }): Change {
	const cells = randomCells(store, random)
	const what = 1 + random.below(10)
	const at = random.below(Math.max(1, rows.length))
	if (rows.length < 8 || what <= 3) return { kind: 'add', table: INSPECTIONS, cells }
	if (what <= 7)
		return {
			kind: 'change',
			table: INSPECTIONS,
			row: rows[at] ?? '',
			cells: cells.filter(() => random.chance(0.5)).concat(cells[0] ?? [])
		}
	const back = what === 8 ? gone.pop() : undefined
	if (back !== undefined) {
		rows.push(back)
		return { kind: 'restore', table: INSPECTIONS, row: back }
	}
	const [row = ''] = rows.splice(at, 1)
	gone.push(row)
	return { kind: 'remove', table: INSPECTIONS, row }
}

test('totals are right after another formula, another type and rows written past the door', () => {
	const random = randomFrom(9)
	const store = makeStore()
	fill(store, random)
	for (let i = 0; i < 40; i++)
		changeRows(store, [{ kind: 'add', table: INSPECTIONS, cells: randomCells(store, random) }], by)
	setFormula(store, { ...by, table: MOORINGS, column: 50, formula: 'COUNT(FILTER(inspections; urgent))' })
	const seen = () => shown(store, KEEPER).map((row) => (row as Record<string, unknown>)['seen'])
	const urgent = () => ALL.map((n) => children(store).filter((row) => row.mooring === n && row.urgent === 1).length)
	expect(seen()).toEqual(urgent())
	store.db.exec(`UPDATE t4 SET c45 = 1 - c45, c40 = c40 % 5 + 1`)
	expect(seen()).toEqual(urgent())
	store.db.exec(`DELETE FROM t4 WHERE n % 3 = 0`)
	expect(seen()).toEqual(urgent())
	setFormula(store, { ...by, table: MOORINGS, column: 50, formula: 'COUNT(inspections)' })
	expectRight(store, 'after the old formula again')
	const text = convertColumn(store, { ...by, table: INSPECTIONS, column: 47, type: 'long text' })
	store.db.exec(`UPDATE t4 SET c${text} = 'X' WHERE n % 2 = 0`)
	store.db.exec(`UPDATE t4 SET c47 = c${text}`)
	expectRight(store, 'after another type')
})

test('who sees every child reads the kept total, and the order by it comes from an index', () => {
	const store = makeStore()
	fill(store, randomFrom(1))
	const { catalogue } = store.workspace()
	const table = getTable(catalogue, MOORINGS)
	const cost = getColumn(table, 52)
	createIndex(store.db, table, cost)
	const planOf = (person: number, column = cost) => {
		const { rights } = standingOf(store, { person }, NOW)
		const request = { table, columns: [column], where: [], sort: { column, descending: true } }
		const [query] = planPage(request, { catalogue, rights }).branches
		if (!query) throw new Error('Expected a branch')
		return store.db
			.prepare(`EXPLAIN QUERY PLAN ${query.text}`)
			.all(...query.params)
			.map((row) => (row as { detail: string }).detail)
	}
	expect(planOf(KEEPER)).toEqual(['SCAN r USING INDEX i3_c52t0s'])
	const mean = getColumn(table, 53)
	createIndex(store.db, table, mean)
	expect(planOf(KEEPER, mean)).toEqual(['SEARCH r USING INDEX i3_c53t0m (c53t0m>?)'])
	const inOwnHarbour = planOf(2)
	expect(inOwnHarbour.filter((step) => step.includes('r_'))).toEqual([])
	// Who sees their own reads what is kept for their value; who sees some of their own counts them.
	expect(planOf(4).join('\n')).toContain('SEARCH r_1 USING PRIMARY KEY (p=? AND v=?)')
	expect(planOf(6).join('\n')).toContain('SEARCH r_1 USING INDEX')
})

test('more than 10,000 rows are ordered by a total only where it is kept for the reader; others are told', () => {
	const store = makeStore()
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (9, 0, 0, 'Looker', 'looker'), (8, 0, 0, 'Diver', 'diver');
		INSERT INTO role_held (person, role) VALUES (9, ${URGENT}), (8, ${LOOKER});
		WITH RECURSIVE i (n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM i WHERE n < 10001)
		INSERT INTO t3 (n, made_at, changed_at) SELECT n, 0, 0 FROM i;
		INSERT INTO t4 (made_at, changed_at, c40) VALUES (0, 0, 700), (0, 0, 700), (0, 0, 800)`)
	const first = (person: number, column: number) => {
		const sort = { column, descending: true }
		const page = readRows(store, { person }, { table: MOORINGS, sort, limit: 1 }, NOW)
		return { row: store.ids.fromId(MOORINGS, page.rows[0]?.id ?? ''), unsorted: page.unsorted }
	}
	expect(first(KEEPER, 50)).toEqual({ row: 700, unsorted: undefined })
	expect(first(9, 50)).toEqual({ row: 1, unsorted: 50 })
	// Few rows that point to one are ordered, however many there are in all.
	store.db.exec(`
		INSERT OR IGNORE INTO t2 (n, made_at, changed_at) VALUES (1, 0, 0);
		UPDATE t3 SET c31 = NULL;
		UPDATE t3 SET c31 = 1 WHERE n IN (700, 800, 900);
		UPDATE t4 SET c46 = 9, c45 = 1 WHERE c40 = 800`)
	const pointing = { column: 31, to: store.ids.toId(HARBOURS, 1) }
	const sort = { column: 50, descending: true }
	const few = readRows(store, { person: 9 }, { table: MOORINGS, sort, pointing }, NOW)
	expect(few.rows.map(({ id }) => store.ids.fromId(MOORINGS, id))).toEqual([800, 900, 700])
	expect(few.unsorted).toBeUndefined()
	store.db.exec('UPDATE t4 SET c46 = 8 WHERE c40 = 700')
	expect(first(8, 50)).toEqual({ row: 700, unsorted: undefined })
	// A mean, and what is put together from kept totals, need no row of another table either.
	expect(first(KEEPER, 58).unsorted).toBeUndefined()
	store.db.exec('DELETE FROM t3 WHERE n = 10001')
	expect(first(9, 50).unsorted).toBeUndefined()
	store.db.close()
})
