import { countOf } from '$lib/core/text/count.ts'

/** What a sheet holds that nobody sees who looks at it, or that cannot be read. */
export interface Unseen {
	readonly isHidden: boolean
	/** As people count. */
	readonly hiddenRows: readonly number[]
	/** Their letters. */
	readonly hiddenColumns: readonly string[]
	/** Each with its address and what it shows, such as `O4 #DIV/0!`. */
	readonly errors: readonly string[]
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

function errorNote(errors: readonly string[]): string[] {
	if (errors.length === 0) return []
	return errors.length === 1
		? [`1 cell shows an error, and is read as blank: ${errors[0]}.`]
		: [`${countOf(errors.length, 'cell')} show an error, and are read as blank: ${firstOf(errors)}.`]
}

function hiddenNote(what: 'row' | 'column', where: readonly string[]): string[] {
	if (where.length === 0) return []
	return where.length === 1
		? [`The ${what} ${where[0]} is hidden in the workbook, and comes in all the same.`]
		: [`${countOf(where.length, what)} are hidden in the workbook, and come in all the same: ${firstOf(where)}.`]
}

const MOST_NAMED = 5

function firstOf(all: readonly string[]): string {
	const named = all.slice(0, MOST_NAMED).join(', ')
	return all.length > MOST_NAMED ? `${named} and ${all.length - MOST_NAMED} more` : named
}
