/**
 * Whether an archive unfolds within a bound: what its directory claims, and that no entry is larger than it claims, found
 * by unfolding each in pieces that are thrown away (ZIP, APPNOTE 4.3.12 and 4.3.16, from memory). A few kilobytes can claim,
 * or hold, gigabytes; the libraries that read workbooks unfold an entry whole.
 */
import { createInflateRaw } from 'node:zlib'

interface Entry {
	readonly packed: Buffer
	readonly isDeflated: boolean
	readonly claimed: number
}

/** False, too, for what is no archive, or one whose directory does not hold together. */
export async function unfoldsWithin(bytes: Buffer, most: number): Promise<boolean> {
	const entries = readEntries(bytes)
	if (!entries || entries.reduce((sum, { claimed }) => sum + claimed, 0) > most) return false
	if (entries.some(({ packed, claimed }) => claimed > SWELLS_FROM && claimed > packed.length * MOST_RATIO)) return false
	for (const entry of entries) if (entry.isDeflated && !(await keepsItsClaim(entry))) return false
	return true
}

/** Sheets of the same few values over and over unfold some hundred times; what unfolds further, and is large, was made to. */
const MOST_RATIO = 400
const SWELLS_FROM = 32 * 1024 * 1024

const END = 0x06054b50
const DIRECTORY = 0x02014b50
const LOCAL = 0x04034b50
const END_SIZE = 22
const MOST_COMMENT = 0xffff
const DEFLATED = 8

function readEntries(bytes: Buffer): Entry[] | undefined {
	const end = findEnd(bytes)
	if (end === undefined) return undefined
	const count = bytes.readUInt16LE(end + 10)
	const entries: Entry[] = []
	let at = bytes.readUInt32LE(end + 16)
	for (let i = 0; i < count; i++) {
		if (at + 46 > bytes.length || bytes.readUInt32LE(at) !== DIRECTORY) return undefined
		const local = bytes.readUInt32LE(at + 42)
		if (local + 30 > bytes.length || bytes.readUInt32LE(local) !== LOCAL) return undefined
		const from = local + 30 + bytes.readUInt16LE(local + 26) + bytes.readUInt16LE(local + 28)
		const packed = bytes.subarray(from, from + bytes.readUInt32LE(at + 20))
		entries.push({
			packed,
			isDeflated: bytes.readUInt16LE(at + 10) === DEFLATED,
			claimed: bytes.readUInt32LE(at + 24)
		})
		at += 46 + bytes.readUInt16LE(at + 28) + bytes.readUInt16LE(at + 30) + bytes.readUInt16LE(at + 32)
	}
	return entries
}

function findEnd(bytes: Buffer): number | undefined {
	const earliest = Math.max(0, bytes.length - END_SIZE - MOST_COMMENT)
	for (let at = bytes.length - END_SIZE; at >= earliest; at--) if (bytes.readUInt32LE(at) === END) return at
	return undefined
}

function keepsItsClaim({ packed, claimed }: Entry): Promise<boolean> {
	return new Promise((resolve) => {
		const inflate = createInflateRaw()
		let size = 0
		const end = (keeps: boolean) => {
			inflate.destroy()
			resolve(keeps)
		}
		inflate.on('data', (piece: Buffer) => {
			size += piece.length
			if (size > claimed) end(false)
		})
		inflate.on('end', () => end(size === claimed))
		inflate.on('error', () => end(false))
		inflate.end(packed)
	})
}
