/**
 * Rows of a sheet that are no records: totals, headings that come again, a row of units under the headings, notes at the end. They
 * are named and left out unless the builder keeps them; judged as the rows pass by, in the memory of a few.
 */
import { parseNumber } from '../table/kinds/numbers.ts'
import { TYPED } from '../model/writing.ts'

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
			const at = cells.findIndex(isFilled)
			const first = (cells[at] ?? '').trim()
			if (first === '') return undefined
			const filled = cells.reduce((all, cell) => (isFilled(cell) ? all + 1 : all), 0)
			if (repeatsHeads(cells, heads, filled)) return 'heading'
			if (wasFirst && areUnits(cells, { isFirstBlank: at > 0, width, filled })) return 'units'
			if (width < LEAST_WIDTH) return undefined
			if (filled < width && TOTAL.test(first) && cells.some(isNumber)) return 'total'
			if (isAfterGap && filled <= Math.max(1, usual / 3)) return 'note'
			return filled === 1 && (NOTE.test(first) || first.length > LONG_NOTE) && !isNumber(first) ? 'note' : undefined
		}
	}
}

/** Nearly all cells say what stands over them. Asked of every row of a file, so that it stops where too many do not. */
function repeatsHeads(cells: readonly string[], heads: readonly string[], filled: number): boolean {
	let others = 0
	for (const [i, cell] of cells.entries()) {
		if (!isFilled(cell) || (heads[i] !== '' && plain(cell) === heads[i])) continue
		others++
		if (others * 5 > filled) return false
	}
	return filled - others >= 2
}

/** What rows are known by has no unit, so that its cell is blank there. */
function areUnits(
	cells: readonly string[],
	{ isFirstBlank, width, filled }: { isFirstBlank: boolean; width: number; filled: number }
): boolean {
	const texts = cells.filter(isFilled).map((cell) => cell.trim())
	const areBracketed = filled >= 2 && texts.every((text) => /^[[(]/.test(text))
	return ((isFirstBlank && width >= LEAST_WIDTH) || areBracketed) && texts.every((text) => UNIT.test(text))
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

function isFilled(cell: string): boolean {
	return cell.trim() !== ''
}

function isNumber(text: string): boolean {
	return parseNumber(text.replace(/[£€$¥%\s]/g, ''), TYPED) !== undefined
}
