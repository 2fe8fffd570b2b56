/** A delimited text, read in pieces: a file of any size takes the memory of one piece. */
import { isAscii } from 'node:buffer'
import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import Papa from 'papaparse'
import { clean, decoderFor, findSeparator, findLineEnd, withoutReturns } from '$lib/core/exchange/delimited.ts'
import { EncodingJudge, type Judged } from '$lib/core/exchange/encoding.ts'
import { countOf } from '$lib/core/text/count.ts'
import { isPlain } from '$lib/core/text/key.ts'
import { NOTHING_HELD, refusedFile, type OpenedFile, type RowBatch } from './sheet.ts'

/** Texts up to here die young; of 1 MB they waited for the slow collection (443 MB of memory against 317, 7.8 s against 6.5). */
const PIECE = 64 * 1024
/** A quoted cell that goes on for longer than this is a quote that was never closed. */
const MOST_CARRIED = 256 * PIECE
/** Enough to tell the separator by. */
const SAMPLE = 100_000

export async function openText(path: string, name: string): Promise<OpenedFile> {
	const judged = await judgeFile(path)
	const { encoding } = judged
	const sample = clean(await readSample(path, decoderFor(encoding)))
	if (sample.replace(/[\s,;|]/g, '') === '') throw refusedFile(`${name} is empty. Nothing was brought in.`)
	const delimiter = findSeparator(await readSample(path, decoderFor(encoding)))
	const newline = findLineEnd(sample)
	const { size } = await stat(path)

	async function* batches(): AsyncGenerator<RowBatch> {
		const decode = decoderFor(encoding)
		const parser = new Papa.Parser({ delimiter, newline })
		let read = 0
		let carried = ''
		let started = false
		/** No record ended in what was read so far: it is read again only once there is twice as much of it. */
		let enough = 0
		for await (const piece of createReadStream(path, { highWaterMark: PIECE })) {
			// Files are read as bytes.
			read += (piece as Buffer).length
			// As above.
			let text = carried + decode(piece as Buffer)
			if (!started) text = clean(text)
			started = true
			if (text.length < enough) {
				carried = text
				continue
			}
			const plain = isPlain(text)
			// The parser's types know nothing of its incremental use.
			const { data, meta, errors } = parser.parse(text, 0, true) as Parsed
			carried = text.slice(meta.cursor)
			enough = meta.cursor === 0 ? text.length * 2 : 0
			if (carried.length > MOST_CARRIED)
				throw refusedFile(`${name} has a quote that is opened and never closed. Mend it, or save the file again.`)
			yield { rows: withoutReturns(data), share: read / size, plain, damaged: damagedIn(errors, data) }
		}
		// As above.
		const { data, errors } = parser.parse(carried + decode(), 0, false) as Parsed
		yield { rows: withoutReturns(data), share: 1, damaged: damagedIn(errors, data) }
	}

	return { kind: 'text', sheets: [{ name: '', batches, notes: () => notesOf(judged) }], close: NOTHING_HELD }
}

async function judgeFile(path: string): Promise<Judged> {
	const judge = new EncodingJudge()
	for await (const piece of createReadStream(path, { highWaterMark: PIECE })) {
		// Files are read as bytes.
		const bytes = piece as Buffer
		if (isAscii(bytes) && !bytes.includes(0)) judge.skip()
		else judge.add(bytes)
	}
	return judge.judge()
}

function notesOf({ encoding, unread, nulls }: Judged): string[] {
	const letters = encoding === 'utf-8' ? 'UTF-8' : 'Windows-1252'
	return [
		...(unread > 0
			? [
					`${countOf(unread, 'byte')} of the file ${unread === 1 ? 'stands' : 'stand'} for no letter in ${letters}, and ${unread === 1 ? 'is' : 'are'} shown as �. Save the file as UTF-8 where it comes from, if letters look wrong.`
				]
			: []),
		...(nulls > 0
			? [`${countOf(nulls, 'character')} of no value (U+0000) ${nulls === 1 ? 'is' : 'are'} left out.`]
			: [])
	]
}

interface Parsed {
	readonly data: string[][]
	readonly meta: { readonly cursor: number }
	readonly errors: readonly { readonly type: string; readonly row: number }[]
}

/** A record that goes on in the next piece is read again there. */
function damagedIn(errors: Parsed['errors'], data: readonly unknown[]): number[] {
	return [...new Set(errors.filter(({ type, row }) => type === 'Quotes' && row < data.length).map(({ row }) => row))]
}

async function readSample(path: string, decode: (bytes?: Uint8Array) => string): Promise<string> {
	for await (const piece of createReadStream(path, { end: SAMPLE - 1, highWaterMark: SAMPLE }))
		// Files are read as bytes.
		return decode(piece as Buffer)
	return ''
}
