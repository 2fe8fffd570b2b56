/** As what the values of a column stand in a file. A new type of column has its entry here, and each format one a value. */
import type { TypeKind } from '$lib/core/model/formula.ts'
import type { ColumnTypeName } from '$lib/core/model/table.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'

export type ValueFormat =
	| 'text'
	/** Whoever types 007 there keeps it. */
	| 'text as typed'
	| 'yes/no'
	| 'whole number'
	/** Of as many places as the column says, if it says. */
	| 'decimal'
	/** Of any number of places. */
	| 'number'
	| 'money'
	| 'percent'
	| 'date'
	| 'date and time'
	| 'time'
	| 'duration'

const BY_TYPE: Readonly<Record<Exclude<ColumnTypeName, 'computed'>, ValueFormat>> = {
	text: 'text as typed',
	'long text': 'text',
	'whole number': 'whole number',
	decimal: 'decimal',
	money: 'money',
	percent: 'percent',
	'yes/no': 'yes/no',
	date: 'date',
	'date and time': 'date and time',
	time: 'time',
	duration: 'duration',
	choice: 'text',
	'several choices': 'text',
	email: 'text',
	phone: 'text',
	'web address': 'text',
	code: 'text as typed',
	place: 'text',
	photo: 'text',
	file: 'text',
	ink: 'text',
	signature: 'text',
	reference: 'text'
}

/** What a formula gives; rows and sets stand in no cell. */
const BY_RESULT: Readonly<Record<TypeKind, ValueFormat>> = {
	number: 'number',
	text: 'text',
	yesno: 'yes/no',
	date: 'date',
	datetime: 'date and time',
	duration: 'duration',
	blank: 'text',
	mixed: 'text',
	row: 'text',
	rows: 'text',
	set: 'text'
}

export function formatOf({ type, shows }: ShownColumn): ValueFormat {
	return type === 'computed' ? BY_RESULT[shows ?? 'blank'] : BY_TYPE[type]
}
