/** Delimited text: which encoding and which separator, from the file itself (RFC 4180, and what people really send). */
import Papa from 'papaparse'
import type { Encoding } from './encoding.ts'
import { TYPED } from '../model/writing.ts'
import { parseNumber } from '../table/kinds/numbers.ts'

const SEPARATORS = [',', ';', '\t', '|'] as const

/**
 * The separator under which the first lines fall into the most even columns; a first line `sep=;` says it outright.
 */
export function findSeparator(sample: string): string {
	const said = /^\ufeff?sep=(.)\r?\n/i.exec(sample)
	if (said?.[1]) return said[1]
	let best = { separator: ',', score: 0 }
	for (const separator of SEPARATORS) {
		const { data } = Papa.parse<string[]>(sample, { delimiter: separator, preview: 60 })
		const rows = data.filter((row) => row.some((cell) => cell.trim() !== ''))
		if (isOneNumber(rows, separator)) {
			// Then the comma belongs to the numbers, and something that does not occur stands between.
			best = { separator: ';', score: 0 }
			continue
		}
		const score = evenness(rows.map((row) => row.length))
		if (score > best.score) best = { separator, score }
	}
	return best.separator
}

/** High when most rows have the same number of cells, and more than one. */
function evenness(widths: readonly number[]): number {
	const counts = new Map<number, number>()
	for (const width of widths) counts.set(width, (counts.get(width) ?? 0) + 1)
	let best = 0
	for (const [width, count] of counts) {
		const share = count / widths.length
		// A stray comma in a few rows is no separator.
		if (width > 1 && share >= 0.35) best = Math.max(best, share * Math.min(width, 12))
	}
	return best
}

/** A single column of numbers with commas in them looks like several. */
function isOneNumber(rows: readonly (readonly string[])[], separator: string): boolean {
	const wide = rows.filter((row) => row.length > 1)
	const number = (row: readonly string[]) =>
		(['.', ','] as const).some((decimal) => parseNumber(row.join(separator), { ...TYPED, decimal }) !== undefined)
	return separator === ',' && rows[0]?.length === 1 && wide.every(number)
}

/** What Windows-1252 has between 0x80 and 0x9f (WHATWG Encoding); Node's decoder leaves control characters there. */
const WINDOWS_1252 = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ'

export function decodeText(bytes: Uint8Array, encoding: Encoding): string {
	const decode = decoderFor(encoding)
	return decode(bytes) + decode()
}

/** Decodes piece by piece: a character that is cut between two of them is kept until it is whole. Called bare, it ends. */
export function decoderFor(encoding: Encoding): (bytes?: Uint8Array) => string {
	const decoder = new TextDecoder(encoding)
	return (bytes) => {
		const text = bytes ? decoder.decode(bytes, { stream: true }) : decoder.decode()
		if (encoding !== 'windows-1252') return text
		return text.replace(/[\u0080-\u009f]/g, (character) => WINDOWS_1252[character.charCodeAt(0) - 0x80] ?? character)
	}
}

/** The sign at which lines end, by the first that does. What stands before it of `\r\n` is taken off by `withoutReturns`. */
export function findLineEnd(sample: string): '\n' | '\r' {
	return /\r\n|\n|\r/.exec(sample.replace(/"[^"]*"/g, ''))?.[0] === '\r' ? '\r' : '\n'
}

/** Records as they are meant where lines end in `\r\n`, all or some of them: files are put together from others. */
export function withoutReturns(rows: string[][]): string[][] {
	for (const row of rows) {
		const last = row[row.length - 1]
		if (last?.endsWith('\r')) row[row.length - 1] = last.slice(0, -1)
	}
	return rows
}

/** All records of a text, as they stand; blank lines at the end are dropped. */
export function parseDelimited(text: string, separator: string): string[][] {
	const cleaned = clean(text)
	const parsed = Papa.parse<string[]>(cleaned, { delimiter: separator, newline: findLineEnd(cleaned) })
	const data = withoutReturns(parsed.data)
	while (data.length > 0 && data[data.length - 1]?.every((cell) => cell === '')) data.pop()
	return data
}

/** A mark at the start, a line that only names the separator, and characters that SQL text cannot hold. */
export function clean(text: string): string {
	return text
		.replace(/^\ufeff/, '')
		.replace(/^sep=.\r?\n/i, '')
		.replaceAll('\0', '')
}
