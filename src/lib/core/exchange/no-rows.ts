/**
 * Rows of a sheet that are no records: totals, headings that come again, a row of units under the headings, notes at the end. They
 * are named and left out unless the builder keeps them; judged as the rows pass by, in the memory of a few.
 */
import { parseNumber } from '../table/kinds/numbers.ts'
import { TYPED } from '../table/kinds/kind.ts'

export type NoRowKind = 'total' | 'heading' | 'units' | 'note'

export interface NoRow {
	/** Its number, as people count. */
	readonly row: number
	readonly what: NoRowKind
	/** How it begins. */
	readonly text: string
}

export interface NoRowFinder {
	/** What a row is, if it is no record. One that looks like a note is one only at the end: whoever asks knows what follows. */
	judge(cells: readonly string[], isAfterGap: boolean): NoRowKind | undefined
}

const TOTAL =
	/^(grand[ -]|sub[ -]?)?totals?\b|^(overall|sum|summe|gesamt|total général)\b|^all$|[,:;–-] *sum$|\b(sub[ -]?)?totals?$/i
const UNIT =
	/^[[(]?\s*(mm|cm|d?m|km|nm|ft|in|g|kg|t|lb|l|m[²³23]|°|°?[CF]|%|[£€$¥]|GBP|EUR|USD|h|hrs?|min|s|days?|pcs?|no\.?|yes\/no|kn|kW|V|A|text|date)\s*[\])]?$/i
const NOTE = /^(\*|†|‡|note|source|nb|n\.b\.|remark|legend|key\b|as (of|at)\b|\(\w\))/i
/** A sheet of two columns has rows with one cell filled for other reasons. */
const LEAST_WIDTH = 3

/** @param headings those of the sheet, or none; `width`: how many columns it has */
export function openNoRows(headings: readonly string[] | undefined, width: number): NoRowFinder {
	const heads = (headings ?? []).map(plain)
	const usual = heads.filter((head) => head !== '').length || width
	let isFirst = true
	return {
		judge(cells, isAfterGap) {
			const wasFirst = isFirst
			isFirst = false
			const filled = cells.map((cell, i) => ({ text: cell.trim(), i })).filter(({ text }) => text !== '')
			const [first] = filled
			if (!first) return undefined
			const same = filled.filter(({ text, i }) => plain(text) === heads[i] && heads[i] !== '').length
			if (same >= 2 && same * 10 >= filled.length * 8) return 'heading'
			// What rows are known by has no unit, so that its cell is blank there.
			const areUnits = wasFirst && filled.every(({ text }) => UNIT.test(text))
			const areBracketed = filled.length >= 2 && filled.every(({ text }) => /^[[(]/.test(text))
			if (areUnits && ((first.i > 0 && width >= LEAST_WIDTH) || areBracketed)) return 'units'
			if (width < LEAST_WIDTH) return undefined
			const numbers = filled.filter(({ text }) => isNumber(text)).length
			if (TOTAL.test(first.text) && numbers > 0 && filled.length < width) return 'total'
			if (isAfterGap && filled.length <= Math.max(1, usual / 3)) return 'note'
			return filled.length === 1 && !isNumber(first.text) && (NOTE.test(first.text) || first.text.length > LONG_NOTE)
				? 'note'
				: undefined
		}
	}
}

const LONG_NOTE = 25

/** Units that stand in a row of their own, for the headings over them. */
export function unitsOf(cells: readonly string[]): (string | undefined)[] {
	return cells.map((cell) => {
		const unit = cell.trim().replace(/^[[(]\s*|\s*[\])]$/g, '')
		return unit === '' || /^(text|date|no\.?|yes\/no)$/i.test(unit) ? undefined : unit
	})
}

function plain(text: string): string {
	return text.replace(/\s+/g, ' ').trim().toLowerCase()
}

function isNumber(text: string): boolean {
	return parseNumber(text.replace(/[£€$¥%\s]/g, ''), TYPED) !== undefined
}
