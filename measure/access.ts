/**
 * A person with three roles and five lines, references among them, on a million rows: a page of 50, a count, and text
 * searched, against the best hand-written SQL with the same condition; and against PostgreSQL's row security on the same
 * rows, indexes and policy, where Debian's `postgresql` is installed.
 */
import { KEEPER, openScratch } from '../tests/support/scratch-store.ts'
import { atMost, planCount, planPage } from '../src/lib/core/query/plan.ts'
import type { PageRequest } from '../src/lib/core/query/request.ts'
import { toCondition } from '../src/lib/core/query/filter.ts'
import type { Sql } from '../src/lib/core/sql/sql.ts'
import { getColumn, getTable } from '../src/lib/core/model/table.ts'
import { standingOf } from '../src/lib/server/rights/rights-of-actor.ts'
import { fewCandidates } from '../src/lib/server/rows/text-candidates.ts'
import type { Store } from '../src/lib/server/store/store.ts'
import { readAccess } from '../src/lib/server/review/read-access.ts'
import { createIndex } from '../src/lib/server/store/schema.ts'
import { takeStatistics } from '../src/lib/server/derived/table-statistics.ts'
import { growTextIndex } from '../src/lib/server/derived/text-index.ts'
import { openPostgres, type Postgres } from './postgres.ts'
import { median, paired, time } from './timing.ts'

const ROWS = 1_000_000
const HARBOURS = 200
/** Prime to the numbers of days and harbours, so that dates say nothing of harbours. */
const SCATTER = 104_729
const NOW = Date.parse('2026-11-24T12:00:00Z')
const TODAY = '2026-11-24'
const [HARBOUR_TABLE, MOORING_TABLE] = [2, 3]
const [MASTER, DIVER, CLERK] = [10, 11, 12]
/** Holds all three roles; holds the master's alone, and so sees one row in two hundred. */
const [ALL_ROLES, ONE_ROLE] = [2, 3]

export interface AccessCase {
	readonly name: string
	readonly ours: number
	readonly byHand: number
	/** Null where it is not installed. */
	readonly postgres: number | null
	readonly bound: number
}

export interface MeasuredAccess {
	readonly rows: number
	readonly cases: AccessCase[]
	readonly postgres: string | null
	/** How long it takes to say what unsaved lines give and take, for fifty people in ten groups. */
	readonly previewMs: number
}

export async function measureAccess(): Promise<MeasuredAccess> {
	const store = makeStore()
	const postgres = openPostgres()
	try {
		if (postgres) fillPostgres(postgres)
		const cases = casesOf(store).map(({ name, ours, byHand, theirs, person, bound, runs, bySeconds }) => {
			const own = store.prepare(ours.text).raw()
			const hand = store.db.prepare(byHand).raw()
			const [mine, its] = [own.all(...ours.params), hand.all()]
			if (mine.length !== its.length) throw new Error(`Expected ${its.length} rows of "${name}", got ${mine.length}`)
			const timed = paired(
				() => own.all(...ours.params),
				() => hand.all(),
				runs
			)
			return {
				name,
				bound,
				...timed,
				postgres: postgres ? median(postgres.time(theirs, person, bySeconds ? 3 : runs)) : null
			}
		})
		return { rows: ROWS, cases, postgres: postgres?.version ?? null, previewMs: previewLines(store) }
	} finally {
		postgres?.close()
		store.db.close()
	}
}

/** Fifty people of ten harbours, each a master, and lines that are not saved: what each would gain and lose. */
function previewLines(store: Store): number {
	const person = store.db.prepare('INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c3) VALUES (?, 0, 0, ?, ?, ?)')
	const hold = store.db.prepare('INSERT INTO role_held (person, role) VALUES (?, ?)')
	for (let i = 0; i < 50; i++) {
		person.run(100 + i, `Master ${i}`, `master ${i}`, (i % 10) + 1)
		hold.run(100 + i, MASTER)
	}
	const lines = store.workspace().document.lines.filter((line) => line.table === MOORING_TABLE)
	const times = [1, 2, 3].map((i) => {
		// Another line each time, so that nothing is remembered.
		const draft = lines.map((line) =>
			line.id === 'a' ? { ...line, where: `harbour = me.harbour or depth < 0.${i}` } : line
		)
		return time(() => readAccess(store, { table: MOORING_TABLE, draft, actor: { person: KEEPER }, now: NOW }))
	})
	return median(times)
}

interface Compared {
	readonly name: string
	readonly person: number
	readonly ours: Sql
	readonly byHand: string
	/** For PostgreSQL: its policy adds the condition. */
	readonly theirs: string
	readonly bound: number
	readonly runs: number
	/** PostgreSQL takes seconds each time, so it is asked three times. */
	readonly bySeconds?: boolean
}

function casesOf(store: Store): Compared[] {
	const { catalogue } = store.workspace()
	const table = getTable(catalogue, MOORING_TABLE)
	const columns = [20, 21, 22, 23].map((id) => getColumn(table, id))
	const page = (person: number, request: Partial<PageRequest>): Sql => {
		const { rights } = standingOf(store, { person }, NOW)
		const plan = planPage({ table, columns, where: [], ...request }, { catalogue, rights })
		const [query] = plan.branches
		if (!query) throw new Error('Expected the plan to have a branch')
		return atMost(query, 50)
	}
	const sort = { column: getColumn(table, 22), descending: false }
	const masked = { column: getColumn(table, 24), descending: true }
	const own = `r.c21 = 1`
	const region = `(SELECT h.c11k FROM t2 h WHERE h.n = r.c21) = 'west' AND r.c22 < '${TODAY}'`
	const all = `(${own} OR (${region}) OR r.c23 > 118 OR r.c25 = ${ALL_ROLES} OR r.c24 > 45000)`
	const list = 'r.n, r.rev, r.c20, r.c21, (SELECT h.c10 FROM t2 h WHERE h.n = r.c21), r.c22, r.c23'
	const ordered = (where: string) =>
		`SELECT ${list} FROM t3 r WHERE ${where} AND r.c22 IS NOT NULL ORDER BY r.c22, r.n LIMIT 50`
	const theirs =
		'SELECT r.n, r.code, r.harbour, (SELECT h.name FROM harbours h WHERE h.n = r.harbour), r.due, r.depth FROM moorings r'
	const contains = (text: string) => {
		const filter = { column: 20, is: 'contains' as const, text }
		const condition = toCondition(filter, table, catalogue)
		return { where: condition ? [condition] : [], among: fewCandidates(store, table, [filter]) }
	}
	const { rights } = standingOf(store, { person: ALL_ROLES }, NOW)
	return [
		{
			name: 'a page by date, three roles, five lines',
			person: ALL_ROLES,
			ours: page(ALL_ROLES, { sort }),
			byHand: ordered(all),
			theirs: `${theirs} ORDER BY r.due, r.n LIMIT 50`,
			bound: 1.3,
			runs: 200
		},
		{
			name: 'the same, where one row in two hundred is seen',
			person: ONE_ROLE,
			ours: page(ONE_ROLE, { sort }),
			byHand: ordered(own),
			theirs: `${theirs} ORDER BY r.due, r.n LIMIT 50`,
			bound: 1.3,
			runs: 40
		},
		{
			name: 'sorted by a column that some lines keep back',
			person: ALL_ROLES,
			ours: page(ALL_ROLES, { sort: masked }),
			byHand: `SELECT ${list} FROM t3 r WHERE (${own} OR r.c24 > 45000 OR (${region})) AND r.c24 IS NOT NULL ORDER BY r.c24 DESC, r.n LIMIT 50`,
			theirs: `${theirs} ORDER BY r.arrears DESC, r.n LIMIT 50`,
			bound: 1.3,
			runs: 40
		},
		{
			name: 'a count, capped at 10,000',
			person: ALL_ROLES,
			ours: planCount({ table, columns: [], where: [] }, { catalogue, rights }, 10_001),
			byHand: `SELECT count(*) FROM (SELECT 1 FROM t3 r WHERE ${all} LIMIT 10001)`,
			theirs: `SELECT count(*) FROM (SELECT 1 FROM moorings r LIMIT 10001) AS x`,
			bound: 1.3,
			runs: 40
		},
		{
			name: 'text that stands in few rows, found in those that are seen',
			person: ALL_ROLES,
			ours: page(ALL_ROLES, contains('99887')),
			byHand: `SELECT ${list} FROM (SELECT rowid AS n FROM s3 WHERE s3 MATCH '"998" AND "988" AND "887"') AS m CROSS JOIN t3 r ON r.n = m.n WHERE ${all} AND instr(r.c20k, '99887') > 0 ORDER BY r.n LIMIT 50`,
			theirs: `${theirs} WHERE position('99887' IN r.code) > 0 ORDER BY r.n LIMIT 50`,
			bound: 1.3,
			runs: 15,
			bySeconds: true
		},
		{
			name: 'text too short for the index, looked for in every row',
			person: ALL_ROLES,
			ours: page(ALL_ROLES, contains('~~')),
			byHand: `SELECT ${list} FROM t3 r WHERE ${all} AND instr(r.c20k, '~~') > 0 ORDER BY r.n LIMIT 50`,
			theirs: `${theirs} WHERE position('~~' IN r.code) > 0 ORDER BY r.n LIMIT 50`,
			bound: 1.3,
			runs: 15,
			bySeconds: true
		}
	]
}

/** One row, as both stores get it. */
function rowOf(i: number) {
	const day = new Date(Date.UTC(2025, 0, 1) + ((i * SCATTER) % 1459) * 86_400_000).toISOString().slice(0, 10)
	const owner = i % 5000 === 0 ? ALL_ROLES : null
	return {
		code: `M-${i}`,
		harbour: (i % HARBOURS) + 1,
		due: day,
		depth: (i * 31) % 120,
		arrears: (i * 17) % 50_000,
		owner
	}
}

function makeStore(): Store {
	const see = (id: string, role: number, where: string, except: number[] = []) => ({
		id,
		table: MOORING_TABLE,
		role,
		verbs: ['see' as const],
		where,
		columns: except.length > 0 ? { kind: 'except' as const, columns: except } : { kind: 'all' as const }
	})
	const store = openScratch({
		now: NOW,
		peopleColumns: [{ id: 3, name: 'harbour', type: 'reference', to: HARBOUR_TABLE, reverseName: 'people' }],
		roles: [MASTER, DIVER, CLERK].map((id) => ({ id, name: `role ${id}`, includes: [] })),
		lines: [
			{ id: 'h', table: HARBOUR_TABLE, role: MASTER, verbs: ['see'], where: '', columns: { kind: 'all' } },
			see('a', MASTER, 'harbour = me.harbour'),
			see('b', DIVER, 'harbour.region = "west" and due < TODAY()'),
			see('c', DIVER, 'depth > 11.8', [24]),
			see('d', CLERK, 'owner = me', [24]),
			see('e', CLERK, 'arrears > 450')
		],
		tables: [
			{
				id: HARBOUR_TABLE,
				name: 'harbours',
				keepers: [KEEPER],
				label: 10,
				columns: [
					{ id: 10, name: 'name', type: 'text' },
					{ id: 11, name: 'region', type: 'text' }
				]
			},
			{
				id: MOORING_TABLE,
				name: 'moorings',
				keepers: [KEEPER],
				label: 20,
				columns: [
					{ id: 20, name: 'code', type: 'code' },
					{ id: 21, name: 'harbour', type: 'reference', to: HARBOUR_TABLE },
					{ id: 22, name: 'due', type: 'date' },
					{ id: 23, name: 'depth', type: 'decimal', places: 1 },
					{ id: 24, name: 'arrears', type: 'money' },
					{ id: 25, name: 'owner', type: 'reference', to: 1 }
				]
			}
		]
	})
	store.db.transaction(() => {
		const harbour = store.db.prepare(
			'INSERT INTO t2 (n, made_at, changed_at, c10, c10k, c11, c11k) VALUES (?, 0, 0, ?, ?, ?, ?)'
		)
		for (let h = 1; h <= HARBOURS; h++) {
			const region = h % 10 === 0 ? 'west' : 'east'
			harbour.run(h, `Harbour ${h}`, `harbour ${h}`, region, region)
		}
		for (const [n, roles] of [
			[ALL_ROLES, [MASTER, DIVER, CLERK]],
			[ONE_ROLE, [MASTER]]
		] as const) {
			store.db
				.prepare('INSERT INTO t1 (n, made_at, changed_at, c1, c1k, c3) VALUES (?, 0, 0, ?, ?, 1)')
				.run(n, `p${n}`, `p${n}`)
			for (const role of roles) store.db.prepare('INSERT INTO role_held (person, role) VALUES (?, ?)').run(n, role)
		}
		const row = store.db.prepare(
			'INSERT INTO t3 (made_at, changed_at, c20, c20k, c21, c22, c23, c24, c25) VALUES (0, 0, ?, ?, ?, ?, ?, ?, ?)'
		)
		for (let i = 0; i < ROWS; i++) {
			const { code, harbour: at, due, depth, arrears, owner } = rowOf(i)
			row.run(code, code.toLowerCase(), at, due, depth, arrears, owner)
		}
	})()
	while (growTextIndex(store) !== 'done');
	const table = getTable(store.workspace().catalogue, MOORING_TABLE)
	// As releases make them for what their lists are sorted by.
	for (const id of [22, 23, 24]) createIndex(store.db, table, getColumn(table, id))
	while (takeStatistics(store));
	return store
}

/** The same rows and indexes; the lines as one policy, since several of PostgreSQL's are joined by OR as well. */
function fillPostgres(postgres: Postgres): void {
	postgres.run(`
		CREATE TABLE harbours (n INTEGER PRIMARY KEY, name TEXT, region TEXT);
		CREATE TABLE moorings (n INTEGER PRIMARY KEY, code TEXT, harbour INTEGER, due TEXT, depth INTEGER, arrears INTEGER, owner INTEGER);
		INSERT INTO harbours SELECT h, 'Harbour ' || h, CASE WHEN h % 10 = 0 THEN 'west' ELSE 'east' END FROM generate_series(1, ${HARBOURS}) AS h;
		INSERT INTO moorings
			SELECT i + 1, 'M-' || i, (i % ${HARBOURS}) + 1,
				to_char(DATE '2025-01-01' + ((i::bigint * ${SCATTER}) % 1459)::int, 'YYYY-MM-DD'),
				(i::bigint * 31) % 120, (i::bigint * 17) % 50000, CASE WHEN i % 5000 = 0 THEN ${ALL_ROLES} END
			FROM generate_series(0, ${ROWS - 1}) AS i;
		CREATE INDEX ON moorings (harbour, n);
		CREATE INDEX ON moorings (due, n);
		CREATE INDEX ON moorings (depth, n);
		CREATE INDEX ON moorings (arrears, n);
		CREATE INDEX ON moorings (owner, n);
		CREATE INDEX ON moorings (code, n);
		ALTER TABLE moorings ENABLE ROW LEVEL SECURITY;
		CREATE ROLE p${ALL_ROLES}; CREATE ROLE p${ONE_ROLE};
		GRANT SELECT ON moorings, harbours TO p${ALL_ROLES}, p${ONE_ROLE};
		CREATE POLICY all_roles ON moorings FOR SELECT TO p${ALL_ROLES} USING (
			harbour = 1 OR ((SELECT h.region FROM harbours h WHERE h.n = harbour) = 'west' AND due < '${TODAY}')
			OR depth > 118 OR owner = ${ALL_ROLES} OR arrears > 45000);
		CREATE POLICY one_role ON moorings FOR SELECT TO p${ONE_ROLE} USING (harbour = 1);
		ANALYZE;`)
}
