/**
 * A row as it is being filled in, as a query sees it: formulas are worked out on it before it is there. What was typed is its
 * writer's own to read; what it reaches is masked as ever.
 */
import { AppError } from '$lib/core/app-error.ts'
import type { CellChange } from '$lib/core/query/change.ts'
import { joinSql, param, raw, sql, type Sql, type SqlValue } from '$lib/core/sql/sql.ts'
import { getColumn, type Table } from '$lib/core/model/table.ts'
import type { StoredValue } from '$lib/core/table/storage.ts'
import type { ChangeContext } from '../../rows/change-context.ts'
import { addCell, toStoredValue } from '../../rows/stored-cells.ts'
import type { Store } from '../../store/store.ts'

/** As a table of one row under that name. Cells that cannot be read yet are blank, as those that nobody typed. */
export function typedRow(
	store: Store,
	alias: string,
	{ table, cells, context }: { table: Table; cells: readonly CellChange[]; context: ChangeContext }
): Sql {
	const stored = { names: [] as string[], values: [] as SqlValue[] }
	for (const cell of cells) addCell(getColumn(table, cell.column), readCell(store, table, cell, context), stored)
	const columns = columnsOf(store, table).map(({ name, type }) => {
		const value = stored.values[stored.names.indexOf(name)] ?? null
		// Bound as a floating number a whole one would be printed with a fraction.
		const bound = type === 'INTEGER' && Number.isSafeInteger(value) ? BigInt(Number(value)) : value
		return sql`${param(bound)} AS ${raw(name)}`
	})
	return sql`(SELECT ${joinSql(columns, ', ')}) AS ${raw(alias)}`
}

/** A file that was chosen is only there or not: its token is looked at when it is sent. */
const SOME_FILE = '{}'

/** What a cell holds as it would be stored; blank where it cannot be read yet. */
export function readCell(store: Store, table: Table, cell: CellChange, context: ChangeContext): StoredValue {
	if (typeof cell.value === 'object' && cell.value !== null && 'file' in cell.value) return SOME_FILE
	try {
		return toStoredValue(store, { column: getColumn(table, cell.column), table, n: undefined }, cell.value, context)
	} catch (error) {
		if (error instanceof AppError) return null
		throw error
	}
}

interface StoreColumn {
	readonly name: string
	readonly type: string
}

/** One for each table as it stands: a change of the workspace makes its tables anew. */
const COLUMNS = new WeakMap<Table, readonly StoreColumn[]>()

function columnsOf(store: Store, table: Table): readonly StoreColumn[] {
	const known = COLUMNS.get(table)
	if (known) return known
	const found = store.prepare<StoreColumn>('SELECT name, type FROM pragma_table_info(?)').all(`t${table.id}`)
	COLUMNS.set(table, found)
	return found
}
