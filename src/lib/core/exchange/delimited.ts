/** Delimited text: which encoding and which separator, from the file itself (RFC 4180, and what people really send). */
import Papa from 'papaparse'

export type Encoding = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252'

/** The encoding of a file, from its first bytes: a mark, else UTF-8 where that is sound, else Windows-1252. */
export function findEncoding(head: Uint8Array): Encoding {
	if (head[0] === 0xff && head[1] === 0xfe) return 'utf-16le'
	if (head[0] === 0xfe && head[1] === 0xff) return 'utf-16be'
	try {
		// The last character may be cut: leave up to three bytes away.
		new TextDecoder('utf-8', { fatal: true }).decode(head.subarray(0, soundEnd(head)))
		return 'utf-8'
	} catch {
		return 'windows-1252'
	}
}

function soundEnd(bytes: Uint8Array): number {
	let end = bytes.length
	for (let back = 1; back <= 3 && end - back >= 0; back++) {
		const byte = bytes[end - back] ?? 0
		if (byte < 0x80) break
		if (byte >= 0xc0) {
			end -= back
			break
		}
	}
	return end
}

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
		if (width > 1) best = Math.max(best, (count / widths.length) * Math.min(width, 12))
	}
	return best
}

/** All records of a text, as they stand; blank lines at the end are dropped. */
export function parseDelimited(text: string, separator: string): string[][] {
	const { data } = Papa.parse<string[]>(clean(text), { delimiter: separator })
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
