/**
 * Opens a file that was given in, as sheets of text. Files are hostile until read: what they are is told by their
 * content, sizes are bounded, and a file that is damaged, empty, locked or not what it says is refused in plain words.
 */
import ExcelJS from 'exceljs'
import { open, readFile, stat } from 'node:fs/promises'
import { AppError } from '$lib/core/app-error.ts'
import { clean, decodeText, findEncoding, findSeparator, parseDelimited } from '$lib/core/exchange/delimited.ts'

export interface Sheet {
	readonly name: string
	readonly rows: readonly (readonly string[])[]
}

export interface OpenedFile {
	readonly kind: 'text' | 'workbook'
	readonly sheets: readonly Sheet[]
}

/** The most that a workbook may unfold to; a few kilobytes can claim gigabytes. */
const MAX_UNPACKED = 600 * 1024 * 1024
const MAX_CELLS = 8_000_000

export async function openFile(path: string, name: string): Promise<OpenedFile> {
	const { size } = await stat(path)
	if (size === 0) throw refused(`${name} is empty. Nothing was brought in.`)
	const head = await readHead(path, 4096)
	if (startsWith(head, [0xd0, 0xcf, 0x11, 0xe0])) {
		throw refused(
			`${name} is locked with a password, or is of the old kind of workbook. Save it again as .xlsx without a password.`
		)
	}
	if (startsWith(head, [0x50, 0x4b])) return openWorkbook(path, name)
	if (/\.xlsx$/i.test(name))
		throw refused(
			`${name} says it is a workbook, but it is not, or it is damaged. Open it in your spreadsheet and save it again.`
		)
	if (isBinary(head)) throw refused(`${name} is neither a CSV file nor a workbook, so it was not read.`)
	return openText(path, name, head)
}

async function readHead(path: string, length: number): Promise<Uint8Array> {
	const file = await open(path)
	try {
		const { buffer, bytesRead } = await file.read(Buffer.alloc(length), 0, length, 0)
		return buffer.subarray(0, bytesRead)
	} finally {
		await file.close()
	}
}

function startsWith(bytes: Uint8Array, wanted: readonly number[]): boolean {
	return wanted.every((byte, i) => bytes[i] === byte)
}

/** Many noughts that do not come from UTF-16 mark a file that is no text. */
function isBinary(head: Uint8Array): boolean {
	const utf16 = startsWith(head, [0xff, 0xfe]) || startsWith(head, [0xfe, 0xff])
	const odd = head.filter((byte) => byte < 9 || (byte > 13 && byte < 32 && byte !== 27)).length
	return !utf16 && odd > head.length * 0.05 && odd > 2
}

async function openText(path: string, name: string, head: Uint8Array): Promise<OpenedFile> {
	const text = clean(decodeText(await readFile(path), findEncoding(head)))
	const rows = parseDelimited(text, findSeparator(text.slice(0, 100_000)))
	if (!rows.some((row) => row.some((cell) => cell.trim() !== '')))
		throw refused(`${name} is empty. Nothing was brought in.`)
	return { kind: 'text', sheets: [{ name: '', rows }] }
}

async function openWorkbook(path: string, name: string): Promise<OpenedFile> {
	const bytes = await readFile(path)
	if (unpackedSize(bytes) > MAX_UNPACKED)
		throw refused(`${name} unfolds to more than fits. Split it, or save the sheet as CSV.`)
	const workbook = new ExcelJS.Workbook()
	try {
		await workbook.xlsx.load(bytes as unknown as ArrayBuffer, {
			ignoreNodes: ['dataValidations', 'conditionalFormatting', 'drawing', 'picture']
		})
	} catch {
		throw refused(`${name} is damaged, or is no workbook. Open it in your spreadsheet and save it again.`)
	}
	const sheets = workbook.worksheets.map(toSheet).filter((sheet) => sheet.rows.length > 0)
	if (sheets.length === 0) throw refused(`${name} holds no filled sheet. Nothing was brought in.`)
	return { kind: 'workbook', sheets }
}

/** The sum of the sizes that a ZIP's directory claims for its entries. */
function unpackedSize(bytes: Buffer): number {
	let size = 0
	for (
		let at = bytes.indexOf('PK\x01\x02', 0, 'latin1');
		at >= 0;
		at = bytes.indexOf('PK\x01\x02', at + 46, 'latin1')
	) {
		if (at + 28 <= bytes.length) size += bytes.readUInt32LE(at + 24)
	}
	return size
}

function toSheet(sheet: ExcelJS.Worksheet): Sheet {
	if (sheet.rowCount * sheet.columnCount > MAX_CELLS)
		throw refused(`The sheet ${sheet.name} is too large. Save it as CSV and bring that in.`)
	const width = sheet.columnCount
	const rows: string[][] = []
	for (let r = 1; r <= sheet.rowCount; r++) {
		const row = sheet.getRow(r)
		rows.push(Array.from({ length: width }, (_each, c) => cellText(row.getCell(c + 1))))
	}
	while (rows.length > 0 && rows[rows.length - 1]?.every((cell) => cell === '')) rows.pop()
	return { name: sheet.name, rows }
}

/** The text of a cell: dates as ISO 8601, formulas by their value, merged cells only once. */
function cellText(cell: ExcelJS.Cell): string {
	if (cell.isMerged && cell.master !== cell) return ''
	return valueText(cell.value)
}

function valueText(value: ExcelJS.CellValue): string {
	if (value === null || value === undefined) return ''
	if (value instanceof Date) return dateText(value)
	if (typeof value !== 'object') return String(value)
	if ('richText' in value) return value.richText.map((part) => part.text).join('')
	if ('result' in value) return valueText((value.result ?? null) as ExcelJS.CellValue)
	if ('error' in value) return ''
	return 'text' in value ? valueText(value.text as ExcelJS.CellValue) : ''
}

function dateText(date: Date): string {
	if (Number.isNaN(date.getTime())) return ''
	const iso = date.toISOString()
	return iso.endsWith('T00:00:00.000Z') ? iso.slice(0, 10) : iso
}

function refused(message: string): AppError {
	return new AppError('invalid', message)
}
