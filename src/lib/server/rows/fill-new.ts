/**
 * What a new row gets by itself: the number of a numbering column, and the default of a column that was left blank.
 *
 * Both are the system's: the person need not be granted the column, and the lines are judged on the row with them.
 */
import { evaluate } from '$lib/core/formula/evaluate/evaluate.ts'
import { isErrorValue, type Value } from '$lib/core/model/formula.ts'
import { findKind } from '$lib/core/table/kinds/all.ts'
import { printNumber, readNumber, seriesOf } from '$lib/core/table/numbering.ts'
import type { StoredValue } from '$lib/core/table/storage.ts'
import type { Column, Table } from '$lib/core/model/table.ts'
import { momentAt, standingOf } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import type { ChangeContext } from './change-context.ts'
import { rowFromStored, storeEnv } from '../store/stored-row.ts'

const BEGUN = `SELECT last FROM numbering WHERE column_id = ? AND series = ?`
const NEXT = `
	INSERT INTO numbering (column_id, series, last) VALUES (@column, @series, @first)
	ON CONFLICT (column_id, series) DO UPDATE SET last = last + 1
	RETURNING last`

/** The columns of a new row that nobody filled in, with what they get. `given`: what was sent, as it will be stored. */
export function fillNew(
	store: Store,
	table: Table,
	given: ReadonlyMap<number, StoredValue>,
	context: ChangeContext
): (readonly [Column, StoredValue])[] {
	const open = table.columns.filter((column) => (given.get(column.id) ?? null) === null)
	const numbers = open.flatMap((column) =>
		column.numbering ? [[column, takeNumber(store, table, column, context)] as const] : []
	)
	const defaults = open.filter((column) => column.otherwise && !column.numbering)
	if (defaults.length === 0) return numbers
	const { moment } = standingOf(store, context.actor, context.now)
	const env = { ...moment, ...storeEnv(store), rows: [rowFromStored(0, 0, new Map(given))] }
	return [
		...numbers,
		...defaults.flatMap((column) => {
			const value = column.otherwise ? toStored(column, evaluate(column.otherwise.expr, env)) : null
			return value === null ? [] : [[column, value] as const]
		})
	]
}

/** Numbers are never used twice: one that was taken by a change that failed is given again, as that never happened. */
function takeNumber(store: Store, table: Table, column: Column, { now }: ChangeContext): StoredValue {
	const { today } = momentAt(store.workspace().timeZone, now)
	const series = seriesOf(column.numbering ?? '', today)
	const begun = store.prepare(BEGUN).pluck().get(column.id, series)
	const first = begun === undefined ? greatestNumber(store, table, column, series) + 1 : 0
	const last = Number(store.pluck(NEXT, { column: column.id, series, first }))
	return printNumber(series, last)
}

/** The greatest number of a series that stands in the table already, as from a file: the series goes on from there. */
function greatestNumber(store: Store, table: Table, column: Column, series: string): number {
	const values = store.db.prepare(`SELECT c${column.id} FROM t${table.id} WHERE c${column.id} IS NOT NULL`).pluck()
	let greatest = 0
	for (const value of values.iterate()) greatest = Math.max(greatest, readNumber(series, String(value)) ?? 0)
	return greatest
}

/** A default that does not fit its column is left out, as if there were none. */
function toStored(column: Column, value: Value): StoredValue {
	if (value === null || value === '' || isErrorValue(value)) return null
	if (column.type === 'reference') return typeof value === 'number' ? value : null
	const kind = findKind(column.type)
	const reading = kind?.check(value, column)
	return kind && reading?.ok && reading.value !== null ? kind.toStored(reading.value, column) : null
}
