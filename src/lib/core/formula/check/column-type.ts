import { getTable, type Catalogue, type Column } from '../../model/table.ts'
import { unreachable } from '../../unreachable.ts'
import type { Type } from '../../model/formula.ts'

/** The type that formulas see for a column. */
export function columnType(catalogue: Catalogue, column: Column): Type {
	switch (column.type) {
		case 'whole number':
		case 'decimal':
		case 'money':
		case 'percent':
			return { kind: 'number' }
		case 'yes/no':
			return { kind: 'yesno' }
		case 'date':
			return { kind: 'date' }
		case 'date and time':
			return { kind: 'datetime' }
		case 'time':
		case 'duration':
			return { kind: 'duration' }
		case 'reference':
			return { kind: 'row', table: getTable(catalogue, column.to ?? 0) }
		case 'computed':
			return column.computed?.expr.type ?? { kind: 'blank' }
		case 'text':
		case 'long text':
		case 'choice':
		case 'several choices':
		case 'email':
		case 'phone':
		case 'web address':
		case 'code':
		case 'place':
		case 'photo':
		case 'file':
		case 'ink':
		case 'signature':
			return { kind: 'text' }
		default:
			return unreachable(column.type, 'columnType')
	}
}

/** What a type is called in a message. */
export function describe(type: Type): string {
	switch (type.kind) {
		case 'number':
			return 'a number'
		case 'text':
			return 'a text'
		case 'yesno':
			return 'yes or no'
		case 'date':
			return 'a date'
		case 'datetime':
			return 'a date and time'
		case 'duration':
			return 'a time'
		case 'blank':
			return 'blank'
		case 'mixed':
			return 'sometimes a number, sometimes a text'
		case 'row':
			return `a row of ${type.table.name}`
		case 'rows':
			return `many rows of ${type.table.name}`
		case 'set':
			return 'many values'
		default:
			return unreachable(type, 'describe')
	}
}

/** Whether a type is a set of rows or of values. */
export function isMany(type: Type): boolean {
	return type.kind === 'rows' || type.kind === 'set'
}
