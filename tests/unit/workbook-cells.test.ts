/** What cells of workbooks say, and how large a workbook may unfold. Made and read back by exceljs and SheetJS. */
import XLSX from '@e965/xlsx'
import ExcelJS from 'exceljs'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { buffer } from 'node:stream/consumers'
import { deflateRawSync } from 'node:zlib'
import { describe, expect, test } from 'vitest'
import { ZipFile } from 'yazl'
import type { WireCell } from '$lib/core/query/wire.ts'
import { findKind } from '$lib/core/table/kinds/all.ts'
import { beginFile } from '$lib/server/exports/make-file.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { inspectFile } from '$lib/server/sources/inspect.ts'
import { openArchive } from '$lib/server/sources/workbook/archive.ts'

const folder = mkdtempSync(join(tmpdir(), 'tin-shed-workbook-'))
const LONDON = 'Europe/London'

const COLUMNS: readonly ShownColumn[] = [
	{ id: 1, name: 'Called', type: 'date and time', timeZone: LONDON },
	{ id: 2, name: 'Due', type: 'computed', shows: 'datetime', timeZone: LONDON },
	{ id: 3, name: 'High water', type: 'time' },
	{ id: 4, name: 'Under water', type: 'duration' }
]

const CELLS: Record<string, WireCell> = {
	c1: '2026-07-03T13:30:00.000Z',
	c2: '2026-01-03T13:30:05.000Z',
	c3: 14.5 / 24,
	c4: 26.25 / 24
}

async function makeFile(format: 'xlsx' | 'ods' | 'json'): Promise<string> {
	const path = join(folder, `calls.${format}`)
	const file = await beginFile({ name: 'Calls', columns: COLUMNS, format, path })
	await file.add([{ id: 'a', rev: 1, cells: CELLS }])
	await file.end()
	return path
}

describe('an instant goes out as the clock on the wall shows it, and comes in as it went', () => {
	test('XLSX, read by exceljs', async () => {
		const book = new ExcelJS.Workbook()
		await book.xlsx.readFile(await makeFile('xlsx'))
		const row = book.worksheets[0]?.getRow(2)
		// British Summer Time is an hour ahead in July, and nothing in January.
		expect(row?.getCell(1).value).toEqual(new Date('2026-07-03T14:30:00Z'))
		expect(row?.getCell(2).value).toEqual(new Date('2026-01-03T13:30:05Z'))
	})

	test('ODS, read by SheetJS', async () => {
		const book = XLSX.read(readFileSync(await makeFile('ods')), { cellDates: true, UTC: true })
		const [, row] = XLSX.utils.sheet_to_json<unknown[]>(book.Sheets['Calls'] ?? {}, { header: 1, UTC: true })
		expect(row?.[0]).toEqual(new Date('2026-07-03T14:30:00Z'))
	})

	test('JSON keeps the instant itself (RFC 3339)', async () => {
		const [record] = JSON.parse(readFileSync(await makeFile('json'), 'utf8')) as Record<string, unknown>[]
		expect(record).toMatchObject({ Called: '2026-07-03T13:30:00.000Z', Due: '2026-01-03T13:30:05.000Z' })
	})

	test.each(['xlsx', 'ods'] as const)('from %s', async (format) => {
		const found = await inspectFile({ path: await makeFile(format), name: `calls.${format}` })
		const cells = found.head[found.firstRow] ?? []
		expect(cells[0]).toBe('2026-07-03 14:30:00')
		const writing = { dates: 'day first' as const, decimal: '.' as const }
		const column = { id: 1, name: 'Called', type: 'date and time' as const, timeZone: LONDON }
		expect(findKind('date and time')?.read(cells[0] ?? '', column, writing)).toEqual({ ok: true, value: CELLS['c1'] })
	})
})

test('a time of day and a span of time are read as such, not as days of 1899', async () => {
	const book = new ExcelJS.Workbook()
	const sheet = book.addWorksheet('Tides')
	sheet.addRow(['high water', 'under water', 'at noon'])
	sheet.addRow([14.5 / 24, 26.25 / 24, 46_207.5])
	sheet.getCell('A2').numFmt = 'hh:mm'
	sheet.getCell('B2').numFmt = '[h]:mm'
	sheet.getCell('C2').numFmt = 'yyyy-mm-dd hh:mm'
	const path = join(folder, 'tides.xlsx')
	await book.xlsx.writeFile(path)
	const found = await inspectFile({ path, name: 'tides.xlsx' })
	expect(found.head[found.firstRow]).toEqual(['14:30', '1 d 2 h 15 min', '2026-07-04 12:00:00'])
	expect(found.columns[0]?.type).toBe('time')
})

/** An archive of one entry, which may claim another size than it has (ZIP, APPNOTE 4.3, from memory). */
function archive(content: Buffer, claimed = content.length): Buffer {
	const packed = deflateRawSync(content)
	const name = Buffer.from('content.xml')
	const local = Buffer.alloc(30)
	local.writeUInt32LE(0x04034b50, 0)
	local.writeUInt16LE(8, 8)
	local.writeUInt32LE(packed.length, 18)
	local.writeUInt32LE(claimed, 22)
	local.writeUInt16LE(name.length, 26)
	const directory = Buffer.alloc(46)
	directory.writeUInt32LE(0x02014b50, 0)
	directory.writeUInt16LE(8, 10)
	directory.writeUInt32LE(packed.length, 20)
	directory.writeUInt32LE(claimed, 24)
	directory.writeUInt16LE(name.length, 28)
	const end = Buffer.alloc(22)
	end.writeUInt32LE(0x06054b50, 0)
	end.writeUInt16LE(1, 10)
	end.writeUInt32LE(local.length + name.length + packed.length, 16)
	return Buffer.concat([local, name, packed, directory, name, end])
}

async function unfoldsWithin(path: string, most: number): Promise<boolean> {
	const opened = await openArchive(path, most)
	if (typeof opened === 'string') return false
	try {
		for await (const _piece of opened.pieces('content.xml')) continue
		return true
	} catch {
		return false
	} finally {
		opened.close()
	}
}

describe('what an archive unfolds to', () => {
	const zeros = Buffer.alloc(5_000_000)
	test.each([
		['one that fits', archive(zeros), true],
		['one that claims more than fits', archive(zeros, 20_000_000), false],
		['one that holds more than it claims', archive(zeros, 1000), false],
		['one that holds less than it claims', archive(zeros, 6_000_000), false],
		['one without a directory', archive(zeros).subarray(0, -30), false],
		['no archive at all', Buffer.from('code,depth'), false],
		['nothing', Buffer.alloc(0), false]
	])('%s', async (_what, bytes, fits) => {
		const path = join(folder, 'archive.zip')
		writeFileSync(path, bytes)
		expect(await unfoldsWithin(path, 10_000_000)).toBe(fits)
	})

	test('a cell that is longer than any takes ends the reading, before it is in memory', async () => {
		const zip = new ZipFile()
		const cell = `<table:table-cell office:value-type="string"><text:p>${'x'.repeat(3_000_000)}</text:p></table:table-cell>`
		const row = `<table:table-row>${cell}</table:table-row>`
		zip.addBuffer(Buffer.from(`<x><table:table table:name="A">${row}</table:table></x>`), 'content.xml')
		zip.end()
		const path = join(folder, 'long.ods')
		writeFileSync(path, await buffer(zip.outputStream))
		await expect(inspectFile({ path, name: 'long.ods' })).rejects.toThrow('holds more than 2,000,000 characters')
	})

	test('a workbook that holds more than it claims is refused in words', async () => {
		const path = join(folder, 'swells.ods')
		writeFileSync(path, archive(zeros, 1000))
		await expect(inspectFile({ path, name: 'swells.ods' })).rejects.toThrow(
			'swells.ods is damaged. Open it in your spreadsheet and save it again.'
		)
	})
})

describe('what nobody sees in a workbook is said', () => {
	test('hidden sheets, rows and columns, and cells that show an error', async () => {
		const book = new ExcelJS.Workbook()
		const sheet = book.addWorksheet('Buoys', { state: 'hidden' })
		sheet.addRow(['Code', 'Name', 'Share'])
		for (let i = 1; i <= 9; i++) sheet.addRow([`B-${i}`, `Buoy ${i}`, i])
		sheet.getCell('C3').value = { error: '#N/A' }
		sheet.getCell('C4').value = { formula: '1/0', result: { error: '#DIV/0!' } }
		// Merged cells are one, and its error is one.
		sheet.mergeCells('C4:C5')
		sheet.getColumn(2).hidden = true
		for (const row of [3, 4, 5, 6, 7, 9]) sheet.getRow(row).hidden = true
		const path = join(folder, 'buoys.xlsx')
		await book.xlsx.writeFile(path)
		const found = await inspectFile({ path, name: 'buoys.xlsx' })
		expect(found.notes).toEqual([
			'This sheet is hidden in the workbook.',
			'6 rows are hidden in the workbook, and come in all the same: 3, 4, 5, 6, 7 and 1 more.',
			'The column B is hidden in the workbook, and comes in all the same.',
			'2 cells show an error, and are read as blank: C3 #N/A, C4 #DIV/0!.'
		])
		expect(found.rowCount).toBe(9)
		expect(found.columns[2]).toMatchObject({ type: 'whole number' })
	})
})

describe('an OpenDocument spreadsheet', () => {
	const cell = (type: string, value: string, shown: string) =>
		`<table:table-cell office:value-type="${type}" ${value}><text:p>${shown}</text:p></table:table-cell>`
	const time = (iso: string) => cell('time', `office:time-value="${iso}"`, iso)
	const row = (...cells: string[]) => `<table:table-row>${cells.join('')}</table:table-row>`
	const text = (shown: string) => cell('string', '', shown)

	test('has times and spans as ISO 8601 durations (ODF 1.3, 19.387), and errors as text of its own', async () => {
		// A sheet of flat OpenDocument in place of the one that the library wrote.
		const rows = [
			row(text('Tide'), text('At'), text('Under water'), text('Share')),
			row(text('A'), time('PT07H00M00S'), time('PT26H15M00S'), cell('float', 'office:value="1"', '1')),
			row(
				text('B'),
				time('PT14H30M05S'),
				time('PT1450H30M00S'),
				cell('string', 'table:formula="of:=SQRT(-1)"', 'Err:502')
			),
			row(text('C'), time('PT00H00M00S'), time('PT1500H00M00S'), cell('float', 'office:value="3"', '3')),
			// Some programs write parts of a second; a span can be less than none.
			row(text('D'), time('PT08H29M59.9999S'), time('-PT01H30M00S'), cell('float', 'office:value="4"', '4'))
		]
		const path = join(folder, 'tides.ods')
		writeFileSync(path, openDocumentOf(rows.join('')))
		const found = await inspectFile({ path, name: 'tides.ods' })
		expect(found.head.slice(1).map((cells) => cells.slice(1, 4))).toEqual([
			['07:00', '1 d 2 h 15 min', '1'],
			['14:30:05', '60 d 10 h 30 min'],
			['00:00', '62 d 12 h', '3'],
			['08:30', '−1 h 30 min', '4']
		])
		expect(found.columns.map(({ type }) => type).slice(1, 3)).toEqual(['time', 'duration'])
		expect(found.notes).toEqual(['1 cell shows an error, and is read as blank: D3 Err:502.'])
	})
})

const SPACES = ['office', 'table', 'text'].map(
	(name) => `xmlns:${name}="urn:oasis:names:tc:opendocument:xmlns:${name}:1.0"`
)

/** A spreadsheet of one sheet, by the library that packs it: its content is put in afterwards. */
function openDocumentOf(rows: string): Uint8Array {
	const empty = XLSX.utils.book_new()
	XLSX.utils.book_append_sheet(empty, XLSX.utils.aoa_to_sheet([['x']]), 'Tides')
	const packed = XLSX.CFB.read(XLSX.write(empty, { type: 'buffer', bookType: 'ods' }) as Buffer, { type: 'buffer' })
	const content = `<?xml version="1.0" encoding="UTF-8"?><office:document-content ${SPACES.join(' ')} office:version="1.3"><office:body><office:spreadsheet><table:table table:name="Tides">${rows}</table:table></office:spreadsheet></office:body></office:document-content>`
	XLSX.CFB.utils.cfb_add(packed, '/content.xml', Buffer.from(content))
	return XLSX.CFB.write(packed, { fileType: 'zip', type: 'buffer' }) as Uint8Array
}
