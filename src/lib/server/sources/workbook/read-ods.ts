/** Spreadsheets of OpenDocument (ODF 1.3, part 3, 9), streamed from the one document that holds all their sheets. */
import { BATCH, type RowBatch, type Sheet } from '../sheet.ts'
import type { Archive } from './archive.ts'
import { lettersOf } from './cell-address.ts'
import { OdsStyles } from './ods-styles.ts'
import { odsCellText } from './ods-value.ts'
import { MOST_COLUMNS, RowGatherer } from './row-gatherer.ts'
import { notesOf } from './workbook-notes.ts'
import { readAllXml, readXml, withMore, type Tag, type XmlHandlers } from './xml.ts'

const CONTENT = 'content.xml'

/** Sheets with something in them. */
export async function readOds(archive: Archive): Promise<Sheet[]> {
	const styles = new OdsStyles()
	await readAllXml(archive.pieces('styles.xml'), styles)
	const outline = new Outline(styles)
	await readAllXml(archive.pieces(CONTENT), outline)
	return outline.sheets
		.filter(({ isFilled, isCopy }) => isFilled && !isCopy)
		.map(({ name, place, style }) => openSheet(archive, { name, place, styles, isHidden: styles.isHidden(style) }))
}

interface Outlined {
	readonly name: string
	readonly style: string
	/** Among all tables of the document. */
	readonly place: number
	isFilled: boolean
	/** What stands here of another file, which a formula names. */
	isCopy: boolean
}

/** Which tables there are, and the document's own styles. */
class Outline implements XmlHandlers {
	readonly sheets: Outlined[] = []

	private readonly styles: OdsStyles

	constructor(styles: OdsStyles) {
		this.styles = styles
	}

	readonly open = (tag: Tag): void => {
		const { name, attributes } = tag
		const current = this.sheets.at(-1)
		if (!current) this.styles.open(tag)
		if (name === 'table')
			this.sheets.push({
				name: attributes['table:name'] ?? '',
				style: attributes['table:style-name'] ?? '',
				place: this.sheets.length,
				isFilled: false,
				isCopy: false
			})
		else if (name === 'table-source' && current) current.isCopy = true
		else if (name === 'table-cell' && current && attributes['office:value-type'] !== undefined) current.isFilled = true
	}

	readonly close = (name: string): void => this.styles.close(name)
	readonly text = (piece: string): void => this.styles.text(piece)
}

interface OfSheet {
	readonly name: string
	readonly place: number
	readonly styles: OdsStyles
	readonly isHidden: boolean
}

function openSheet(archive: Archive, of: OfSheet): Sheet {
	let notes: readonly string[] = []
	async function* batches(): AsyncGenerator<RowBatch> {
		const size = archive.sizeOf(CONTENT)
		let read = 0
		async function* counted(): AsyncGenerator<string> {
			for await (const piece of archive.pieces(CONTENT)) {
				read += piece.length
				yield piece
			}
		}
		const gatherer = new RowGatherer()
		const reader = new TableReader(of, gatherer)
		for await (const _piece of readXml(counted(), reader)) {
			if (gatherer.waiting >= BATCH) yield gatherer.take(Math.min(1, read / size))
			if (reader.isOver) break
		}
		yield gatherer.take(1)
		const { hiddenRows, errors } = gatherer
		notes = notesOf({ isHidden: of.isHidden, hiddenRows, hiddenColumns: reader.hiddenColumns, errors })
	}
	return { name: of.name, batches, notes: () => notes }
}

/** Faults that the office program shows as text of its own. */
const SHOWN_FAULT = /^Err:\d{3}$/
const MOST_HIDDEN = 100

interface Cell {
	readonly attributes: Tag['attributes']
	readonly isCovered: boolean
	shown: string
}

/** A cell with something in it, for the columns from `from` up to `to`, which is not among them. */
interface FilledCell extends Cell {
	readonly from: number
	readonly to: number
}

/** Takes the rows of one table as the document passes by. */
class TableReader implements XmlHandlers {
	/** Whether the table has come to its end. */
	isOver = false
	readonly hiddenColumns: string[] = []
	private place = -1
	private column = 0
	private row: Tag['attributes'] = {}
	private cell: Cell | undefined
	private filled: FilledCell[] = []
	/** How deep within what a cell holds besides its text: a remark, a picture. */
	private aside = 0
	/** Rows that say nothing, and count only if more follow. */
	private blank = 0
	/** The style that a column gives to cells without one. */
	private readonly columnStyles: (string | undefined)[] = []

	private readonly of: OfSheet
	private readonly gatherer: RowGatherer

	constructor(of: OfSheet, gatherer: RowGatherer) {
		this.of = of
		this.gatherer = gatherer
	}

	readonly open = ({ name, attributes }: Tag): void => {
		if (name === 'table' && this.aside === 0) this.place++
		if (this.place !== this.of.place || this.isOver) return
		if (this.aside > 0 || ASIDE.has(name)) this.aside++
		else if (name === 'table-row') this.beginRow(attributes)
		else if (name === 'table-cell' || name === 'covered-table-cell')
			this.cell = { attributes, isCovered: name === 'covered-table-cell', shown: '' }
		else if (name === 'table-column') this.takeColumn(attributes)
		else if (this.cell) this.takeMark(this.cell, name, attributes)
	}

	readonly close = (name: string): void => {
		if (this.place !== this.of.place || this.isOver) return
		if (this.aside > 0) this.aside--
		else if (name === 'table') this.isOver = true
		else if (name === 'table-row') this.endRow()
		else if (name === 'table-cell' || name === 'covered-table-cell') this.endCell()
	}

	readonly text = (piece: string): void => {
		if (this.cell && this.aside === 0) this.cell.shown = withMore(this.cell.shown, piece)
	}

	/** Spaces, tabs and line ends stand as marks of their own (ODF 1.3, part 3, 6.1); what follows a paragraph is a new line. */
	private takeMark(cell: Cell, name: string, attributes: Tag['attributes']): void {
		if (name === 's') cell.shown += ' '.repeat(Math.min(1_000, Number(attributes['text:c'] ?? 1)))
		else if (name === 'tab') cell.shown += '\t'
		else if (name === 'line-break' || (name === 'p' && cell.shown !== '')) cell.shown += '\n'
	}

	private takeColumn(attributes: Tag['attributes']): void {
		const from = this.columnStyles.length
		const count = Math.min(MOST_COLUMNS - from, countOf(attributes, 'table:number-columns-repeated'))
		const isHidden = (attributes['table:visibility'] ?? 'visible') !== 'visible'
		for (let i = 0; i < count; i++) {
			this.columnStyles.push(attributes['table:default-cell-style-name'])
			if (isHidden && count < MOST_HIDDEN) this.hiddenColumns.push(lettersOf(from + i))
		}
	}

	private beginRow(attributes: Tag['attributes']): void {
		this.row = attributes
		this.column = 0
		this.filled = []
	}

	private endCell(): void {
		const { cell } = this
		this.cell = undefined
		if (!cell) return
		const from = this.column
		this.column += countOf(cell.attributes, 'table:number-columns-repeated')
		if (cell.isCovered || cell.attributes['office:value-type'] === undefined) return
		if (this.column > MOST_COLUMNS) throw new Error('A row has more columns than a sheet can have')
		this.filled.push({ ...cell, from, to: this.column })
	}

	private endRow(): void {
		const times = countOf(this.row, 'table:number-rows-repeated')
		if (this.filled.length === 0) {
			this.blank += times
			return
		}
		this.gatherer.skipTo(this.gatherer.at + this.blank)
		this.blank = 0
		for (const cell of this.filled) this.takeCell(cell)
		this.gatherer.endRow({ isHidden: (this.row['table:visibility'] ?? 'visible') !== 'visible', times })
	}

	private takeCell({ attributes, shown, from, to }: FilledCell): void {
		const { gatherer } = this
		const isError =
			attributes['calcext:value-type'] === 'error' ||
			(attributes['table:formula'] !== undefined && SHOWN_FAULT.test(shown))
		const style = attributes['table:style-name'] ?? this.columnStyles[from]
		const text = isError ? '' : odsCellText(attributes, shown, this.of.styles.formatOf(style))
		for (let column = from; column < to; column++) {
			if (isError) gatherer.errors.add(`${lettersOf(column)}${gatherer.at + 1}`, shown)
			gatherer.cell(column, text, attributes['office:value-type'] !== 'string')
		}
		const right = from + countOf(attributes, 'table:number-columns-spanned') - 1
		const bottom = gatherer.at + countOf(attributes, 'table:number-rows-spanned') - 1
		gatherer.merged({ top: gatherer.at, left: from, bottom, right })
	}
}

/** What stands beside the text of a cell, or beside all cells. */
const ASIDE = new Set(['annotation', 'frame', 'shapes', 'forms', 'tracked-changes'])

function countOf(attributes: Tag['attributes'], name: string): number {
	return Math.max(1, Number(attributes[name] ?? 1) || 1)
}
