/**
 * A row as it lies in the store, read whole and unmasked: for the doors' own work (conditions, computed columns,
 * history), never for showing.
 */
import type { Statement } from 'better-sqlite3'
import { findKind } from '$lib/core/table/kinds/all.ts'
import type { Env, RowValues } from '$lib/core/formula/evaluate/evaluate.ts'
import type { Value } from '$lib/core/model/formula.ts'
import type { SqlValue } from '$lib/core/sql/sql.ts'
import { isStored, type StoredValue } from '$lib/core/table/storage.ts'
import { getTable, type Column, type Table } from '$lib/core/model/table.ts'
import type { Store } from './store.ts'

export interface StoredRow extends RowValues {
	readonly rev: number
	readonly stored: ReadonlyMap<number, StoredValue>
}

/** A row as formulas see it, whoever looks; undefined where there is none. */
export function readStoredRow(store: Store, table: Table, n: number): StoredRow | undefined {
	const { columns, statement } = statementOf(store, table)
	// Rows hold stored values.
	const row = statement.get(n) as StoredValue[] | undefined
	return row && toStoredRow(row, columns)
}

/** Writes the values of some columns of the store into a row, and gives the row as it then is. */
export function updateStoredRow(
	store: Store,
	table: Table,
	n: number,
	{ names, values }: { names: readonly string[]; values: readonly SqlValue[] }
): StoredRow | undefined {
	const { columns, list, updates } = statementOf(store, table)
	const key = names.join()
	let update = updates.get(key)
	if (!update) {
		const sets = names.map((name) => `${name} = ?`).join(', ')
		update = store.db
			.prepare<unknown[], unknown[]>(`UPDATE t${table.id} SET rev = rev + 1, ${sets} WHERE n = ? RETURNING ${list}`)
			.raw()
		if (updates.size < MOST_UPDATES) updates.set(key, update)
	}
	// Rows hold stored values.
	const row = update.get(...values, n) as StoredValue[] | undefined
	return row && toStoredRow(row, columns)
}

/** Sets of columns that are changed together: few for people, and no more are kept at hand. */
const MOST_UPDATES = 50

interface RowStatement {
	readonly columns: readonly Column[]
	/** What is read of a row, as a statement lists it. */
	readonly list: string
	readonly statement: Statement<unknown[]>
	/** By the columns that are written. */
	readonly updates: Map<string, Statement<unknown[]>>
}

/** One for each table as it stands: a change of the workspace makes its tables anew, and so these. */
const STATEMENTS = new WeakMap<Table, RowStatement>()

function statementOf(store: Store, table: Table): RowStatement {
	const known = STATEMENTS.get(table)
	if (known) return known
	const columns = table.columns.filter(isStored)
	const list = ['n', 'rev', ...columns.map((column) => `c${column.id}`)].join(', ')
	const made = {
		columns,
		list,
		updates: new Map<string, Statement<unknown[]>>(),
		statement: store.db.prepare<unknown[]>(`SELECT ${list} FROM t${table.id} WHERE n = ?`).raw()
	}
	STATEMENTS.set(table, made)
	return made
}

/** The value that formulas see, from what is stored. */
export function toValue(column: Column, stored: StoredValue): Value {
	if (stored === null) return null
	if (column.type === 'reference') return Number(stored)
	if (column.computed) return column.computed.expr.type.kind === 'yesno' ? stored === 1 : stored
	return findKind(column.type)?.fromStored(stored, column) ?? null
}

/** The same, of values that are at hand. */
export function rowFromStored(n: number, rev: number, stored: ReadonlyMap<number, StoredValue>): StoredRow {
	return { n, rev, stored, value: (column) => toValue(column, stored.get(column.id) ?? null) }
}

type StoreEnv = Pick<Env, 'findRow' | 'childrenOf' | 'isGranted'>

const ENVS = new WeakMap<Store, StoreEnv>()

/** What a formula needs beside its row, read from the store as it is. */
export function storeEnv(store: Store): StoreEnv {
	const known = ENVS.get(store)
	if (known) return known
	const made: StoreEnv = {
		findRow: (table, n) => readStoredRow(store, table, n),
		childrenOf: (backReference, n) => {
			const child = getTable(store.workspace().catalogue, backReference.table)
			const found = store
				.prepare<number>(`SELECT n FROM t${child.id} WHERE c${backReference.column} = ? ORDER BY n`)
				.pluck()
				.all(n)
			return found.map((each) => readStoredRow(store, child, each)).filter((row) => row !== undefined)
		},
		isGranted: () => false
	}
	ENVS.set(store, made)
	return made
}

function toStoredRow(row: readonly StoredValue[], columns: readonly Column[]): StoredRow {
	const [n, rev, ...values] = row
	return rowFromStored(Number(n), Number(rev), new Map(columns.map((column, i) => [column.id, values[i] ?? null])))
}
