/**
 * Workbooks of Office Open XML (ECMA-376-1, 18), streamed: a sheet of a million rows takes no more memory than one of a
 * thousand, but for the texts that its sheets share.
 */
import { numberCellText } from '$lib/core/exchange/cell-text.ts'
import { builtInFormat, PLAIN_NUMBER, readFormat, type CellFormat } from '$lib/core/exchange/number-format.ts'
import { ownCopy } from '$lib/core/text/own-copy.ts'
import { BATCH, type RowBatch, type Sheet } from '../sheet.ts'
import type { Archive } from './archive.ts'
import { columnOf, lettersOf } from './cell-address.ts'
import { MOST_COLUMNS, MOST_ROWS, RowGatherer, type Merged } from './row-gatherer.ts'
import { notesOf } from './workbook-notes.ts'
import { readAllXml, readXml, withMore } from './xml.ts'

/** Sheets with something in them. */
export async function readXlsx(archive: Archive): Promise<Sheet[]> {
	const book = await readBook(archive)
	const strings = await readStrings(archive, book.strings)
	const formats = await readFormats(archive, book.styles)
	const sheets: Sheet[] = []
	for (const { name, part, isHidden } of book.sheets)
		if (await isFilled(archive, part))
			sheets.push(openSheet(archive, { name, part, isHidden, strings, formats, is1904: book.is1904 }))
	return sheets
}

interface Book {
	readonly sheets: readonly { readonly name: string; readonly part: string; readonly isHidden: boolean }[]
	readonly strings: string
	readonly styles: string
	readonly is1904: boolean
}

const WORKBOOK = 'xl/workbook.xml'

async function readBook(archive: Archive): Promise<Book> {
	const parts = new Map<string, string>()
	let strings = 'xl/sharedStrings.xml'
	let styles = 'xl/styles.xml'
	await readAllXml(archive.pieces('xl/_rels/workbook.xml.rels'), {
		open({ name, attributes: { Id: id = '', Target: target = '', Type: type = '' } }) {
			if (name !== 'Relationship') return
			const part = target.startsWith('/') ? target.slice(1) : `xl/${target.replace(/^\.\//, '')}`
			parts.set(id, part)
			if (type.endsWith('/sharedStrings')) strings = part
			if (type.endsWith('/styles')) styles = part
		},
		close: () => undefined,
		text: () => undefined
	})
	const sheets: Book['sheets'][number][] = []
	let is1904 = false
	await readAllXml(archive.pieces(WORKBOOK), {
		open({ name, attributes }) {
			if (name === 'workbookPr') is1904 = isTrue(attributes['date1904'])
			if (name !== 'sheet') return
			const link = Object.entries(attributes).find(([key]) => /(^|:)id$/.test(key))?.[1] ?? ''
			const part = parts.get(link)
			const isHidden = (attributes['state'] ?? 'visible') !== 'visible'
			if (part !== undefined && archive.has(part)) sheets.push({ name: attributes['name'] ?? '', part, isHidden })
		},
		close: () => undefined,
		text: () => undefined
	})
	return { sheets, strings, styles, is1904 }
}

/** Some writers say `1`, others `true`. */
function isTrue(value: string | undefined): boolean {
	return value === '1' || value === 'true' || value === 'on'
}

async function readStrings(archive: Archive, part: string): Promise<string[]> {
	const strings: string[] = []
	let text = ''
	let isText = false
	let isPhonetic = false
	await readAllXml(archive.pieces(part), {
		open({ name }) {
			if (name === 'si') text = ''
			if (name === 'rPh') isPhonetic = true
			isText = name === 't' && !isPhonetic
		},
		close(name) {
			isText = false
			if (name === 'rPh') isPhonetic = false
			if (name === 'si') strings.push(ownCopy(unescaped(text)))
		},
		text(piece) {
			if (isText) text = withMore(text, piece)
		}
	})
	return strings
}

/** `_x000D_`: characters that XML cannot hold (ECMA-376-1, 22.9.2.19). */
function unescaped(text: string): string {
	if (!text.includes('_x')) return text
	return text.replace(/_x([0-9a-f]{4})_/gi, (_all, code: string) => String.fromCharCode(parseInt(code, 16)))
}

/** The format of each style that a cell can have, by the style's place. */
async function readFormats(archive: Archive, part: string): Promise<CellFormat[]> {
	const own = new Map<number, CellFormat>()
	const formats: CellFormat[] = []
	let isCellStyles = false
	await readAllXml(archive.pieces(part), {
		open({ name, attributes }) {
			if (name === 'cellXfs') isCellStyles = true
			if (name === 'numFmt') own.set(Number(attributes['numFmtId']), readFormat(attributes['formatCode'] ?? ''))
			if (name !== 'xf' || !isCellStyles) return
			const id = Number(attributes['numFmtId'] ?? 0)
			formats.push(own.get(id) ?? builtInFormat(id))
		},
		close(name) {
			if (name === 'cellXfs') isCellStyles = false
		},
		text: () => undefined
	})
	return formats
}

const FILLED = /<(?:\w+:)?(?:v|is)[ >]/
/** No tag that is looked for is longer. */
const OVERLAP = 64

async function isFilled(archive: Archive, part: string): Promise<boolean> {
	let before = ''
	for await (const piece of archive.pieces(part)) {
		if (FILLED.test(before + piece)) return true
		before = piece.slice(-OVERLAP)
	}
	return false
}

interface OfSheet {
	readonly name: string
	readonly part: string
	readonly isHidden: boolean
	readonly strings: readonly string[]
	readonly formats: readonly CellFormat[]
	readonly is1904: boolean
}

function openSheet(archive: Archive, of: OfSheet): Sheet {
	let notes: readonly string[] = []
	async function* batches(): AsyncGenerator<RowBatch> {
		const size = archive.sizeOf(of.part)
		let read = 0
		async function* counted(): AsyncGenerator<string> {
			for await (const piece of archive.pieces(of.part)) {
				read += piece.length
				yield piece
			}
		}
		const gatherer = new RowGatherer()
		const reader = new SheetReader(of, gatherer, await readMerged(archive, of.part))
		for await (const _piece of readXml(counted(), reader))
			if (gatherer.waiting >= BATCH) yield gatherer.take(Math.min(1, read / size))
		yield gatherer.take(1)
		const { hiddenRows, errors } = gatherer
		notes = notesOf({ isHidden: of.isHidden, hiddenRows, hiddenColumns: reader.hiddenColumns, errors })
	}
	return { name: of.name, batches, notes: () => notes }
}

const MERGED = /<(?:\w+:)?mergeCell\b[^>]*?\bref=["']\$?([A-Z]+)\$?(\d+):\$?([A-Z]+)\$?(\d+)["']/g
/** Of what stands after the cells so much is looked through: some half a million merged cells. */
const MOST_AFTER = 20_000_000
const CELLS_END = /<\/(?:\w+:)?sheetData>/

/** Merged cells by their first row. They stand after all cells, which are passed over for them. */
async function readMerged(archive: Archive, part: string): Promise<ReadonlyMap<number, readonly Merged[]>> {
	let after = ''
	let isAfter = false
	for await (const piece of archive.pieces(part)) {
		after += piece
		if (after.length > MOST_AFTER) break
		if (isAfter) continue
		const end = CELLS_END.exec(after)
		if (end) isAfter = true
		else after = after.slice(-OVERLAP)
	}
	const merged = new Map<number, Merged[]>()
	for (const [, left = '', top = '', right = '', bottom = ''] of isAfter ? after.matchAll(MERGED) : []) {
		const area = { top: Number(top) - 1, left: columnOf(left), bottom: Number(bottom) - 1, right: columnOf(right) }
		const beside = merged.get(area.top)
		if (beside) beside.push(area)
		else merged.set(area.top, [area])
	}
	return merged
}

/** Days between the two calendars that a workbook can count by (18.17.4.1). */
const DAYS_TO_1904 = 1462
const MOST_HIDDEN = 100

/** Takes the cells of a sheet as its XML passes by (18.3.1). */
class SheetReader {
	readonly hiddenColumns: string[] = []
	private column = -1
	private isHiddenRow = false
	private type = 'n'
	private style = 0
	private value = ''
	private isValue = false
	private isPhonetic = false

	private readonly of: OfSheet
	private readonly gatherer: RowGatherer
	private readonly merged: ReadonlyMap<number, readonly Merged[]>

	constructor(of: OfSheet, gatherer: RowGatherer, merged: ReadonlyMap<number, readonly Merged[]>) {
		this.of = of
		this.gatherer = gatherer
		this.merged = merged
	}

	readonly open = ({ name, attributes }: { name: string; attributes: Readonly<Record<string, string>> }): void => {
		if (name === 'c') this.beginCell(attributes)
		else if (name === 'v') this.isValue = true
		// Of a text in its own cell, as of a shared one, what is said of its pronunciation is no part.
		else if (name === 't') this.isValue = !this.isPhonetic
		else if (name === 'rPh') this.isPhonetic = true
		else if (name === 'row') this.beginRow(attributes)
		else if (name === 'col' && isTrue(attributes['hidden'])) this.hide(attributes)
	}

	readonly close = (name: string): void => {
		if (name === 'v' || name === 't') this.isValue = false
		else if (name === 'rPh') this.isPhonetic = false
		else if (name === 'c') this.endCell()
		else if (name === 'row') this.endRow()
	}

	readonly text = (piece: string): void => {
		if (this.isValue) this.value = withMore(this.value, piece)
	}

	private beginRow({ r, hidden }: Readonly<Record<string, string>>): void {
		const row = r === undefined ? this.gatherer.at : Number(r) - 1
		if (!(row < MOST_ROWS)) throw new Error(`Row ${r} lies beyond the last that a sheet can have`)
		this.gatherer.skipTo(row)
		this.isHiddenRow = isTrue(hidden)
		this.column = -1
	}

	private endRow(): void {
		for (const area of this.merged.get(this.gatherer.at) ?? []) this.gatherer.merged(area)
		this.gatherer.endRow({ isHidden: this.isHiddenRow })
	}

	private beginCell({ r, t = 'n', s = '0' }: Readonly<Record<string, string>>): void {
		const letters = r === undefined ? undefined : /^[A-Z]{1,3}/.exec(r)?.[0]
		this.column = letters === undefined ? this.column + 1 : columnOf(letters)
		if (this.column >= MOST_COLUMNS) throw new Error(`Column ${r} lies beyond the last that a sheet can have`)
		this.type = t
		this.style = Number(s)
		this.value = ''
	}

	private endCell(): void {
		const { value, type, column, gatherer } = this
		if (value === '') return
		if (type === 'e') gatherer.errors.add(`${lettersOf(column)}${gatherer.at + 1}`, value)
		else if (type === 'n') this.addNumber(value)
		else gatherer.cell(column, this.textOf(value), false)
	}

	private addNumber(value: string): void {
		const number = Number(value)
		if (!Number.isFinite(number)) return this.gatherer.cell(this.column, value, false)
		const format = this.of.formats[this.style] ?? PLAIN_NUMBER
		const isDay = format.kind === 'date'
		const text = numberCellText(isDay && this.of.is1904 ? number + DAYS_TO_1904 : number, format)
		this.gatherer.cell(this.column, text, true)
	}

	private textOf(value: string): string {
		switch (this.type) {
			case 's':
				return this.of.strings[Number(value)] ?? ''
			case 'b':
				return isTrue(value) ? 'true' : 'false'
			case 'd':
				return value
					.replace('T', ' ')
					.replace(/(\.\d+)?Z?$/, '')
					.replace(/ 00:00(:00)?$/, '')
			default:
				return unescaped(value)
		}
	}

	private hide({ min = '0', max = '0' }: Readonly<Record<string, string>>): void {
		// A writer hides all columns to the right of a sheet at once.
		if (Number(max) - Number(min) >= MOST_HIDDEN) return
		for (let column = Number(min); column <= Number(max); column++) this.hiddenColumns.push(lettersOf(column - 1))
	}
}
