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
			block.writeBigUInt64BE(BigInt(n), 8)
			return seal.update(block).toString('base64url')
		},
		fromId(table, id) {
			if (!ID.test(id)) return undefined
			const plain = open.update(id, 'base64url')
			if (plain.length !== 16 || plain.readUInt32BE(0) !== MARK || plain.readUInt32BE(4) !== table) return undefined
			const n = plain.readBigUInt64BE(8)
			return n <= BigInt(Number.MAX_SAFE_INTEGER) ? Number(n) : undefined
		}
	}
}
