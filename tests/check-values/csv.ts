import { clean, decodeText, findSeparator, parseDelimited } from '$lib/core/exchange/delimited.ts'
import { judgeEncoding } from '$lib/core/exchange/encoding.ts'
import type { RowResult } from './result.ts'

export interface CsvRow {
	readonly id: string
	readonly base64: string
	readonly expected: { readonly grid?: readonly (readonly string[])[] }
}

/** The raw records of a file; what the importer makes of them is judged by the types. */
export function checkCsvRow({ id, base64, expected }: CsvRow): RowResult {
	const bytes = Buffer.from(base64, 'base64')
	const text = clean(decodeText(bytes, judgeEncoding(bytes).encoding))
	const grid = parseDelimited(text, findSeparator(text))
	const short = expected.grid !== undefined && JSON.stringify(grid) !== JSON.stringify(expected.grid)
	return {
		id,
		short: short
			? `read as ${JSON.stringify(grid).slice(0, 160)}, expected ${JSON.stringify(expected.grid).slice(0, 160)}`
			: undefined
	}
}
