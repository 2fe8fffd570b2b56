import { countOf } from '$lib/core/text/count.ts'

/** Rows that are seen, and in no number, since part of them is kept from their reader. */
export function sayLeftOut(rows: number): string {
	return `${countOf(rows, 'row')} not counted: part of ${rows === 1 ? 'it' : 'each'} is kept from you`
}
