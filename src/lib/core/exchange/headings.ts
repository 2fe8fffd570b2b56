/**
 * Where the headings of a sheet stand, and where its rows start. Title rows above the headings are common; a sheet may
 * also have no headings at all.
 */
import { parseNumber } from '../table/kinds/numbers.ts'
import { parseDate } from '../table/kinds/date.ts'
import { TYPED } from '../model/writing.ts'

export interface Headings {
	/** Counted from 0; null where there is none. */
	readonly headingRow: number | null
	readonly firstRow: number
	/** Whether the row above belongs to the headings: `Chain` over `Length` and `Read` makes `Chain Length`, `Chain Read`. */
	readonly overTwo: boolean
}

/** A cell of a row that goes over several columns, all counted from 0, the last included. */
export interface HeadingSpan {
	readonly row: number
	readonly from: number
	readonly to: number
}

const LOOKED_AT = 30

/** `spans`: what a workbook says of cells that were made one. */
export function findHeadings(rows: readonly (readonly string[])[], spans: readonly HeadingSpan[] = []): Headings {
	const head = rows.slice(0, LOOKED_AT)
	const widths = head.map((row) => row.filter((cell) => cell.trim() !== '').length)
	const usual = usualWidth(widths)
	let at = widths.findIndex((width, i) => width >= Math.max(1, Math.ceil(usual * 0.6)) && !isComment(head[i]))
	if (at < 0) at = 0
	const row = head[at] ?? []
	const below = head.slice(at + 1).filter((each) => each.some((cell) => cell.trim() !== ''))
	if (!looksLikeHeadings(row, below)) return { headingRow: null, firstRow: at, overTwo: false }
	const [next = [], ...rest] = head.slice(at + 1)
	if (isSecondRow(row, next, rest, spansOf(spans, at))) return { headingRow: at + 1, firstRow: at + 2, overTwo: true }
	return {
		headingRow: at,
		firstRow: at + 1,
		overTwo: at > 0 && isSecondRow(head[at - 1] ?? [], row, below, spansOf(spans, at - 1))
	}
}

/** Groups above, each over several columns, and words for each column below them; then values. */
function isSecondRow(
	upper: readonly string[],
	lower: readonly string[],
	below: readonly (readonly string[])[],
	spans: readonly HeadingSpan[]
): boolean {
	const filled = upper.filter((cell) => cell.trim() !== '')
	const words = lower.filter((cell) => cell.trim() !== '')
	// One group over some of the columns; over all of them it is a title.
	const [span] = spans
	const isGroup =
		filled.length === 1 && spans.length === 1 && span !== undefined && span.to - span.from + 1 < words.length
	if ((filled.length < 2 && !isGroup) || words.length < filled.length || [...filled, ...words].some(isValue))
		return false
	const goesOn = upper.some((cell, i) => cell.trim() === '' && (lower[i] ?? '').trim() !== '')
	const repeats = new Set(filled).size < filled.length
	return (
		(goesOn || repeats) &&
		new Set(words).size > new Set(filled).size &&
		below.slice(0, 5).some((row) => row.some(isValue))
	)
}

function spansOf(spans: readonly HeadingSpan[], row: number): HeadingSpan[] {
	return spans.filter((span) => span.row === row)
}

/** Two rows of headings as one: a group goes on to the right until the next one, or, where the file says so, to its end. */
export function joinHeadings(
	upper: readonly string[],
	lower: readonly string[],
	spans: readonly HeadingSpan[] = []
): string[] {
	let group = ''
	return Array.from({ length: Math.max(upper.length, lower.length) }, (_each, i) => {
		const over = (upper[i] ?? '').trim()
		const own = (lower[i] ?? '').trim()
		if (over !== '' || (spans.length > 0 && !spans.some(({ from, to }) => from <= i && i <= to))) group = over
		if (own === '') return over
		return group === '' || group.toLowerCase() === own.toLowerCase() ? own : `${group} ${own}`
	})
}

/** The number of filled cells that most rows have; the lower rows count, since titles stand above. */
function usualWidth(widths: readonly number[]): number {
	const sorted = widths.filter((width) => width > 0).sort((a, b) => a - b)
	return sorted[Math.floor(sorted.length / 2)] ?? 0
}

function isComment(row: readonly string[] | undefined): boolean {
	return row?.[0]?.startsWith('#') ?? false
}

/** Headings are words where the rows below hold something else, or words that do not come again. */
function looksLikeHeadings(row: readonly string[], below: readonly (readonly string[])[]): boolean {
	const filled = row.filter((cell) => cell.trim() !== '')
	if (filled.length === 0) return false
	const plain = filled.filter((cell) => !isValue(cell))
	if (below.length === 0) return plain.length === filled.length
	const valuesBelow = below.slice(0, 10).filter((each) => each.some(isValue)).length
	if (plain.length === filled.length) return valuesBelow > 0 || new Set(filled).size === filled.length
	// Years as headings: rising whole numbers over a column of words or other numbers.
	const years = filled.filter((cell) => /^(19|20)\d\d$/.test(cell.trim()))
	return years.length >= 2 && plain.length + years.length === filled.length
}

function isValue(cell: string): boolean {
	const text = cell.trim()
	return (
		parseNumber(text.replace(/[£€$%\s]/g, ''), TYPED) !== undefined ||
		parseDate(text, TYPED) !== undefined ||
		text.includes('@')
	)
}

/** Names for the columns: blank ones by their place, repeated ones numbered. */
export function nameColumns(headings: readonly string[] | undefined, width: number): string[] {
	const taken = new Set<string>()
	return Array.from({ length: width }, (_each, i) => {
		const base = (headings?.[i] ?? '').replace(/\s+/g, ' ').trim().slice(0, 70) || `Column ${i + 1}`
		let name = base
		for (let next = 2; taken.has(name.toLowerCase()); next++) name = `${base} ${next}`
		taken.add(name.toLowerCase())
		return name
	})
}

/** "Depth (m)" is the column Depth with the unit m. */
export function splitUnit(name: string): { name: string; unit?: string } {
	const match = /^(.+?)\s*[([]([^()[\]\d]{1,8})[)\]]$/.exec(name)
	const unit = match?.[2]?.trim()
	return match?.[1] && unit ? { name: match[1], unit } : { name }
}
