/** A column of every type that is typed in goes out in each open format and comes in again as what it was. */
import ExcelJS from 'exceljs'
import Database from 'better-sqlite3'
import XLSX from '@e965/xlsx'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, test } from 'vitest'
import type { WireCell, WireRow } from '$lib/core/query/wire.ts'
import { exportCsv } from '$lib/server/downloads/export-csv.ts'
import { FILE_FORMATS, type MadeFormat } from '$lib/core/exchange/file-formats.ts'
import { beginFile } from '$lib/server/exports/make-file.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { inspectFile } from '$lib/server/sources/inspect.ts'
import type { Inspection } from '$lib/core/requests/imports.ts'

/** All formats but CSV, which is streamed. */
const MADE = Object.keys(FILE_FORMATS).filter((each) => !each.startsWith('csv')) as MadeFormat[]

const folder = mkdtempSync(join(tmpdir(), 'tin-shed-round-'))

const COLUMNS: readonly ShownColumn[] = [
	{ id: 1, name: 'Code', type: 'code' },
	{ id: 2, name: 'Keeper', type: 'text' },
	{ id: 3, name: 'Remark', type: 'long text' },
	{ id: 4, name: 'Boats', type: 'whole number' },
	{ id: 5, name: 'Depth', type: 'decimal', places: 2, unit: 'm' },
	{ id: 6, name: 'Fee', type: 'money', unit: '£' },
	{ id: 7, name: 'Deposit', type: 'money', unit: 'NOK' },
	{ id: 8, name: 'Share', type: 'percent' },
	{ id: 9, name: 'Sound', type: 'yes/no' },
	{ id: 10, name: 'Day', type: 'date' },
	{ id: 11, name: 'Called', type: 'date and time', timeZone: 'UTC' },
	{ id: 12, name: 'High water', type: 'time' },
	{ id: 13, name: 'Under water', type: 'duration' },
	{ id: 14, name: 'State', type: 'choice' },
	{ id: 15, name: 'Gear', type: 'several choices' },
	{ id: 16, name: 'Mail', type: 'email' },
	{ id: 17, name: 'Phone', type: 'phone' },
	{ id: 18, name: 'Page', type: 'web address' },
	{ id: 19, name: 'Mooring', type: 'reference', to: 3 },
	{ id: 20, name: 'To pay', type: 'computed', shows: 'number' }
]

function cellsOf(i: number): WireCell[] {
	return [
		...[`00${i}`, `Keeper ${i}`, `  two blanks, then <&"> and\nanother line ${'so it goes on '.repeat(9)}${i}`],
		...[i * 1000, i / 4 + 1.5, i * 12.5 + 0.05, -i, i / 160, i % 3 === 0, `2026-0${(i % 9) + 1}-17`],
		...[`2026-07-0${(i % 9) + 1}T13:30:15.000Z`, (i % 24) / 24 + 0.5 / 24, (i + 20.25) / 24],
		...[['Good', 'Watch', 'Replace'][i % 3] ?? null, i % 2 ? 'Chain; Shackle' : 'Chain', `keeper${i}@brig.example`],
		...[
			`+44 1234 5678${String(i).padStart(2, '0')}`,
			`https://brig.example/${i}`,
			{ id: `m${i}`, label: `VQ-${i}` },
			i / 8
		]
	]
}

const ROWS: readonly WireRow[] = Array.from({ length: 24 }, (_row, i) => ({
	id: `r${i}`,
	rev: 1,
	cells: Object.fromEntries(COLUMNS.map((column, at) => [`c${column.id}`, cellsOf(i + 1)[at] ?? null]))
}))

async function sendOut(format: string, rows = ROWS): Promise<string> {
	const path = join(mkdtempSync(join(folder, 'out-')), `calls.${format}`)
	if (format === 'csv') {
		const page = { rows, next: null, columns: COLUMNS.map(({ id }) => id) }
		const stream = exportCsv({ name: 'Calls', columns: COLUMNS, page: async () => page }, false)
		writeFileSync(path, await new Response(stream).text())
		return path
	}
	const file = await beginFile({ name: 'Calls', columns: COLUMNS, format: format as 'xlsx', path })
	await file.add(rows.slice(0, 5))
	await file.add(rows.slice(5))
	await file.end()
	return path
}

const EXPECTED: Readonly<Record<string, string>> = Object.fromEntries(
	COLUMNS.map(({ name, type }) => [name, type === 'reference' ? 'text' : type === 'computed' ? 'decimal' : type])
)
const typesOf = ({ columns }: Inspection) => Object.fromEntries(columns.map(({ name, type }) => [name, type]))

describe('types stay what they are', () => {
	test.each(['csv', ...MADE.filter((format) => format !== 'json')])('through %s', async (format) => {
		const found = await inspectFile({ path: await sendOut(format), name: `calls.${format}` })
		expect(found.rowCount).toBe(ROWS.length)
		expect(typesOf(found)).toEqual(EXPECTED)
		const units = Object.fromEntries(found.columns.map(({ name, unit }) => [name, unit]))
		expect([units['Fee'], units['Deposit']]).toEqual(['£', 'NOK'])
		expect(found.columns.flatMap(({ doubts }) => doubts)).toEqual([])
	})

	test('through JSON, which has no money and no shares', async () => {
		const found = await inspectFile({ path: await sendOut('json'), name: 'calls.json' })
		// The name of the fee says that it is money, and what money is asked.
		const bare = { Deposit: 'whole number', Share: 'decimal' }
		expect(typesOf(found)).toEqual({ ...EXPECTED, ...bare })
		const [record] = JSON.parse(readFileSync(await sendOut('json'), 'utf8')) as Record<string, unknown>[]
		expect(record).toMatchObject({ 'High water': '01:30:00', 'Under water': 'PT21H15M', Share: 0.00625 })
	})
})

describe('what other programs find', () => {
	test('XLSX: formats by exceljs', async () => {
		const book = new ExcelJS.Workbook()
		await book.xlsx.readFile(await sendOut('xlsx'))
		const row = book.worksheets[0]?.getRow(2)
		const cell = (name: string) => row?.getCell(COLUMNS.findIndex((column) => column.name === name) + 1)
		expect([cell('Fee')?.numFmt, cell('Fee')?.value]).toEqual(['[$£]#,##0.00', 12.55])
		expect([cell('Share')?.numFmt, cell('Share')?.value]).toEqual(['0.00%', 0.00625])
		expect(cell('Under water')?.numFmt).toBe('[h]:mm:ss')
		expect(cell('Code')?.value).toBe('001')
	})

	test('ODS: values and types by SheetJS', async () => {
		const book = XLSX.read(readFileSync(await sendOut('ods')), { cellNF: true })
		const cells = book.Sheets['Calls'] ?? {}
		expect(
			[cells['D2'], cells['E2'], cells['F2'], cells['H2']].map((cell: XLSX.CellObject) => [cell.t, cell.v])
		).toEqual([
			['n', 1000],
			['n', 1.75],
			['n', 12.55],
			['n', 0.00625]
		])
		expect((cells['C2'] as XLSX.CellObject).v).toBe(cellsOf(1)[2])
	})

	test('ODS: what XML cannot hold is left out, and the rest comes whole', async () => {
		const rows = [{ id: 'a', rev: 1, cells: { c2: 'a\u0000b\u0007c\ud800d\ufffe⚓\te' } }]
		const found = await inspectFile({ path: await sendOut('ods', rows), name: 'odd.ods' })
		expect(found.head[found.firstRow]?.[1]).toBe('abcd⚓\te')
	})

	test('SQLite: declared types, and whole numbers that are whole', async () => {
		const db = new Database(await sendOut('sqlite'), { readonly: true })
		const declared = db.prepare(`SELECT name, type FROM pragma_table_info('Calls')`).raw().all() as [string, string][]
		expect(Object.fromEntries(declared)).toMatchObject({
			...{ Code: 'TEXT', Boats: 'INTEGER', Depth: 'REAL', Fee: 'MONEY GBP', Share: 'PERCENT', Sound: 'BOOLEAN' },
			...{ Day: 'DATE', Called: 'TIMESTAMP', 'High water': 'TIME', 'Under water': 'INTERVAL' }
		})
		const stored = db
			.prepare(`SELECT typeof("Boats"), typeof("Code"), "Code", typeof("Depth") FROM "Calls"`)
			.raw()
			.get()
		expect(stored).toEqual(['integer', 'text', '001', 'real'])
		db.close()
	})
})

test.each(['xlsx', 'ods', 'csv', 'sqlite'])('days before March 1900 are the same days through %s', async (format) => {
	const days = ['1899-12-31', '1900-01-01', '1900-02-28', '1900-03-01', '1666-09-02']
	const rows = days.map((day, i) => ({ id: `r${i}`, rev: 1, cells: { c10: day } }))
	const found = await inspectFile({ path: await sendOut(format, rows), name: `old.${format}` })
	const at = found.columns.findIndex(({ name }) => name === 'Day')
	expect(found.columns[at]?.type).toBe('date')
	expect(found.head.slice(found.firstRow).map((row) => row[at])).toEqual(days)
})
