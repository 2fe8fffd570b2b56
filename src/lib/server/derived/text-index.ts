/**
 * Indexes of the text of large tables (`core/query/text-search.ts`): made little by little beside other work, then kept by
 * triggers with each change of a text, whatever writes it. Small tables are looked through as quickly without.
 */
import { indexedColumns } from '$lib/core/query/text-search.ts'
import { hasKey } from '$lib/core/table/storage.ts'
import type { Column, Table } from '$lib/core/model/table.ts'
import type { Store } from '../store/store.ts'

/** A table of so many rows is looked through in 6 ms. */
const LARGE = 50_000
/** Rows that are taken in at once: some 5 ms, which edits may have to wait for. */
const STEP = 500
/** Past all numbers of rows: the index is whole. */
const WHOLE = Number.MAX_SAFE_INTEGER

const RECORDS = `SELECT table_id AS id, upto, places FROM text_index`
const ADD = `INSERT INTO text_index (table_id, places) VALUES (?, ?)`
const REACH = `UPDATE text_index SET upto = ? WHERE table_id = ?`
const DROP = `DELETE FROM text_index WHERE table_id = ?`
const UPTO = `SELECT upto FROM text_index WHERE table_id = ?`

interface Indexed {
	readonly id: number
	readonly upto: number
	readonly places: string
}

/** Whether all of a table's text is in its index. */
export function isTextIndexed(store: Store, table: Table): boolean {
	return store.prepare(UPTO).pluck().get(table.id) === WHOLE
}

/** Takes in some rows of one table that wants an index. */
export function growTextIndex(store: Store): 'more' | 'done' {
	const known = new Map(
		store
			.prepare<Indexed>(RECORDS)
			.all()
			.map((each) => [each.id, each])
	)
	for (const table of store.workspace().catalogue.tables.values()) {
		const record = known.get(table.id)
		if (record?.upto === WHOLE || (!record && !isLarge(store, table))) continue
		if (!record) begin(store, table)
		takeIn(store, table, record?.upto ?? 0)
		return 'more'
	}
	return 'done'
}

/** Drops what no longer fits: of tables that are gone, and of those whose text lies in other places now. */
export function alignTextIndexes(store: Store): void {
	const { tables } = store.workspace().catalogue
	for (const { id, places } of store.prepare<Indexed>(RECORDS).all()) {
		const table = tables.get(id)
		if (table && placesOf(table) === places) continue
		for (const verb of ['add', 'change', 'remove']) store.db.exec(`DROP TRIGGER IF EXISTS text_${id}_${verb}`)
		store.db.exec(`DROP TABLE IF EXISTS s${id}`)
		store.prepare(DROP).run(id)
	}
}

/**
 * For what is undone before the transaction ends: nothing is taken into any index until then. To undo what an index took in
 * undoes its upkeep as well, which would be due again each time.
 */
export function leaveTextIndexes(store: Store): void {
	store.prepare(`UPDATE text_index SET upto = 0`).run()
}

function isLarge(store: Store, table: Table): boolean {
	if (indexedColumns(table).length === 0) return false
	return store.prepare(`SELECT 1 FROM t${table.id} LIMIT 1 OFFSET ${LARGE}`).get() !== undefined
}

function begin(store: Store, table: Table): void {
	const { id } = table
	store.db.exec(`
		CREATE VIRTUAL TABLE s${id} USING fts5(body, tokenize = 'trigram', content = '', contentless_delete = 1, detail = none);
		${triggersOf(table).join('\n')}`)
	store.prepare(ADD).run(id, placesOf(table))
}

function takeIn(store: Store, table: Table, upto: number): void {
	const { id } = table
	const last = store.pluck<number | null>(
		`SELECT max(n) FROM (SELECT n FROM t${id} WHERE n > ? ORDER BY n LIMIT ${STEP})`,
		upto
	)
	if (typeof last === 'number')
		store
			.prepare(
				`INSERT INTO s${id} (rowid, body) SELECT n, ${bodyOf(table, 'r')} FROM t${id} AS r WHERE n > ? AND n <= ?`
			)
			.run(upto, last)
	store.prepare(REACH).run(last ?? WHOLE, id)
}

/** Rows past what is taken in wait for their turn, so none comes in twice. */
function triggersOf(table: Table): string[] {
	const { id } = table
	const within = (row: string) => `${row}.n <= (SELECT upto FROM text_index WHERE table_id = ${id})`
	const take = `DELETE FROM s${id} WHERE rowid = OLD.n;`
	const add = `INSERT INTO s${id} (rowid, body) VALUES (NEW.n, ${bodyOf(table, 'NEW')});`
	const places = placesOf(table)
	return [
		`CREATE TRIGGER text_${id}_add AFTER INSERT ON t${id} WHEN ${within('NEW')} BEGIN ${add} END;`,
		`CREATE TRIGGER text_${id}_change AFTER UPDATE OF ${places} ON t${id} WHEN ${within('OLD')} BEGIN ${take} ${add} END;`,
		`CREATE TRIGGER text_${id}_remove AFTER DELETE ON t${id} WHEN ${within('OLD')} BEGIN ${take} END;`
	]
}

function placesOf(table: Table): string {
	return indexedColumns(table)
		.map((column) => placeOf(column))
		.join(', ')
}

function placeOf(column: Column): string {
	return `c${column.id}${hasKey(column) ? 'k' : ''}`
}

/** All text of a row, by its keys; a line break between two keeps what stands in neither from being found. */
function bodyOf(table: Table, row: string): string {
	const texts = indexedColumns(table).map((column) => {
		const place = `${row}.${placeOf(column)}`
		return `coalesce(${hasKey(column) ? place : `text_key(${place})`}, '')`
	})
	return texts.join(' || char(10) || ')
}
