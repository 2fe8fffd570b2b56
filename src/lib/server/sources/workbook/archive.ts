/**
 * A ZIP archive on disk, read entry by entry and piece by piece: nothing of it is unfolded whole. Archives are hostile until
 * read. A few kilobytes can claim, or hold, gigabytes: what all entries claim is bounded, one that unfolds to more than it
 * claims ends the reading (the library sees to that), and so does one that swells beyond what people's sheets do.
 */
import type { Readable } from 'node:stream'
import { openPromise, type Entry, type ZipFile } from 'yauzl'

export interface Archive {
	has(name: string): boolean
	/** What an entry unfolds to, in bytes; 0 where it is not there. */
	sizeOf(name: string): number
	/** The text of an entry (UTF-8), in pieces as they unfold. Leaving the loop stops the unfolding. */
	pieces(name: string): AsyncGenerator<string>
	close(): void
}

/** Sheets of the same few values over and over unfold some hundred times; what unfolds further, and is large, was made to. */
const MOST_RATIO = 400
const SWELLS_FROM = 32 * 1024 * 1024
const MOST_ENTRIES = 10_000

/** A word where it cannot be read: `damaged`, or `too large`, where it would unfold to more than `most` bytes. */
export async function openArchive(path: string, most: number): Promise<Archive | 'damaged' | 'too large'> {
	const file = await openPromise(path, { lazyEntries: true, autoClose: false }).catch(() => undefined)
	if (!file) return 'damaged'
	const entries = await readEntries(file, most).catch(() => 'damaged' as const)
	if (typeof entries === 'string') {
		file.close()
		return entries
	}
	return {
		has: (name) => entries.has(name),
		sizeOf: (name) => entries.get(name)?.uncompressedSize ?? 0,
		async *pieces(name) {
			const entry = entries.get(name)
			if (!entry) return
			// The library's type is of an older stream.
			const stream = (await file.openReadStreamPromise(entry)) as Readable
			stream.setEncoding('utf8')
			// An encoding is set: pieces are text.
			yield* stream as AsyncIterable<string>
		},
		close: () => file.close()
	}
}

/** The directory of an archive. */
async function readEntries(file: ZipFile, most: number): Promise<Map<string, Entry> | 'damaged' | 'too large'> {
	if (file.entryCount > MOST_ENTRIES) return 'too large'
	const entries = new Map<string, Entry>()
	let claimed = 0
	for await (const entry of file.eachEntry()) {
		const { compressedSize, uncompressedSize } = entry
		claimed += uncompressedSize
		const swells = uncompressedSize > SWELLS_FROM && uncompressedSize > compressedSize * MOST_RATIO
		if (claimed > most || swells) return 'too large'
		if (entry.isEncrypted()) return 'damaged'
		entries.set(entry.fileName, entry)
	}
	return entries
}
