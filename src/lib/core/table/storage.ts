/**
 * How a column's values lie in the store.
 *
 * Money, percents and decimals of fixed places are scaled whole numbers, so that totals are exact and an index serves
 * `amount > 500`. Choices are small numbers in the builder's order. Text that is compared has a key beside it.
 */
import type { Column, ColumnTypeName } from '../model/table.ts'

export type StoredValue = null | number | string

/** Times are kept in whole seconds and reckoned with in days. */
const DAY_SECONDS = 86_400

type StorageClass = 'TEXT' | 'INTEGER' | 'REAL' | 'ANY'

/** How the values of a type lie in the store; where it depends on the column, as it says. */
interface Storage {
	readonly as: StorageClass | ((column: Column) => StorageClass)
	/** By how much a number is multiplied. */
	readonly scale?: (column: Column) => number
	/** Whether a key for comparing stands beside the value. */
	readonly keyed?: true
}

const KEYED_TEXT: Storage = { as: 'TEXT', keyed: true }
const PLAIN_TEXT: Storage = { as: 'TEXT' }
const WHOLE: Storage = { as: 'INTEGER' }
const SECONDS: Storage = { as: 'INTEGER', scale: () => DAY_SECONDS }

const STORAGE: Readonly<Record<ColumnTypeName, Storage>> = {
	text: KEYED_TEXT,
	'long text': PLAIN_TEXT,
	'whole number': WHOLE,
	decimal: {
		as: ({ places }) => (places === undefined ? 'REAL' : 'INTEGER'),
		scale: ({ places }) => (places === undefined ? 1 : 10 ** places)
	},
	money: { as: 'INTEGER', scale: () => 100 },
	percent: { as: 'INTEGER', scale: ({ places }) => 10 ** ((places ?? 2) + 2) },
	'yes/no': WHOLE,
	date: PLAIN_TEXT,
	'date and time': PLAIN_TEXT,
	time: SECONDS,
	duration: SECONDS,
	choice: WHOLE,
	'several choices': KEYED_TEXT,
	email: KEYED_TEXT,
	phone: KEYED_TEXT,
	'web address': KEYED_TEXT,
	code: KEYED_TEXT,
	place: KEYED_TEXT,
	photo: PLAIN_TEXT,
	file: PLAIN_TEXT,
	ink: PLAIN_TEXT,
	signature: PLAIN_TEXT,
	reference: WHOLE,
	// Another formula may give another type, in the same place. Its key goes by the formula too.
	computed: { as: 'ANY' }
}

/** By how much a number is multiplied in the store; 1 for those that are kept as they are. */
export function scaleOf(column: Column): number {
	return STORAGE[column.type].scale?.(column) ?? 1
}

/** Whether a key for comparing stands beside the column. */
export function hasKey(column: Column): boolean {
	if (column.type === 'computed') return column.computed?.stored === true && column.computed.expr.type.kind === 'text'
	return STORAGE[column.type].keyed === true
}

/** The name of the place by which a column's values are compared: its key, where it has one. */
export function comparedPlace(column: Column): string {
	return `c${column.id}${hasKey(column) ? 'k' : ''}`
}

/** Whether the column lies in the row at all; virtual columns are worked out when they are read. */
export function isStored(column: Column): boolean {
	return column.type !== 'computed' || column.computed?.stored === true
}

/** The type of the column in the database. */
export function storageClass(column: Column): StorageClass {
	const { as } = STORAGE[column.type]
	return typeof as === 'string' ? as : as(column)
}
