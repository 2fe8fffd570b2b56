/** By which columns the rows of a file can be told apart, and so be known again when the file comes once more. */
import type { ColumnGuess } from './guess.ts'
import { isNothing } from './nothing.ts'

const MOST_KEYS = 5
/** More columns together say that no key was meant. */
const MOST_TOGETHER = 3
/** Of columns that could be part of a key so many are tried together, the likeliest first. */
const MOST_TRIED = 8

/** Names of numbers that things go by, which measures do not have. */
export const MEANS_NUMBER = /\b(no\.?|nr\.?|number|id|code|ref|reference)$/i

/**
 * Lists of columns, by their places, each of which tells all rows apart: one column where one does, otherwise as few as do.
 * Codes, names and dates come before counts; measures are none, for two of them may be equal any day.
 *
 * @param rows some thousands of them are enough to tell by
 */
export function proposeKeys(columns: readonly ColumnGuess[], rows: readonly (readonly string[])[]): number[][] {
	if (rows.length === 0) return []
	const parts = columns
		.map((column, i) => ({ i, rank: rankOf(column) }))
		.filter(({ i, rank }) => rank !== undefined && rows.every((row) => !isNothing((row[i] ?? '').trim())))
		.sort((a, b) => (a.rank ?? 0) - (b.rank ?? 0))
		.map(({ i }) => i)
	for (let count = 1; count <= MOST_TOGETHER; count++) {
		const tried = count === 1 ? parts : parts.slice(0, MOST_TRIED)
		const found = together(tried, count).filter((key) => tellsApart(key, rows))
		if (found.length > 0) return found.slice(0, MOST_KEYS)
	}
	return []
}

function rankOf({ name, type, blank }: ColumnGuess): number | undefined {
	if (blank) return undefined
	switch (type) {
		case 'code':
			return 0
		case 'text':
		case 'email':
			return 1
		case 'date':
		case 'date and time':
			return 2
		case 'choice':
			return 3
		case 'time':
			return 4
		case 'whole number':
			return MEANS_NUMBER.test(name.trim()) ? 0 : 5
		default:
			return undefined
	}
}

/** All lists of so many of them, in their order. */
function together(parts: readonly number[], count: number): number[][] {
	if (count === 0) return [[]]
	return parts.flatMap((part, i) => together(parts.slice(i + 1), count - 1).map((rest) => [part, ...rest]))
}

function tellsApart(key: readonly number[], rows: readonly (readonly string[])[]): boolean {
	const seen = new Set<string>()
	for (const row of rows) {
		const text = key.map((i) => (row[i] ?? '').trim().toLowerCase()).join('\n')
		if (seen.has(text)) return false
		seen.add(text)
	}
	return true
}
