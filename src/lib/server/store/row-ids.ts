/**
 * Row ids as the outside knows them: one AES-128 block of (table, number) under the workspace's key, as 22 base64url
 * characters. Nothing is stored, nothing can be guessed, and an id of another table does not open.
 */
import { createCipheriv, createDecipheriv } from 'node:crypto'

export interface RowIds {
	toId(table: number, n: number): string
	/** The row's number, or undefined for anything that is no id of this table. */
	fromId(table: number, id: string): number | undefined
}

const ID = /^[\w-]{22}$/
const MARK = 0x7153
/** The number stands in two halves: big integers cost more than the rest of an id together. */
const TWO_TO_32 = 2 ** 32

/** `key`: the first 16 bytes are used. */
export function openRowIds(key: Buffer): RowIds {
	// In ECB mode without padding each block stands alone, so one cipher object serves for ever.
	const seal = createCipheriv('aes-128-ecb', key.subarray(0, 16), null).setAutoPadding(false)
	const open = createDecipheriv('aes-128-ecb', key.subarray(0, 16), null).setAutoPadding(false)
	const block = Buffer.alloc(16)

	return {
		toId(table, n) {
			block.writeUInt32BE(MARK, 0)
			block.writeUInt32BE(table, 4)
			block.writeUInt32BE(Math.floor(n / TWO_TO_32), 8)
			block.writeUInt32BE(n % TWO_TO_32, 12)
			return seal.update(block).toString('base64url')
		},
		fromId(table, id) {
			if (!ID.test(id)) return undefined
			const plain = open.update(id, 'base64url')
			if (plain.length !== 16 || plain.readUInt32BE(0) !== MARK || plain.readUInt32BE(4) !== table) return undefined
			const n = plain.readUInt32BE(8) * TWO_TO_32 + plain.readUInt32BE(12)
			return Number.isSafeInteger(n) ? n : undefined
		}
	}
}
