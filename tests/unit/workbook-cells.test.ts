/** What cells of workbooks say, and how large a workbook may unfold. Made and read back by exceljs and SheetJS. */
import XLSX from '@e965/xlsx'
import ExcelJS from 'exceljs'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { deflateRawSync } from 'node:zlib'
import { describe, expect, test } from 'vitest'
import type { WireCell } from '$lib/core/query/wire.ts'
import { findKind } from '$lib/core/table/kinds/all.ts'
import { beginFile } from '$lib/server/exports/make-file.ts'
import type { ShownColumn } from '$lib/server/rows/describe-columns.ts'
import { unfoldsWithin } from '$lib/server/sources/archive-size.ts'
import { inspectFile } from '$lib/server/sources/inspect.ts'

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
	const file = beginFile({ name: 'Calls', columns: COLUMNS, format, path })
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
	expect(found.head[found.firstRow]).toEqual(['14:30', '26:15', '2026-07-04 12:00:00'])
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
		expect(await unfoldsWithin(bytes, 10_000_000)).toBe(fits)
	})

	test('a workbook that holds more than it claims is refused in words', async () => {
		const path = join(folder, 'swells.ods')
		writeFileSync(path, archive(zeros, 1000))
		await expect(inspectFile({ path, name: 'swells.ods' })).rejects.toThrow(
			'swells.ods is damaged, or unfolds to more than fits.'
		)
	})
})
