/**
 * A SQLite file, read as a stranger's: read-only, its own schema not trusted, base tables only, so that no view or
 * trigger of it runs here (sqlite.org, "Defense Against The Dark Arts").
 */
import Database from 'better-sqlite3'
import { numberCellText } from '$lib/core/exchange/cell-text.ts'
import { quoteName } from '$lib/core/sql/sql.ts'
import { signOf } from '$lib/core/table/kinds/currency.ts'
import { countOf } from '$lib/core/text/count.ts'
import { BATCH, refusedFile, type OpenedFile, type RowBatch, type SaidReference, type Sheet } from './sheet.ts'

/** Every table but SQLite's own, with what it is: `table`, `view`, `virtual` or `shadow`, the last kept by a virtual one. */
const TABLES = `
	SELECT name, type FROM pragma_table_list
	WHERE schema = 'main' AND name NOT LIKE 'sqlite\\_%' ESCAPE '\\'
	ORDER BY name`

export function openDatabase(path: string, name: string): OpenedFile {
	const db = openReadOnly(path, name)
	try {
		db.pragma('trusted_schema = OFF')
		db.pragma('cell_size_check = ON')
		const all = db.prepare<unknown[], { name: string; type: string }>(TABLES).all()
		const tables = all.filter(({ type }) => type === 'table').map((each) => each.name)
		if (tables.length === 0) throw refusedFile(`${name} holds no table. Nothing was brought in.`)
		const notes = [...asideNotes(all), ...walNotes(db, name)]
		return { kind: 'database', sheets: tables.map((table) => toSheet(db, table, notes)), close: () => db.close() }
	} catch (error) {
		db.close()
		throw error instanceof Database.SqliteError ? damaged(name) : error
	}
}

/** Views are questions that would run a stranger's SQL; virtual tables are indexes over what the tables hold. */
function asideNotes(all: readonly { readonly name: string; readonly type: string }[]): string[] {
	return (
		[
			['view', 'asks the tables again, and is', 'ask the tables again, and are'],
			[
				'virtual',
				'is kept by a part of the database that is not opened here, and is',
				'are kept by parts of the database that are not opened here, and are'
			]
		] as const
	).flatMap(([type, one, many]) => {
		const names = all.filter((each) => each.type === type).map((each) => each.name)
		const [first] = names
		if (first === undefined) return []
		return names.length === 1 ? [`${first} ${one} left aside.`] : [`${names.join(', ')} ${many} left aside.`]
	})
}

/** What the program that writes it has not yet put into the file lies in another beside it (sqlite.org, "WAL-mode File Format"). */
function walNotes(db: Database.Database, name: string): string[] {
	return db.pragma('journal_mode', { simple: true }) === 'wal'
		? [
				`Its latest changes may still lie in ${name}-wal beside it. Where another program writes this file, close that program first, and bring the file in again.`
			]
		: []
}

function openReadOnly(path: string, name: string): Database.Database {
	try {
		return new Database(path, { readonly: true, fileMustExist: true })
	} catch {
		throw damaged(name)
	}
}

function damaged(name: string) {
	return refusedFile(
		`${name} is a database of SQLite, and damaged. Mend it where it comes from (".recover" of the sqlite3 shell), and bring the copy in.`
	)
}

/** Ordinary columns and computed ones, which are hidden in another way than those of virtual tables. */
const COLUMNS = `SELECT name, upper(type) AS declared, pk, hidden IN (2, 3) AS isComputed FROM pragma_table_xinfo(?) WHERE hidden <> 1`

interface ColumnInfo {
	readonly name: string
	/** Its type in capitals, as the table was made; nothing is bound by it. */
	readonly declared: string
	readonly pk: number
	readonly isComputed: number
}

function toSheet(db: Database.Database, table: string, notes: readonly string[]): Sheet {
	const quoted = quoteName(table).text
	const info = db.prepare<unknown[], ColumnInfo>(COLUMNS).all(table)
	const columns = info.map((column) => column.name)
	const keys = info.filter((column) => column.pk > 0)
	const key = keys.length === 1 ? info.findIndex((column) => column.pk > 0) : undefined
	const binary = new Map<number, number>()

	function* batches(): Generator<RowBatch> {
		const count = Number(db.prepare(`SELECT count(*) FROM ${quoted}`).pluck().get())
		const list = columns.map((column) => quoteName(column).text).join(', ')
		const statement = db.prepare(`SELECT ${list} FROM ${quoted}`).raw().safeIntegers()
		let rows: string[][] = [columns]
		let typed: (ReadonlySet<number> | undefined)[] = [undefined]
		let done = 0
		binary.clear()
		// `raw` rows are lists.
		for (const row of statement.iterate() as IterableIterator<unknown[]>) {
			for (const [i, value] of row.entries()) if (Buffer.isBuffer(value)) binary.set(i, (binary.get(i) ?? 0) + 1)
			rows.push(row.map((value, i) => toText(value, info[i]?.declared ?? '')))
			typed.push(
				new Set(row.flatMap((value, i) => (typeof value === 'number' || typeof value === 'bigint' ? [i] : [])))
			)
			done++
			if (rows.length < BATCH) continue
			yield { rows, typed, share: done / count }
			rows = []
			typed = []
		}
		yield { rows, typed, share: 1 }
	}

	const computed = info.filter(({ isComputed }) => isComputed).map((column) => column.name)
	const own = () => [
		...(computed.length === 0
			? []
			: [`${computed.join(', ')}: computed by the database, and brought in as what it gives now.`]),
		...[...binary].map(
			([i, count]) =>
				`${columns[i]}: ${countOf(count, 'value')} of bytes, such as pictures, ${count === 1 ? 'is' : 'are'} left aside.`
		)
	]
	const said = { columns, key, references: foreignKeys(db, table, columns) }
	return { name: table, batches, said, notes: () => [...notes, ...own()] }
}

const FOREIGN_KEYS = `
	SELECT f."from" AS "from", f."table" AS sheet, coalesce(f."to", k.name) AS "to"
	FROM pragma_foreign_key_list(@table) AS f
	LEFT JOIN pragma_table_info(f."table") AS k ON k.pk = 1
	WHERE f.id NOT IN (SELECT id FROM pragma_foreign_key_list(@table) WHERE seq > 0)`

/** Foreign keys of one column. One that names no column there means the key (sqlite.org, "Foreign Key Support", 3). */
function foreignKeys(db: Database.Database, table: string, columns: readonly string[]): SaidReference[] {
	const found = db.prepare<unknown[], { from: string; sheet: string; to: string | null }>(FOREIGN_KEYS).all({ table })
	return found.flatMap(({ from, sheet, to }) => {
		const at = columns.findIndex((column) => column.toLowerCase() === from.toLowerCase())
		return at < 0 || to === null ? [] : [{ from: at, sheet, to }]
	})
}

/** Pictures and other binary values are not text, and are left out. A number is what its column was declared to hold. */
function toText(value: unknown, declared: string): string {
	if (value === null || value === undefined || Buffer.isBuffer(value)) return ''
	if (typeof value !== 'number' && typeof value !== 'bigint') return String(value)
	if (/^BOOL/.test(declared) && (value === 0n || value === 1n)) return String(value === 1n)
	if (declared === 'PERCENT') return numberCellText(Number(value), { kind: 'percent' })
	const sign = signOf(/^MONEY (\w{3})$/.exec(declared)?.[1] ?? '')
	return sign === '' ? String(value) : numberCellText(Number(value), { kind: 'money', sign })
}
