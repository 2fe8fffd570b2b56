/** What is said where a number or a chart leaves something out. */
import { MOST_COUNTED } from './most-counted.ts'
import { countOf } from '../text/count.ts'

/** Rows that are seen, and in no number, since part of them is kept from their reader. */
export function sayLeftOut(rows: number): string {
	return `${countOf(rows, 'row')} not counted: part of ${rows === 1 ? 'it' : 'each'} is kept from you`
}

/** Of which rows a chart is made, where it is not made of all. */
export const SAYS_PART = `of the ${countOf(MOST_COUNTED, 'row')} added last`

/** Groups that are smaller than those that are shown. */
export function sayMore(more: number | null): readonly string[] {
	if (more === null) return ['thousands of further groups are not shown']
	return more === 0 ? [] : [`${more} more ${more === 1 ? 'group is' : 'groups are'} not shown`]
}
