/**
 * What the number format of a spreadsheet cell says of its value: a format such as `[$£-809]#,##0.00` or `[hh]:mm` is the
 * only place where a workbook tells an amount, a share, a date or a span of time from a bare number (ECMA-376-1, 18.8.30
 * and 18.8.31, from memory).
 */

import { CURRENCY_MARK } from '../table/kinds/currency.ts'

export type CellFormat =
	/** `places`: the decimals that are shown whether or not they are noughts. */
	| { readonly kind: 'number'; readonly places?: number }
	/** Leading noughts are part of it, as in a code. `digits`: at least so many. */
	| { readonly kind: 'padded'; readonly digits: number }
	| { readonly kind: 'percent' }
	/** `sign`: as it is shown, `£`, or the code of ISO 4217. */
	| { readonly kind: 'money'; readonly sign: string }
	/** A day, with or without the time of day. */
	| { readonly kind: 'date' }
	/** A time of day. */
	| { readonly kind: 'clock' }
	| { readonly kind: 'span' }

export const PLAIN_NUMBER: CellFormat = { kind: 'number' }

/** @param code as the workbook writes it; of its sections the first, for positive numbers, tells what the value is */
export function readFormat(code: string): CellFormat {
	const { bare, literals, isSpan } = takeApart(code)
	if (isSpan) return { kind: 'span' }
	if (/^general$/i.test(bare.trim())) return PLAIN_NUMBER
	// An exponent (`0.00E+00`) and the era of a calendar share a letter; digits come with the first alone.
	const letters = bare.replace(/[e][+-]/gi, '').toLowerCase()
	if (/[yd]|m(?![^hs]*[hs])/.test(letters) && !isClock(letters)) return { kind: 'date' }
	if (/[hs]/.test(letters)) return { kind: 'clock' }
	const [sign] = CURRENCY_MARK.exec(literals) ?? []
	if (sign !== undefined) return { kind: 'money', sign }
	if (bare.includes('%')) return { kind: 'percent' }
	const [noughts] = /^0{2,}$/.exec(bare.trim()) ?? []
	if (noughts !== undefined) return { kind: 'padded', digits: noughts.length }
	const [, places] = /\.(0+)(?![^e]*e)/i.exec(bare) ?? []
	return places === undefined ? PLAIN_NUMBER : { kind: 'number', places: places.length }
}

/** Formats that have a number and no code in the file (ECMA-376-1, 18.8.30). Those of money depend on the country, and tell no currency. */
export function builtInFormat(id: number): CellFormat {
	if (id === 9 || id === 10) return { kind: 'percent' }
	if ((id >= 14 && id <= 17) || id === 22 || (id >= 27 && id <= 36) || (id >= 50 && id <= 58)) return { kind: 'date' }
	if ((id >= 18 && id <= 21) || id === 45 || id === 47) return { kind: 'clock' }
	return id === 46 ? { kind: 'span' } : PLAIN_NUMBER
}

/** An m between hours and seconds means minutes. */
function isClock(letters: string): boolean {
	return /[hs]/.test(letters) && !/[yd]/.test(letters)
}

interface Parts {
	/** What stands for digits and parts of a date. */
	readonly bare: string
	/** What is shown as it stands, and signs of money. */
	readonly literals: string
	readonly isSpan: boolean
}

const PIECE = /"([^"]*)"|\\(.)|[_*].|\[([^\]]*)\]|(;)|([£€$¥])|([^"\\_*[;£€$¥]+)/g

function takeApart(code: string): Parts {
	let bare = ''
	let literals = ''
	for (const [, quoted, escaped, bracketed, end, sign, plain] of code.matchAll(PIECE)) {
		if (end !== undefined) break
		if (bracketed !== undefined && /^(h+|m+|s+)$/i.test(bracketed)) return { bare, literals, isSpan: true }
		// `[$£-809]`: a sign of money with the language it is written in; other brackets are colours and conditions.
		if (bracketed?.startsWith('$')) literals += ` ${bracketed.slice(1).replace(/-[^-]*$/, '')} `
		literals += quoted ?? escaped ?? sign ?? ''
		bare += plain ?? ''
	}
	return { bare: bare.replace(/am\/pm|a\/p/gi, 'h'), literals, isSpan: false }
}
