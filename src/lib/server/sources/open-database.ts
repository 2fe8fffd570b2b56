/**
 * A SQLite file, read as a stranger's: read-only, its own schema not trusted, base tables only, so that no view or
 * trigger of it runs here (sqlite.org, "Defense Against The Dark Arts").
 */
import Database from 'better-sqlite3'
import { quoteName } from '$lib/core/query/sql.ts'
import { refusedFile, type OpenedFile, type RowBatch, type SaidReference, type Sheet } from './sheet.ts'

const BATCH = 1_000
const TABLES = `
	SELECT name FROM sqlite_schema
	WHERE type = 'table' AND name NOT LIKE 'sqlite_%' AND sql NOT LIKE 'CREATE VIRTUAL%'
	ORDER BY name`

export function openDatabase(path: string, name: string): OpenedFile {
	const db = openReadOnly(path, name)
	try {
		db.pragma('trusted_schema = OFF')
		db.pragma('cell_size_check = ON')
		const names = db.prepare(TABLES).pluck().all() as string[]
		if (names.length === 0) throw refusedFile(`${name} holds no table. Nothing was brought in.`)
		return { kind: 'database', sheets: names.map((table) => toSheet(db, table)), close: () => db.close() }
	} catch (error) {
		db.close()
		throw error instanceof Database.SqliteError ? damaged(name) : error
	}
}

function openReadOnly(path: string, name: string): Database.Database {
	try {
		return new Database(path, { readonly: true, fileMustExist: true })
	} catch {
		throw damaged(name)
	}
}

function damaged(name: string) {
	return refusedFile(`${name} is damaged, or is no SQLite file. Nothing was brought in.`)
}

function toSheet(db: Database.Database, table: string): Sheet {
	const quoted = quoteName(table).text
	const info = db.prepare(`SELECT name, pk FROM pragma_table_info(?)`).all(table) as { name: string; pk: number }[]
	const columns = info.map((column) => column.name)
	const keys = info.filter((column) => column.pk > 0)
	const key = keys.length === 1 ? info.findIndex((column) => column.pk > 0) : undefined

	function* batches(): Generator<RowBatch> {
		const count = Number(db.prepare(`SELECT count(*) FROM ${quoted}`).pluck().get())
		const list = columns.map((column) => quoteName(column).text).join(', ')
		const statement = db.prepare(`SELECT ${list} FROM ${quoted}`).raw().safeIntegers()
		let rows: string[][] = [columns]
		let done = 0
		for (const row of statement.iterate() as IterableIterator<unknown[]>) {
			rows.push(row.map(toText))
			done++
			if (rows.length < BATCH) continue
			yield { rows, share: done / count }
			rows = []
		}
		yield { rows, share: 1 }
	}

	return { name: table, batches, said: { columns, key, references: foreignKeys(db, table, columns) } }
}

const FOREIGN_KEYS = `
	SELECT f."from" AS "from", f."table" AS sheet, coalesce(f."to", k.name) AS "to"
	FROM pragma_foreign_key_list(@table) AS f
	LEFT JOIN pragma_table_info(f."table") AS k ON k.pk = 1
	WHERE f.id NOT IN (SELECT id FROM pragma_foreign_key_list(@table) WHERE seq > 0)`

/** Foreign keys of one column. One that names no column there means the key (sqlite.org, "Foreign Key Support", 3). */
function foreignKeys(db: Database.Database, table: string, columns: readonly string[]): SaidReference[] {
	const found = db.prepare(FOREIGN_KEYS).all({ table }) as { from: string; sheet: string; to: string | null }[]
	return found.flatMap(({ from, sheet, to }) => {
		const at = columns.findIndex((column) => column.toLowerCase() === from.toLowerCase())
		return at < 0 || to === null ? [] : [{ from: at, sheet, to }]
	})
}

/** Pictures and other binary values are not text, and are left out. */
function toText(value: unknown): string {
	return value === null || value === undefined || Buffer.isBuffer(value) ? '' : String(value)
}
