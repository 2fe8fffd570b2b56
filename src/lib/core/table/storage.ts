/**
 * How a column's values lie in the store.
 *
 * Money, percents and decimals of fixed places are scaled whole numbers, so that totals are exact and an index serves
 * `amount > 500`. Choices are small numbers in the builder's order. Text that is compared has a key beside it.
 */
import type { Column } from '../model/table.ts'

export type StoredValue = null | number | string

/** Times are kept in whole seconds and reckoned with in days. */
const DAY_SECONDS = 86_400

/** By how much a number is multiplied in the store; 1 for those that are kept as they are. */
export function scaleOf(column: Column): number {
	switch (column.type) {
		case 'money':
			return 100
		case 'percent':
			return 10 ** ((column.places ?? 2) + 2)
		case 'time':
		case 'duration':
			return DAY_SECONDS
		case 'decimal':
			return column.places === undefined ? 1 : 10 ** column.places
		default:
			return 1
	}
}

/** Whether a key for comparing stands beside the column. */
export function hasKey(column: Column): boolean {
	if (column.type === 'computed') return column.computed?.stored === true && column.computed.expr.type.kind === 'text'
	return KEYED.has(column.type)
}

/** The name of the place by which a column's values are compared: its key, where it has one. */
export function comparedPlace(column: Column): string {
	return `c${column.id}${hasKey(column) ? 'k' : ''}`
}

const KEYED: ReadonlySet<string> = new Set([
	'text',
	'email',
	'phone',
	'web address',
	'code',
	'place',
	'several choices'
])

/** Whether the column lies in the row at all; layers are worked out when they are read. */
export function isStored(column: Column): boolean {
	return column.type !== 'computed' || column.computed?.stored === true
}

/** The type of the column in the database. */
export function storageClass(column: Column): 'TEXT' | 'INTEGER' | 'REAL' | 'ANY' {
	switch (column.type) {
		case 'whole number':
		case 'money':
		case 'percent':
		case 'yes/no':
		case 'choice':
		case 'time':
		case 'duration':
		case 'reference':
			return 'INTEGER'
		case 'decimal':
			return column.places === undefined ? 'REAL' : 'INTEGER'
		case 'computed':
			// Another formula may give another type, in the same place.
			return 'ANY'
		default:
			return 'TEXT'
	}
}
