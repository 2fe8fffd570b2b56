/** Filters that a reader sets by hand, as conditions on what that reader sees. They travel as data, never as formulas. */
import { z } from 'zod'
import { isIsoDate } from '../schedule/calendar.ts'
import { AMONG } from '../formula/functions/text.ts'
import { FITS } from '../formula/functions/wildcards.ts'
import type { Expr } from '../model/formula.ts'
import { columnType } from '../formula/check/column-type.ts'
import { findKind } from '../table/kinds/all.ts'
import { TYPED } from '../model/writing.ts'
import { textKey } from '../text/key.ts'
import { findColumn, getColumn, type Catalogue, type Column, type Table } from '../model/table.ts'

export const filterSchema = z.object({
	/** 0 stands for "any column that is shown". */
	column: z.number().int().min(0),
	/** `seen`: whatever stands there, if it is not kept back. */
	is: z.enum(['contains', 'equal', 'at least', 'at most', 'below', 'blank', 'filled', 'seen']),
	text: z.string().max(200)
})

export type Filter = z.infer<typeof filterSchema>
export const filtersSchema = z.array(filterSchema).max(20)

/** The condition that a filter comes to; undefined where its column or its text says nothing. */
export function toCondition(filter: Filter, table: Table, catalogue: Catalogue): Expr | undefined {
	if (filter.column === 0) {
		if (filter.is === 'contains' && filter.text.trim() === '') return undefined
		const columns = filter.is === 'contains' ? columnsSought(filter, table, catalogue) : table.columns
		const any = columns.flatMap((column) => onColumn(filter, column, table, catalogue) ?? [])
		return { kind: 'or', args: any, type: { kind: 'yesno' } }
	}
	const column = findColumn(table, filter.column)
	return column && onColumn(filter, column, table, catalogue)
}

/** The columns in which a text that is looked for can stand at all: a word stands in no number and no date. */
export function columnsSought(filter: Filter, table: Table, catalogue: Catalogue): readonly Column[] {
	const columns = filter.column === 0 ? table.columns : table.columns.filter(({ id }) => id === filter.column)
	const text = filter.text.trim()
	return columns.filter((column) => {
		if (column.type === 'several choices') return true
		const field = shownField(column, table, catalogue)
		return contains(field, text) !== undefined && mayHold(field, text)
	})
}

/** What the text form of a number or a date is made of. */
const SIGNS: Readonly<Record<string, RegExp>> = { number: /^[\d.+\-e]*$/i, date: /^[\d-]*$/ }

function mayHold(field: Expr, text: string): boolean {
	if (field.kind === 'field' && field.column.type === 'choice') {
		const sought = textKey(text)
		return (field.column.choices ?? []).some((choice) => textKey(choice).includes(sought))
	}
	return SIGNS[field.type.kind]?.test(text) ?? true
}

function onColumn({ is, text }: Filter, column: Column, table: Table, catalogue: Catalogue): Expr | undefined {
	const field = shownField(column, table, catalogue)
	// What is kept back reads as blank in every condition: whether it is, the query asks itself.
	if (is === 'seen') return undefined
	if (is === 'blank' || is === 'filled') {
		const blank: Expr = { kind: 'isblank', arg: field, type: { kind: 'yesno' } }
		return is === 'blank' ? blank : { kind: 'not', arg: blank, type: { kind: 'yesno' } }
	}
	if (text.trim() === '') return undefined
	if (is === 'contains' && column.type === 'several choices') return isAmong(field, text.trim())
	if (is === 'contains') return contains(field, text.trim())
	const value = readValue(field, column, text.trim())
	return value && { kind: 'compare', op: COMPARES[is], left: field, right: value, type: { kind: 'yesno' } }
}

const COMPARES = { equal: '=', 'at least': '>=', 'at most': '<=', below: '<' } as const

/** A reference is filtered by the label of its row, as it is shown. */
export function shownField(column: Column, table: Table, catalogue: Catalogue): Expr {
	const row: Expr = { kind: 'this', level: 0, type: { kind: 'row', table } }
	const type = columnType(catalogue, column)
	const field: Expr = { kind: 'field', of: row, table, column, type }
	if (type.kind !== 'row') return field
	const label = getColumn(type.table, type.table.label)
	return { kind: 'field', of: field, table: type.table, column: label, type: columnType(catalogue, label) }
}

function isAmong(field: Expr, text: string): Expr {
	const part: Expr = { kind: 'literal', value: text, type: { kind: 'text' } }
	return { kind: 'call', fn: AMONG, args: [part, field], type: { kind: 'yesno' } }
}

/** What a column says as a text; undefined for what says none. */
export function textForm(field: Expr): Expr | undefined {
	const { kind } = field.type
	if (kind === 'yesno') return undefined
	return kind === 'text' ? field : { kind: 'totext', arg: field, type: { kind: 'text' } }
}

function contains(field: Expr, text: string): Expr | undefined {
	const shown = textForm(field)
	if (!shown) return undefined
	const pattern = `*${text.replace(/[?*~]/g, '~$&')}*`
	return {
		kind: 'call',
		fn: FITS,
		args: [shown, { kind: 'literal', value: pattern, type: { kind: 'text' } }],
		type: { kind: 'yesno' }
	}
}

/** What was typed as the column's own type reads it: filters travel with plain figures, however the workspace writes them. */
function readValue(field: Expr, column: Column, text: string): Expr | undefined {
	const { kind } = field.type
	if (kind === 'text') return { kind: 'literal', value: text, type: { kind } }
	const own = findKind(column.type)?.read(text, column, TYPED)
	if (own?.ok && own.value !== null) return { kind: 'literal', value: own.value, type: field.type }
	if (kind === 'number' && Number.isFinite(Number(text)))
		return { kind: 'literal', value: Number(text), type: { kind } }
	if (kind === 'date' && isIsoDate(text)) return { kind: 'literal', value: text, type: { kind } }
	if (kind === 'yesno' && /^(yes|no)$/i.test(text))
		return { kind: 'literal', value: /^yes$/i.test(text), type: { kind } }
	return undefined
}
