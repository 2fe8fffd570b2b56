/**
 * The store's side of a builder's table: a STRICT table with real columns, its indexes, and a view with the human names
 * that any SQLite tool can read.
 *
 * Column numbers are never used again, so renaming moves no data.
 */
import { rollupSortPlace } from '$lib/core/formula/sql/rollups.ts'
import { quoteName, raw, joinSql, sql } from '$lib/core/sql/sql.ts'
import { comparedPlace, hasKey, isStored, storageClass } from '$lib/core/table/storage.ts'
import type { Column, Table } from '$lib/core/model/table.ts'
import type { Db } from './open.ts'

/** The table of the store for one of the workspace, with its columns; indexes come apart. */
export function createTable(db: Db, table: Table): void {
	db.exec(`
		CREATE TABLE t${table.id} (
			n INTEGER PRIMARY KEY,
			rev INTEGER NOT NULL DEFAULT 1,
			made_by INTEGER,
			made_at INTEGER NOT NULL,
			changed_by INTEGER,
			changed_at INTEGER NOT NULL
			${table.columns
				.filter(isStored)
				.flatMap(columnDefinitions)
				.map((each) => `, ${each}`)
				.join('')}
		) STRICT`)
}

/** Indexes come after the rows: filling an indexed table takes several times as long. */
export function createIndexes(db: Db, table: Table): void {
	for (const column of table.columns) if (isIndexed(table, column)) createIndex(db, table, column)
}

/** By a column and the row's number, so that it orders rows and finds them. */
export function createIndex(db: Db, table: Table, column: Column): void {
	const kept = rollupSortPlace(column)
	const name = kept ?? comparedPlace(column)
	// Not UNIQUE: the index would speak before the lines of access do, and tell whoever may not write that a value is
	// taken. The one writer asks after the lines, in the same transaction, so nothing can come between.
	db.exec(`CREATE INDEX IF NOT EXISTS i${table.id}_${kept ?? column.id} ON t${table.id} (${name}, n)`)
}

/** Gives a stored column its place; one that is there already stays as it is. */
export function addColumn(db: Db, table: Table, column: Column): void {
	if (!isStored(column)) return
	const there = new Set(db.prepare(`SELECT name FROM pragma_table_info('t${table.id}')`).pluck().all())
	for (const definition of columnDefinitions(column)) {
		// A computed column that was kept before, then a virtual column, still has its place.
		if (!there.has(definition.split(' ')[0])) db.exec(`ALTER TABLE t${table.id} ADD COLUMN ${definition}`)
	}
	if (isIndexed(table, column)) createIndex(db, table, column)
}

/** Made anew whenever a name changes. Virtual columns are left out: they depend on who looks. */
export function replaceView(db: Db, table: Table, oldName?: string): void {
	const columns = table.columns.filter(isStored).map((column) => sql`c${column.id} AS ${quoteName(column.name)}`)
	const view = quoteName(viewName(table.name)).text
	if (oldName !== undefined) dropView(db, oldName)
	dropView(db, table.name)
	const list = joinSql([raw('n'), ...columns], ', ').text
	db.exec(`CREATE VIEW ${view} AS SELECT ${list} FROM t${table.id}`)
}

export function dropView(db: Db, name: string): void {
	db.exec(`DROP VIEW IF EXISTS ${quoteName(viewName(name)).text}`)
}

export function dropTable(db: Db, id: number): void {
	db.exec(`DROP TABLE IF EXISTS t${id}`)
}

/** Prefixed, so that no name a person chooses can meet one of the program's own tables. */
function viewName(name: string): string {
	return `table ${name}`
}

function columnDefinitions(column: Column): string[] {
	const definitions = [`c${column.id} ${storageClass(column)}`]
	if (hasKey(column) || column.computed) definitions.push(`c${column.id}k TEXT`)
	if (column.computed) definitions.push(`c${column.id}e INTEGER`)
	return definitions
}

function isIndexed(table: Table, column: Column): boolean {
	return isStored(column) && (column.type === 'reference' || column.unique === true || column.id === table.label)
}
