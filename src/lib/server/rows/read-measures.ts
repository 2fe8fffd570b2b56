/** Rows measured by up to two columns, as one reader sees them. Goes through the same door as the rows. */
import { HIDDEN } from '$lib/core/query/groups.ts'
import { isBand, planMeasure, type Band, type MeasureOf, type Step } from '$lib/core/query/measure.ts'
import { planSpread } from '$lib/core/query/spread.ts'
import { findColumn, getColumn, getTable, type Column } from '$lib/core/model/table.ts'
import { param, raw, sql } from '$lib/core/sql/sql.ts'
import type { StoredValue } from '$lib/core/table/storage.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import { toValue } from '../store/stored-row.ts'
import { withResolved, type RowsRequest } from './resolve.ts'
import { labelText } from './to-wire.ts'

export interface Measuring {
	readonly actor: Actor
	readonly request: RowsRequest
	readonly measure: { readonly of: MeasureOf; readonly column: number | null }
	readonly by: readonly { readonly column: number; readonly step: Step | Band | null }[]
	readonly now: number
	/** How many rows are measured, those that were added last; all, where it is left out. */
	readonly most?: number | undefined
}

export interface MeasuredGroup {
	/** By which it is told from others: of a row its id, of a period its name, of a band its number; null where it is blank. */
	readonly keys: readonly (string | null)[]
	/** How it is written; of a band the mean of what lies in it. */
	readonly labels: readonly string[]
	readonly rows: number
	/** Null where there is nothing to measure. */
	readonly value: number | null
	/** Of how many of its rows the measured cell is kept back. */
	readonly kept: number
}

export interface Measures {
	readonly groups: readonly MeasuredGroup[]
	/** Rows that the reader sees, of which what they are measured by is kept back. */
	readonly leftOut: number
	/** Whether there are more groups than are read. */
	readonly isCut: boolean
	/** Whether there are more rows than are measured. */
	readonly isPart: boolean
}

/** More than any chart shows. */
const MOST_GROUPS = 5_000

/** Null where this person sees nothing of what it goes by. */
export function readMeasures(store: Store, { actor, request, measure, by, now, most }: Measuring): Measures | null {
	return withResolved(store, actor, { request, now }, (asked, plans) => {
		const found = (id: number) => asked && findColumn(asked.table, id)
		const columns = by.flatMap(({ column: id, step }) => {
			const column = found(id)
			return column ? [{ column, step }] : []
		})
		const column = measure.column === null ? undefined : found(measure.column)
		if (!asked || columns.length < by.length) return null
		const limit = MOST_GROUPS + 1
		const measured = { of: measure.of, column }
		// One more tells whether there are more.
		const rows = most === undefined ? undefined : most + 1
		const plan = planMeasure(asked, { measured, by: columns, limit, most: rows }, plans)
		if (!plan) return null
		const read = store.select(plan.groups)
		const names = columns.map(({ column: each }, i) =>
			namesOf(
				store,
				each,
				read.map((row) => row[1 + 2 * i])
			)
		)
		const of = (row: (typeof read)[number]): MeasuredGroup => {
			const pairs = columns.map(({ column: each, step }, i) => {
				const [key, shown] = [row[1 + 2 * i], row[2 + 2 * i]]
				return isBand(step) && key !== null
					? { key: String(key), label: String(shown) }
					: keyed(store, each, [key, shown, names[i]])
			})
			const [rows, value, kept] = row.slice(1 + 2 * columns.length)
			return {
				keys: pairs.map(({ key }) => key),
				labels: pairs.map(({ label }) => label),
				rows: Number(rows),
				kept: Number(kept),
				// Without the dust of binary fractions.
				value: typeof value === 'number' ? Number(value.toPrecision(15)) : null
			}
		}
		const groups = read.slice(0, MOST_GROUPS)
		// A row that is pointed to and not seen is kept back like a cell.
		const isSeen = (row: (typeof read)[number]) =>
			row[0] === 1 && !columns.some(({ column: each }, i) => each.type === 'reference' && row[1 + 2 * i] === HIDDEN)
		return {
			groups: groups.filter(isSeen).map(of),
			leftOut: groups.reduce((sum, row) => sum + Number(isSeen(row) ? row.at(-2) : row.at(-4)), 0),
			isCut: read.length > MOST_GROUPS,
			isPart: most !== undefined && Number(read[0]?.at(-1) ?? 0) > most
		}
	})
}

export interface Spread {
	readonly least: number
	readonly most: number
}

/** From where to where the numbers of some columns go; null for one without a number, and for all where the reader sees nothing of one. */
export function readSpread(
	store: Store,
	{ actor, request, columns, now, most }: Omit<Measuring, 'measure' | 'by'> & { readonly columns: readonly number[] }
): readonly (Spread | null)[] | null {
	return withResolved(store, actor, { request, now }, (asked, plans) => {
		const found = columns.flatMap((id) => (asked && findColumn(asked.table, id)) ?? [])
		const plan =
			asked && found.length === columns.length ? planSpread(asked, { columns: found, most }, plans) : undefined
		if (!plan) return null
		const ends = store.select(plan)[0] ?? []
		return columns.map((_id, i) => {
			const [least, most] = [ends[2 * i], ends[2 * i + 1]]
			return typeof least === 'number' && typeof most === 'number' ? { least, most } : null
		})
	})
}

type Names = ReadonlyMap<number, string>

/** What rows are called that are pointed to; the plan gives none whose name the reader does not see. */
function namesOf(store: Store, column: Column, keys: readonly unknown[]): Names | undefined {
	if (column.type !== 'reference') return undefined
	const target = getTable(store.workspace().catalogue, column.to ?? 0)
	const label = getColumn(target, target.label)
	const seen = keys.filter((key) => typeof key === 'number' && key !== HIDDEN)
	const rows = store.select(
		sql`SELECT n, ${raw(`c${label.id}`)} FROM ${raw(`t${target.id}`)} WHERE n IN (SELECT value FROM json_each(${param(JSON.stringify(seen))}))`
	)
	return new Map(rows.map(([n, name]) => [Number(n), labelText(label, name as StoredValue)]))
}

function keyed(
	store: Store,
	column: Column,
	[key, shown, names]: readonly [unknown, unknown, Names | undefined]
): { key: string | null; label: string } {
	if (key === null || key === undefined) return { key: null, label: 'left blank' }
	if (column.type === 'reference')
		return { key: store.ids.toId(column.to ?? 0, Number(key)), label: names?.get(Number(key)) ?? '' }
	if (column.type === 'choice' || column.type === 'yes/no' || column.computed?.expr.type.kind === 'yesno') {
		const value = column.computed ? key === 1 : toValue(column, key as string | number)
		return value === true || value === false
			? { key: value ? 'yes' : 'no', label: value ? 'yes' : 'no' }
			: { key: String(value), label: String(value) }
	}
	return column.type === 'date' || column.type === 'date and time' || isDate(column)
		? { key: String(key), label: String(key) }
		: { key: String(shown), label: String(shown) }
}

function isDate({ computed }: Column): boolean {
	return computed?.expr.type.kind === 'date' || computed?.expr.type.kind === 'datetime'
}
