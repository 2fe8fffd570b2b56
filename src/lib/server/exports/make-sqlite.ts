/** An SQLite file of one table, its columns declared by the types of SQL. */
import Database from 'better-sqlite3'
import { quoteName } from '$lib/core/sql/sql.ts'
import { cellKey, type WireRow } from '$lib/core/query/wire.ts'
import { codeOf } from '$lib/core/table/kinds/currency.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { toPlainCell, type FileHead, type Making } from './file-cell.ts'
import { formatOf, type ValueFormat } from './value-format.ts'

/** What SQLite makes of each is said in its "Datatypes", 3.1. */
const DECLARED: Readonly<Record<ValueFormat, string | ((column: ShownColumn) => string)>> = {
	text: 'TEXT',
	'text as typed': 'TEXT',
	'yes/no': 'BOOLEAN',
	'whole number': 'INTEGER',
	decimal: 'REAL',
	number: 'REAL',
	money: ({ unit }) => `MONEY ${codeOf(unit ?? '')}`.trimEnd(),
	percent: 'PERCENT',
	date: 'DATE',
	'date and time': 'TIMESTAMP',
	time: 'TIME',
	duration: 'INTERVAL'
}

export function makeSqlite({ name, columns }: FileHead, path: string): Making {
	const db = new Database(path)
	// Nobody else reads it before it is whole.
	db.pragma('journal_mode = OFF')
	db.pragma('synchronous = OFF')
	const declared = columns.map((column) => `${quoteName(column.name).text} ${declaredType(column)}`)
	db.exec(`CREATE TABLE ${quoteName(name).text} (${declared.join(', ')})`)
	const insert = db.prepare(`INSERT INTO ${quoteName(name).text} VALUES (${columns.map(() => '?').join(', ')})`)
	const values = (row: WireRow) =>
		columns.map((column) => {
			const value = toPlainCell(column, row.cells[cellKey(column.id)])
			if (typeof value === 'boolean') return Number(value)
			return typeof value === 'number' && Number.isSafeInteger(value) ? BigInt(value) : value
		})
	return {
		async add(rows) {
			db.transaction(() => {
				for (const row of rows) insert.run(values(row))
			})()
		},
		async end() {
			db.close()
		}
	}
}

function declaredType(column: ShownColumn): string {
	const declared = DECLARED[formatOf(column)]
	return typeof declared === 'string' ? declared : declared(column)
}
