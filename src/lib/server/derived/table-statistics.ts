/**
 * What the database knows of how values are spread over the rows of long tables, by which it chooses among indexes: without
 * it takes each index for one of many values, and reads a quarter of a table where it could read fifty rows.
 *
 * Taken from the first thousand entries of each index, and where one value fills these from how many values there are, up
 * to a thousand: some milliseconds, however long the table is.
 */
import type { Store } from '../store/store.ts'
import { ownJson } from '$lib/core/text/own-json.ts'

const LARGE = 10_000
/** Taken anew when a table has grown by half again. */
const GROWN = 1.5

/** Entries of each index that are read. */
const READ = 1_000

const STATISTICS = `
	SELECT idx, stat, (SELECT name FROM pragma_index_info(idx) WHERE seqno = 0) AS place
	FROM sqlite_stat1 WHERE tbl = ? AND idx IS NOT NULL`
const CORRECT = `UPDATE sqlite_stat1 SET stat = ? WHERE idx = ?`
const TAKEN = `SELECT value FROM meta WHERE key = ?`
const NOTE = `INSERT INTO meta (key, value) VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET value = excluded.value`
const INDEXES = `SELECT count(*) FROM sqlite_schema WHERE type = 'index' AND tbl_name = ?`

/** Takes them of one table where they are missing or old; false where all are as they should be. */
export function takeStatistics(store: Store): boolean {
	for (const id of store.workspace().catalogue.tables.keys()) {
		const rows = Number(store.pluck(`SELECT max(n) FROM t${id}`) ?? 0)
		if (rows < LARGE) continue
		const indexes = Number(store.pluck(INDEXES, `t${id}`))
		const key = `statistics ${id}`
		const taken = ownJson<{ rows: number; indexes: number } | null>(String(store.pluck(TAKEN, key) ?? 'null'))
		if (taken && taken.indexes === indexes && rows < taken.rows * GROWN) continue
		// Without a limit it would take samples too, with which SQLite plans a statement anew whenever a value is bound.
		store.db.exec(`PRAGMA analysis_limit = ${READ}; ANALYZE t${id}`)
		correctFewValues(store, `t${id}`)
		store.prepare(NOTE).run(key, JSON.stringify({ rows, indexes }))
		letOthersKnow(store)
		return true
	}
	return false
}

interface Statistic {
	readonly idx: string
	/** How many rows there are, and how many have the same first value, the same first two, and so on. */
	readonly stat: string
	/** The index's first place. */
	readonly place: string
}

/** Of an index of few values the first entries say only that one value fills them. */
function correctFewValues(store: Store, table: string): void {
	for (const { idx, stat, place } of store.prepare<Statistic>(STATISTICS).all(table)) {
		const [rows = 0, same = 0, ...further] = stat.split(' ').map(Number)
		if (same * 2 < READ) continue
		const values = Number(store.pluck(countValues(table, place)))
		const corrected = [rows, Math.max(1, Math.round(rows / Math.max(1, values))), ...further].join(' ')
		store.prepare(CORRECT).run(corrected, idx)
	}
}

/** From each value the index leads to the next, so that rows of the same are passed over. */
function countValues(table: string, place: string): string {
	return `
		WITH RECURSIVE value(v) AS (
			SELECT min(${place}) FROM ${table}
			UNION ALL
			SELECT (SELECT min(${place}) FROM ${table} WHERE ${place} > v) FROM value WHERE v IS NOT NULL LIMIT ${READ})
		SELECT count(v) FROM value`
}

/** Read with the schema: here at once, and by other connections when it turns. */
function letOthersKnow({ db }: Store): void {
	db.exec('ANALYZE sqlite_schema; CREATE VIEW statistics_taken AS SELECT 1; DROP VIEW statistics_taken')
}
