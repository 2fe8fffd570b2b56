/** What is to be brought in of a sheet, as the builder settled it, and how a row of text becomes a row of values. */
import { z } from 'zod'
import { ownCopy } from '../text/own-copy.ts'
import { isPlain, textKey } from '../text/key.ts'
import { findKind } from '../table/kinds/all.ts'
import type { StoredValue } from '../table/storage.ts'
import { CURRENCY_MARK, CURRENCY_MARKS } from '../table/kinds/currency.ts'
import { COLUMN_TYPES, type Column } from '../model/table.ts'
import { parseDate } from '../table/kinds/date.ts'
import { isNothing, isWordForNone } from './nothing.ts'

const writingSchema = z.object({
	dates: z.enum(['day first', 'month first', 'year first']),
	decimal: z.enum(['.', ','])
})

export const importColumnSchema = z.object({
	/** Which column of the sheet, from 0. */
	from: z.number().int().min(0),
	name: z.string().trim().min(1, 'Every column needs a name.').max(80),
	type: z.enum(COLUMN_TYPES).exclude(['reference', 'computed']),
	include: z.boolean(),
	/** The column of the table it goes into, where that is there already. */
	to: z.number().int().optional(),
	unit: z.string().max(20).optional(),
	places: z.number().int().min(0).max(6).optional(),
	choices: z.array(z.string().min(1).max(200)).max(500).optional(),
	writing: writingSchema,
	/** A blank cell says what the one above it says: a group's name stands in its first row alone. */
	fillDown: z.boolean().optional(),
	/** Values that are read as others: a misspelling, a comma decimal. Null leaves the cell blank. */
	fixes: z.array(z.tuple([z.string(), z.string().nullable()])).max(1000)
})

/** How rows go into a table that is there: as new ones; by a key, with new ones; or so that only those of the file stay. */
export const MERGES = ['add', 'update', 'replace'] as const

const intoSchema = z.object({
	table: z.number().int(),
	how: z.enum(MERGES),
	/** The columns by which a row of the file is known to be a row of the table; none only where every row is exchanged. */
	keys: z.array(z.number().int()).max(6)
})

export const importPlanSchema = z.object({
	sheet: z.string(),
	/** Counted from 0. */
	headingRow: z.number().int().min(0).nullable(),
	firstRow: z.number().int().min(0),
	tableName: z.string().trim().min(1, 'The table needs a name.').max(80),
	/** Rows that are no records, by their number as people count. */
	leftOut: z.array(z.number().int().min(1)).max(5_000).optional(),
	/** The column of the sheet by which a row is known. */
	label: z.number().int().min(0),
	columns: z.array(importColumnSchema).min(1).max(500),
	/** Left out for a new table. */
	into: intoSchema.optional()
})

export type ImportPlan = z.infer<typeof importPlanSchema>
export type MergeInto = z.infer<typeof intoSchema>
export type ImportColumn = z.infer<typeof importColumnSchema>

/** Text that could not be read: brought in as blank, and listed. */
export interface Unread {
	readonly row: number
	readonly column: string
	readonly text: string
}

export interface ReadCell {
	readonly value: StoredValue
	readonly unread: boolean
}

export type CellReader = (text: string) => ReadCell

/** Whether plain ASCII in the file stays so in the store; a fix or a choice may be written otherwise. */
export function staysPlain({ fixes }: ImportColumn, { choices = [] }: Column): boolean {
	return [...fixes.map(([, fixed]) => fixed ?? ''), ...choices].every(isPlain)
}

/** Makes the reader of one column: text of the file to what is stored. */
export function cellReader(plan: ImportColumn, column: Column): CellReader {
	const kind = findKind(column.type)
	if (!kind) throw new Error(`Cannot bring in a column of type "${column.type}"`)
	const fixes = new Map(plan.fixes)
	const choices = new Map(column.choices?.map((choice, i) => [textKey(choice), i + 1]))
	const isAmount = column.type === 'decimal' && CURRENCY_MARK.test(plan.unit ?? '')
	const worded = column.type === 'text' || column.type === 'long text'
	const read = (raw: string): ReadCell => {
		let text = raw.trim()
		const fixed = fixes.get(text)
		if (fixed === null) return { value: null, unread: false }
		// What a fix proposes is written in the program's own way, whatever the column's.
		if (fixed !== undefined)
			text = plan.type === 'decimal' || plan.type === 'money' ? fixed.replace('.', plan.writing.decimal) : fixed
		if (column.type === 'choice') {
			const number = choices.get(textKey(text))
			return number === undefined ? { value: null, unread: !isNothing(text) } : { value: number, unread: false }
		}
		if (isNothing(text) && !(worded && isWordForNone(text))) return { value: null, unread: false }
		if (isAmount) text = text.replace(CURRENCY_MARKS, '')
		if (column.type === 'date') text = bareDate(text)
		const reading = kind.read(text, column, plan.writing)
		if (!reading.ok) return { value: null, unread: true }
		if (reading.value === null) return { value: null, unread: false }
		const value = reading.value
		return { value: kind.toStored(value, column), unread: false }
	}
	return remembering(read)
}

/**
 * Most columns say the same things again and again, and reading a date takes ten times as long as looking it up. Where
 * nearly every value is another, looking up only costs, so it is given up.
 */
function remembering(read: CellReader): CellReader {
	const known = new Map<string, ReadCell>()
	let asked = 0
	let missed = 0
	return (raw) => {
		if (missed > MOST_REMEMBERED && missed * 2 > asked) return read(raw)
		asked++
		const found = known.get(raw)
		if (found) return found
		missed++
		if (known.size >= MOST_REMEMBERED) return read(raw)
		const text = ownCopy(raw)
		const cell = read(text)
		known.set(text, cell)
		return cell
	}
}

const MOST_REMEMBERED = 5_000

/** Dates that came with a midnight, or as eight digits. */
function bareDate(text: string): string {
	const day = text.replace(/[T ]00:00(:00(\.0+)?)?Z?$/, '')
	const compact = /^(\d{4})(\d{2})(\d{2})$/.exec(day)
	const iso = compact ? `${compact[1]}-${compact[2]}-${compact[3]}` : day
	return parseDate(iso, { dates: 'year first', decimal: '.' }) && compact ? iso : day
}
