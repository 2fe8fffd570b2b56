/** Rows as one person sees them, for what is worked out row by row: a cell that is not seen is blank, a row that is not is not there. */
import type { Rights } from '$lib/core/access/rights.ts'
import type { Moment } from '$lib/core/formula/evaluate/fold.ts'
import { evaluate, isTrue, type Env, type RowValues } from '$lib/core/formula/evaluate/evaluate.ts'
import { isAlways, isNever } from '$lib/core/formula/syntax/constant.ts'
import type { Expr } from '$lib/core/model/formula.ts'
import { isStored } from '$lib/core/table/storage.ts'
import {
	getColumn,
	getTable,
	type BackReference,
	type Catalogue,
	type Column,
	type Table
} from '$lib/core/model/table.ts'
import type { Standing } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import { readStoredRow, storeEnv, type StoredRow } from '../store/stored-row.ts'

export interface AsSeen {
	/** For conditions as their reader judges them. */
	readonly env: Omit<Env, 'rows'>
	/** For rights, and for what computed columns come to: on the data as it is, but for rows that were shared one by one. */
	readonly whole: Omit<Env, 'rows'>
	readonly moment: Moment
	readonly rights: Rights
	readonly catalogue: Catalogue
	/** Whether a right holds for a row; never by what was shared one by one, which says nothing of another day. */
	readonly holds: (right: Expr, row: RowValues) => boolean
	/** Another table's row as it is now; undefined where it is not seen. */
	readonly find: (table: Table, n: number) => SeenRow | undefined
}

export interface SeenRow extends RowValues {
	readonly stored: StoredRow['stored']
	readonly isSeen: (column: Column) => boolean
}

/** `moment`: that of which conditions speak; rights are those of now. */
export function asSeenBy(store: Store, standing: Pick<Standing, 'rights' | 'moment'>, moment: Moment): AsSeen {
	const { rights } = standing
	const { catalogue } = store.workspace()
	const whole = { ...standing.moment, ...storeEnv(store), isGranted: () => false }
	const holds = (right: Expr, row: RowValues) =>
		isAlways(right) || (!isNever(right) && isTrue(evaluate(right, { ...whole, rows: [row] })))
	const known = new Map<string, SeenRow | undefined>()
	const shown = (table: Table, row: StoredRow) =>
		holds(rights.rows(table), row) ? masked(row, (column) => holds(rights.cell(table, column), row)) : undefined
	const find = (table: Table, n: number) => {
		const key = `${table.id} ${n}`
		if (known.has(key)) return known.get(key)
		const row = readStoredRow(store, table, n)
		const seen = row && shown(table, row)
		known.set(key, seen)
		return seen
	}
	const env = {
		...whole,
		...moment,
		findRow: find,
		childrenOf: (by: BackReference, n: number) => {
			const child = getTable(catalogue, by.table)
			const pointing = getColumn(child, by.column)
			// To who does not see where it points, it points nowhere.
			return whole
				.childrenOf(by, n)
				.flatMap((row) => find(child, row.n) ?? [])
				.filter((row) => row.isSeen(pointing))
		}
	}
	return { env, whole, moment, rights, catalogue, holds, find }
}

/** A row with the cells blank that are not seen; of computed columns those that lie in the store. */
function masked(row: StoredRow, isSeen: (column: Column) => boolean): SeenRow {
	const value = (column: Column) => (isSeen(column) ? row.value(column) : null)
	return { n: row.n, stored: row.stored, isSeen, value, worked: (column) => (isStored(column) ? value(column) : null) }
}
