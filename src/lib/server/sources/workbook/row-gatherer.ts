/** Gathers the rows of a sheet as its cells pass by, with what the file says of them beyond their text. */
import type { CellSpan, RowBatch } from '../sheet.ts'
import { ErrorCells } from './workbook-notes.ts'

/** As many rows as a sheet may have (ECMA-376; the office programs' own bound). */
export const MOST_ROWS = 1_048_576
export const MOST_COLUMNS = 16_384

const NO_CELLS: readonly string[] = []

export interface Merged {
	/** All counted from 0, the last ones included. */
	readonly top: number
	readonly left: number
	readonly bottom: number
	readonly right: number
}

export class RowGatherer {
	/** Of the next row that is ended. */
	at = 0
	readonly errors = new ErrorCells()
	/** As people count. */
	readonly hiddenRows: number[] = []
	private rows: (readonly string[])[] = []
	private typed: (ReadonlySet<number> | undefined)[] = []
	private spans: CellSpan[] = []
	private cells: string[] = []
	private numbers: Set<number> | undefined
	/** Cells over several rows whose last row has not come. */
	private tall: {
		readonly column: number
		readonly last: number
		readonly text: string
		readonly isNumber: boolean
	}[] = []

	/** How many rows wait to be taken. */
	get waiting(): number {
		return this.rows.length
	}

	/** @param column from 0 */
	cell(column: number, text: string, isNumber: boolean): void {
		if (text === '') return
		while (this.cells.length < column) this.cells.push('')
		this.cells[column] = text
		if (isNumber) (this.numbers ??= new Set()).add(column)
	}

	/** A merged area whose first cell is in the row that is being gathered. */
	merged({ top, left, bottom, right }: Merged): void {
		if (right > left && bottom === top) this.spans.push({ row: top, from: left, to: right })
		const text = this.cells[left] ?? ''
		// What stands beside several rows stands for each of them; a block over rows and columns is a title or a note.
		if (bottom > top && right === left && text !== '')
			this.tall.push({ column: left, last: bottom, text, isNumber: this.numbers?.has(left) ?? false })
	}

	/** Blank rows up to a row, which is not among them. */
	skipTo(row: number): void {
		while (this.at < row) this.endRow()
	}

	/** `times`: how often the same row stands there. */
	endRow({ isHidden = false, times = 1 }: { isHidden?: boolean; times?: number } = {}): void {
		if (this.at + times > MOST_ROWS) throw new Error('The sheet has more rows than a sheet can have')
		if (this.tall.length > 0 && times > 1) return this.endEach(times, isHidden)
		for (const { column, text, isNumber } of this.tall) this.cell(column, text, isNumber)
		this.tall = this.tall.filter(({ last }) => last > this.at)
		const isBlank = this.cells.length === 0
		for (let i = 0; i < times; i++) {
			this.rows.push(isBlank ? NO_CELLS : this.cells)
			this.typed.push(this.numbers)
			if (isHidden && !isBlank) this.hiddenRows.push(this.at + 1)
			this.at++
		}
		this.cells = []
		this.numbers = undefined
	}

	/** One by one, since cells over several rows end among them. */
	private endEach(times: number, isHidden: boolean): void {
		const { cells, numbers } = this
		for (let i = 0; i < times; i++) {
			this.cells = [...cells]
			this.numbers = numbers && new Set(numbers)
			this.endRow({ isHidden })
		}
	}

	/** What was gathered, which is then forgotten. */
	take(share: number): RowBatch {
		const batch = { rows: this.rows, typed: this.typed, spans: this.spans, share }
		this.rows = []
		this.typed = []
		this.spans = []
		return batch
	}
}
