/** Reads the sheets of a workbook as an import would, and holds them against what must be found in them. */
import { dirname, join } from 'node:path'
import type { ColumnGuess } from '$lib/core/exchange/guess.ts'
import { cellReader } from '$lib/core/exchange/plan.ts'
import { findKind } from '$lib/core/table/kinds/all.ts'
import { CURRENCY_MARKS } from '$lib/core/table/kinds/currency.ts'
import { parseDuration } from '$lib/core/table/kinds/duration.ts'
import type { Plain } from '$lib/core/model/formula.ts'
import type { Column } from '$lib/core/model/table.ts'
import { inspectFile } from '$lib/server/sources/inspect.ts'
import { openFile } from '$lib/server/sources/open-file.ts'
import { columnOf } from '$lib/server/sources/workbook/cell-address.ts'
import type { RowResult } from './result.ts'

export interface WorkbookFile {
	readonly file: string
	readonly sheets: readonly ExpectedSheet[]
}

interface ExpectedSheet {
	readonly name: string
	readonly table: boolean
	readonly headingRows?: readonly number[]
	readonly dataRows?: number
	readonly notData?: readonly { readonly row: number }[]
	readonly key?: string | null
	readonly columns?: readonly { readonly letter: string; readonly heading: string; readonly type: string }[]
	readonly cells?: readonly { readonly cell: string; readonly value: ExpectedValue; readonly error?: string }[]
}

type ExpectedValue = null | string | number | boolean | Readonly<Record<string, string>>

/** What an analyst would call a type, and how we would have it; what is not here must be the same word. */
const ALSO: Readonly<Record<string, readonly string[]>> = {
	code: ['code', 'text', 'choice'],
	choice: ['choice', 'text'],
	text: ['text', 'long text', 'choice', 'email'],
	'yes/no': ['yes/no', 'choice', 'text'],
	'whole number': ['whole number', 'decimal'],
	'money GBP': ['money'],
	'money EUR': ['money']
}
/** Whatever a formula gives, and columns of a bit of everything. */
const ANY = new Set(['formula', 'mixed'])

/** @param index the file that lists the workbooks beside it */
export async function checkWorkbook({ file, sheets }: WorkbookFile, index: string): Promise<RowResult[]> {
	const path = join(dirname(index), file)
	const results: RowResult[] = []
	for (const sheet of sheets.filter(({ table }) => table)) {
		const short = await checkSheet(path, file, sheet).catch((error: unknown) => [String(error)])
		results.push({ id: `${file}, ${sheet.name}`, short: short.length > 0 ? short.join('; ') : undefined })
	}
	return results
}

async function checkSheet(path: string, name: string, expected: ExpectedSheet): Promise<string[]> {
	const found = await inspectFile({ path, name, sheet: expected.name })
	const short: string[] = []
	const differs = (what: string, is: unknown, wanted: unknown) => {
		if (is !== wanted) short.push(`${what} is ${JSON.stringify(is)}, expected ${JSON.stringify(wanted)}`)
	}
	const heading = expected.headingRows?.at(-1)
	differs('heading row', found.headingRow === null ? null : found.headingRow + 1, heading ?? null)
	differs('headings over two rows', found.overTwo, expected.headingRows?.length === 2)
	differs('rows', found.rowCount, expected.dataRows)
	if (typeof expected.key === 'string')
		differs(
			'key',
			bare(found.columns[found.label]?.name.split(' ').slice(-wordsIn(expected.key)).join(' ') ?? ''),
			bare(expected.key)
		)
	for (const { letter, heading, type } of expected.columns ?? []) {
		const guess = found.columns[columnOf(letter)]
		if (!guess) short.push(`${heading} is not there`)
		else if (!ANY.has(type) && !guess.blank && !(ALSO[type] ?? [type]).includes(guess.type))
			short.push(`${heading} is ${guess.type}, expected ${type}`)
	}
	return [...short, ...(await checkCells(path, name, expected, found.columns))]
}

function bare(text: string): string {
	return text.replace(/\s+/g, ' ').trim().toLowerCase()
}

function wordsIn(text: string): number {
	return text.trim().split(/\s+/).length
}

async function checkCells(
	path: string,
	name: string,
	expected: ExpectedSheet,
	guesses: readonly ColumnGuess[]
): Promise<string[]> {
	const rows = await readRows(path, name, expected.name)
	const readers = guesses.map(readerOf)
	return (expected.cells ?? []).flatMap(({ cell, value, error }) => {
		const [, letters = '', row = ''] = /^([A-Z]+)(\d+)$/.exec(cell) ?? []
		const text = rows[Number(row) - 1]?.[columnOf(letters)] ?? ''
		// What stands apart from the table is no part of it, and must be read all the same.
		const got = readers[columnOf(letters)]?.(text) ?? (text === '' ? null : text)
		const holds = error === undefined ? isSame(got, text, value) : got === null
		return holds ? [] : [`${cell} is ${JSON.stringify(got)} (${text}), expected ${JSON.stringify(value)}`]
	})
}

/** What a cell comes in as, every digit of amounts kept, as is proposed. */
function readerOf(guess: ColumnGuess, from: number): (text: string) => Plain {
	const keeps = guess.doubts.some(({ kind }) => kind === 'more places')
	const type = keeps ? ('decimal' as const) : guess.type
	const column: Column = { id: from + 1, name: guess.name, type, ...(guess.choices ? { choices: guess.choices } : {}) }
	const unit = guess.unit === undefined ? {} : { unit: guess.unit }
	const { name, writing } = guess
	const read = cellReader({ ...unit, from, name, type: type as never, include: true, writing, fixes: [] }, column)
	return (text) => {
		const { value } = read(text)
		return value === null ? null : (findKind(type)?.fromStored(value, column) ?? null)
	}
}

async function readRows(path: string, name: string, sheet: string): Promise<(readonly string[])[]> {
	const file = await openFile(path, name)
	const rows: (readonly string[])[] = []
	try {
		for await (const batch of file.sheets.find((each) => each.name === sheet)?.batches() ?? []) rows.push(...batch.rows)
	} finally {
		file.close()
	}
	return rows
}

/** Numbers by 15 digits, for some office programs write no more; a text by its letters. */
function isSame(got: Plain, text: string, value: ExpectedValue): boolean {
	if (value === null || value === '') return got === null
	if (typeof value === 'number') return digits(Number(got)) === digits(value) || isNumberShown(text, value)
	if (typeof value === 'boolean') return got === value || text === String(value)
	if (typeof value === 'string') return got === value || text.trim() === value.trim()
	if (value['date'] !== undefined) return String(got).slice(0, 10) === value['date'] || text === value['date']
	if (value['datetime'] !== undefined) return text.replace(' ', 'T').padEnd(19, ':00') === value['datetime']
	if (value['time'] !== undefined) return text.padEnd(8, ':00') === value['time']
	return Math.abs(Number(got) - (parseDuration(value['duration'] ?? '') ?? NaN)) < 1 / 86_400
}

/** Days from the first of a workbook's calendar to that of most (ECMA-376-1, 18.17.4.1). */
const CALENDARS = [Date.UTC(1899, 11, 30), Date.UTC(1904, 0, 1)]

/** A number that the sheet shows with a sign of money, or as the day that it stands for. */
function isNumberShown(text: string, value: number): boolean {
	if (digits(Number(text.replace(CURRENCY_MARKS, ''))) === digits(value)) return true
	const at = Date.parse(`${text.replace(' ', 'T')}Z`)
	return CALENDARS.some((first) => Math.abs((at - first) / 86_400_000 - value) < 1 / 86_400)
}

function digits(value: number): string {
	return value.toPrecision(15)
}
