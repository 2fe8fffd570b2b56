/** What a formula comes to, as people read it; a cell of a column is written as its column says (`show-value.ts`). */
import type { Type } from '../model/formula.ts'
import type { Conventions } from '../model/writing.ts'
import { figuresOf, showMoney, showYesNo } from './show-value.ts'
import { showDate, showDuration, showInstant } from './show-times.ts'

export interface Worked {
	/** Not blank, and no error. */
	readonly value: string | number | boolean
	readonly type: Type
	/** The unit, where it is an amount of money. */
	readonly money?: string | undefined
}

/** @param place where the workspace is, and how they write there */
export function showWorked(
	{ value, type, money }: Worked,
	{ timeZone, writing }: { readonly timeZone: string; readonly writing: Conventions }
): string {
	switch (type.kind) {
		case 'number':
			// Bare figures are not grouped: they may be a year.
			return money === undefined ? figuresOf(Number(value), writing) : showMoney(Number(value), money, writing)
		case 'date':
			return showDate(String(value), writing)
		case 'datetime':
			return showInstant(String(value), timeZone, writing)
		case 'duration':
			return showDuration(Number(value))
		case 'yesno':
			return showYesNo(value)
		default:
			return String(value)
	}
}
