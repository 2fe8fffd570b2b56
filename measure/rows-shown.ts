/**
 * Rows shown otherwise: a month of a calendar over a million rows, and a map of 5,000 places, each with all that it sends, against
 * the statement by hand alone.
 */
import { appSchema, APP_FORMAT, type ScreenInput } from '../src/lib/core/app/document.ts'
import { MOST_COUNTED } from '../src/lib/core/chart/most-counted.ts'
import type { ColumnEntry } from '../src/lib/core/workspace/document.ts'
import { openScreen } from '../src/lib/server/apps/open-screen.ts'
import type { Store } from '../src/lib/server/store/store.ts'
import { KEEPER, openScratch } from '../tests/support/scratch-store.ts'
import { openMillion } from './page.ts'
import { paired } from './timing.ts'

const RUNS = 9
const NOW = Date.parse('2026-11-23T12:00:00Z')
const MOORINGS = 3
const [CODE, HARBOUR, DUE, DEPTH] = [20, 21, 22, 23]
const PLACES = 5_000
const THEN = 20_000

type Line = ScreenInput['lines'][number]

export interface ShownCase {
	readonly name: string
	/** In ms, medians. */
	readonly ours: number
	readonly byHand: number
	/** What is sent, in bytes of JSON. */
	readonly sent: number
}

export function measureRowsShown(): ShownCase[] {
	return [calendarOfMillion(), mapOfPlaces(), chartOfMillion(), scatterOfMillion(), tableThen()]
}

function calendarOfMillion(): ShownCase {
	const store = openMillion()
	store.db.exec(`CREATE INDEX IF NOT EXISTS due ON t${MOORINGS} (c${DUE})`)
	const line: Line = { id: 'k', kind: 'calendar', table: MOORINGS, where: '', by: DUE, columns: [CODE, DEPTH] }
	const byHand = store.db
		.prepare(
			`SELECT n, c20, c22, c23 FROM t3 WHERE c22 BETWEEN '2026-10-26' AND '2026-12-06' AND c21 = 1 ORDER BY c22, n LIMIT 401`
		) // prettier-ignore
		.raw()
	const shown = () => open(store, { line, person: 2, held: { 'when-k': '2026-11' } })
	const found = measured('a month of a calendar, own harbour (a quarter of a million rows)', shown, () => byHand.all())
	store.db.close()
	return found
}

function mapOfPlaces(): ShownCase {
	const columns: ColumnEntry[] = [
		{ id: 20, name: 'name', type: 'text' },
		{ id: 21, name: 'at', type: 'place' },
		{ id: 22, name: 'kind', type: 'choice', choices: ['Can', 'Cone', 'Ball'] }
	]
	const store = openBuoys(columns, 'name <> "B7"')
	store.db.exec(`
		WITH RECURSIVE some(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM some WHERE i < ${PLACES})
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21, c21k, c22)
		SELECT i, 0, 0, 'B' || i, 'b' || i, '50.' || (1000 + i * 7919 % 9000) || ', -4.' || (1000 + i * 104729 % 9000), '', 1 + i % 3 FROM some`)
	const line: Line = { id: 'm', kind: 'map', table: 2, where: '', at: 21, by: 22, columns: [20, 22] }
	const byHand = store.db
		.prepare(`SELECT n, c20, c21, c22 FROM t2 WHERE c20k <> 'b7' AND c21 IS NOT NULL ORDER BY n`)
		.raw()
	const found = measured(`a map of ${PLACES.toLocaleString('en-GB')} places`, () => open(store, { line, person: 2 }), () => byHand.all()) // prettier-ignore
	store.db.close()
	return found
}

/** Whoever sees most rows: made of the hundred thousand that were added last. */
function chartOfMillion(): ShownCase {
	const store = openMillion()
	const by = { by: { column: DUE, step: 'months' as const }, parted: { column: HARBOUR, step: null } }
	const measure = { of: 'mean' as const, column: DEPTH }
	const line: Line = { id: 'c', kind: 'chart', table: MOORINGS, where: '', measure, ...by }
	const byHand = store.db
		.prepare(
			`SELECT m, c21, avg(d) FROM (SELECT substr(c22, 1, 7) AS m, c21, c23 / 10.0 AS d FROM t3 WHERE c21 = 2 OR c22 < '2026-11-23' ORDER BY n DESC LIMIT ${MOST_COUNTED + 1}) GROUP BY m, c21`
		)
		.raw()
	const name = 'the mean of depth by month and harbour, own harbour or overdue, of the 100,000 rows added last'
	const found = measured(name, () => open(store, { line, person: 3 }), () => byHand.all()) // prettier-ignore
	store.db.close()
	return found
}

/** Against the same squares counted by hand, their ends known. */
function scatterOfMillion(): ShownCase {
	const store = openMillion()
	const line: Line = { id: 'x', kind: 'scatter', table: MOORINGS, where: '', up: DEPTH, across: DEPTH }
	const byHand = store.db
		.prepare(
			`SELECT CAST(floor(c23 / 0.5) AS INTEGER) AS a, CAST(floor(c23 * 1) AS INTEGER) AS b, count(*), avg(c23), avg(c23) FROM (SELECT c23 FROM t3 WHERE c21 = 1 ORDER BY n DESC LIMIT ${MOST_COUNTED + 1}) GROUP BY a, b`
		)
		.raw()
	const shown = () => open(store, { line, person: 2 })
	const found = measured('a scatter, own harbour, of the 100,000 rows added last', shown, () => byHand.all())
	store.db.close()
	return found
}

/** A list of 20,000 rows as it was, 4,000 of which were changed since; by hand the same join, without rights, cells or order. */
function tableThen(): ShownCase {
	const columns: ColumnEntry[] = [
		{ id: 20, name: 'name', type: 'text' },
		{ id: 21, name: 'depth', type: 'whole number' }
	]
	const store = openBuoys(columns, 'depth > 0')
	store.db.exec(`
		WITH RECURSIVE some(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM some WHERE i < ${THEN})
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21) SELECT i, 0, 0, 'B' || i, 'b' || i, 1 + i % 90 FROM some;
		INSERT INTO history (at, person, through, kind, table_id, row_n, body, seal)
		SELECT ${NOW}, 1, 'grid', 'change', 2, n, json_object('before', json_object('c20', c20, 'c21', c21 - 1), 'after', json_object('c21', c21)), '' FROM t2 WHERE n % 5 = 0`)
	const line: Line = {
		id: 'p',
		kind: 'list',
		table: 2,
		where: '',
		sort: [],
		columns: [20, 21],
		opens: null,
		asOf: 'DATE(2026; 11; 1)'
	}
	const byHand = store.db
		.prepare(
			`SELECT n, (SELECT body FROM history WHERE table_id = 2 AND row_n = n AND at >= ? ORDER BY seq LIMIT 1), c20, c21 FROM t2`
		)
		.raw()
	const began = Date.parse('2026-11-02T00:00:00Z')
	const found = measured('a list of 20,000 rows as it was three weeks ago', () => open(store, { line, person: 2 }), () => byHand.all(began)) // prettier-ignore
	store.db.close()
	return found
}

/** A table of buoys, and one person who sees those that fit a condition. */
function openBuoys(columns: ColumnEntry[], where: string): Store {
	const store = openScratch({
		now: NOW,
		roles: [{ id: 10, name: 'Crew', includes: [] }],
		lines: [{ id: 'c', table: 2, role: 10, verbs: ['see'], where, columns: { kind: 'all' } }],
		tables: [{ id: 2, name: 'buoys', keepers: [KEEPER], label: 20, columns }]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (2, 0, 0, 'Imke', 'imke');
		INSERT INTO role_held (person, role) VALUES (2, 10)`)
	return store
}

function measured(name: string, shown: () => unknown, byHand: () => unknown): ShownCase {
	return { name, ...paired(shown, byHand, RUNS), sent: JSON.stringify(shown()).length }
}

function open(store: Store, asked: { line: Line; person: number; held?: Record<string, string> }) {
	const { line, person, held = {} } = asked
	const none = { about: '', colour: 'sea' as const, routines: [], signoffs: [] }
	const screens = [{ id: 's', title: 'S', lines: [line] }]
	const document = appSchema.parse({ format: APP_FORMAT, name: 'Measured', screens, ...none })
	return openScreen(store, { app: 1, draft: true, document, screen: 's', actor: { person }, now: NOW, held })
}
