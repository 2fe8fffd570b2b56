import { countOf } from '$lib/core/text/count.ts'

const MOST_NAMED = 5

/** What a sheet holds that nobody sees who looks at it, or that cannot be read. */
export interface Unseen {
	readonly isHidden: boolean
	/** As people count. */
	readonly hiddenRows: readonly number[]
	/** Their letters. */
	readonly hiddenColumns: readonly string[]
	readonly errors: ErrorCells
}

/** Cells that show an error: the first few by name, since a sheet can be full of them. */
export class ErrorCells {
	count = 0
	/** Each with its address and what it shows, such as `O4 #DIV/0!`. */
	readonly first: string[] = []

	add(address: string, shown: string): void {
		this.count++
		if (this.first.length < MOST_NAMED) this.first.push(`${address} ${shown}`.trim())
	}
}

/** In the reader's words: hidden rows are rows, and come in; an error is no value. */
export function notesOf({ isHidden, hiddenRows, hiddenColumns, errors }: Unseen): string[] {
	return [
		...(isHidden ? ['This sheet is hidden in the workbook.'] : []),
		...hiddenNote('row', hiddenRows.map(String)),
		...hiddenNote('column', hiddenColumns),
		...errorNote(errors)
	]
}

function errorNote({ count, first }: ErrorCells): string[] {
	if (count === 0) return []
	return count === 1
		? [`1 cell shows an error, and is read as blank: ${first[0]}.`]
		: [`${countOf(count, 'cell')} show an error, and are read as blank: ${named(first, count)}.`]
}

function hiddenNote(what: 'row' | 'column', where: readonly string[]): string[] {
	if (where.length === 0) return []
	return where.length === 1
		? [`The ${what} ${where[0]} is hidden in the workbook, and comes in all the same.`]
		: [
				`${countOf(where.length, what)} are hidden in the workbook, and come in all the same: ${named(where, where.length)}.`
			]
}

function named(first: readonly string[], count: number): string {
	const names = first.slice(0, MOST_NAMED).join(', ')
	return count > MOST_NAMED ? `${names} and ${count - MOST_NAMED} more` : names
}
