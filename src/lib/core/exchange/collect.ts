/**
 * What stands in a column of a file, gathered as its rows pass by, in bounded memory: each different value with how often
 * and in which rows it stands.
 *
 * A column with very many values keeps the first of them and, from there on, whatever looks like nothing seen so far (by
 * its shape: letters, digits and signs). So the one "n/k" in a million depths is still found.
 */

import { ownCopy } from '../text/own-copy.ts'

export interface Collected {
	readonly text: string
	count: number
	/** The first rows that it stands in, as people count. */
	readonly rows: number[]
	/** Whether the file itself keeps it as a number, wherever it stands. */
	typed: boolean
}

const MOST_VALUES = 10_000
const MOST_SHAPES = 2_000
const MOST_ROWS = 50
const MOST_CHARACTERS = 2_000

export class ColumnCollector {
	private readonly values = new Map<string, Collected>()
	private readonly shapes = new Set<string>()
	/** The longest cell, and its row. */
	longest = { length: 0, row: 0 }
	private asked = 0
	private found = 0

	/** `row`: its number as people count; `typed`: whether the file keeps it as a number. */
	add(whole: string, row: number, typed = false): void {
		if (whole.length > this.longest.length) this.longest = { length: whole.length, row }
		// What a type is told by stands at its beginning; thousands of long cells are not kept whole.
		const cell = whole.length > MOST_CHARACTERS ? whole.slice(0, MOST_CHARACTERS) : whole
		// Where nearly every value is another, looking up only costs: then its shape alone is looked at.
		const full = this.values.size >= MOST_VALUES
		if (full && this.found * 2 < this.asked) return this.addIfNew(cell, row, typed)
		this.asked++
		const known = this.values.get(cell)
		if (known) {
			this.found++
			known.count++
			known.typed &&= typed
			if (known.rows.length < MOST_ROWS) known.rows.push(row)
			return
		}
		if (full) this.addIfNew(cell, row, typed)
		else this.keep(cell, row, typed)
	}

	private addIfNew(cell: string, row: number, typed: boolean): void {
		if (this.isNewShape(cell)) this.keep(cell, row, typed)
	}

	/** Each different value once; those that differ in the spaces round them are one. */
	collected(): readonly Collected[] {
		const trimmed = new Map<string, Collected>()
		for (const each of this.values.values()) {
			const text = each.text.trim()
			const known = trimmed.get(text)
			if (known) {
				known.count += each.count
				known.rows.push(...each.rows)
				known.typed &&= each.typed
			} else trimmed.set(text, { ...each, text, rows: [...each.rows] })
		}
		return [...trimmed.values()]
	}

	private keep(cell: string, row: number, typed: boolean): void {
		const text = ownCopy(cell)
		this.values.set(text, { text, count: 1, rows: [row], typed })
	}

	private isNewShape(cell: string): boolean {
		if (this.shapes.size === 0) for (const text of this.values.keys()) this.shapes.add(shapeOf(text))
		const shape = shapeOf(cell)
		if (this.shapes.has(shape) || this.shapes.size >= MOST_SHAPES) return false
		this.shapes.add(shape)
		return true
	}
}

/** Runs of digits as one 9, runs of letters as one a; signs as they are. */
function shapeOf(text: string): string {
	return text
		.slice(0, 80)
		.replace(/\d+/g, '9')
		.replace(/\p{L}+/gu, 'a')
}
