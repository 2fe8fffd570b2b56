/**
 * Secrets as they lie in the store: sealed with AES-256-GCM under a key made from the workspace's for one purpose, so that
 * a copy of the database alone opens nothing.
 */
import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto'

export type Purpose = 'second factor' | 'provider' | 'program' | 'push'

const IV_BYTES = 12
const TAG_BYTES = 16

/** `key`: the workspace's, as hex. */
export function seal(key: string, purpose: Purpose, text: string): string {
	const iv = randomBytes(IV_BYTES)
	const cipher = createCipheriv('aes-256-gcm', keyFor(key, purpose), iv)
	const body = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()])
	return Buffer.concat([iv, cipher.getAuthTag(), body]).toString('base64')
}

/** Throws where it was sealed under another key, or altered. */
export function unseal(key: string, purpose: Purpose, sealed: string): string {
	const bytes = Buffer.from(sealed, 'base64')
	const decipher = createDecipheriv('aes-256-gcm', keyFor(key, purpose), bytes.subarray(0, IV_BYTES))
	decipher.setAuthTag(bytes.subarray(IV_BYTES, IV_BYTES + TAG_BYTES))
	return Buffer.concat([decipher.update(bytes.subarray(IV_BYTES + TAG_BYTES)), decipher.final()]).toString('utf8')
}

function keyFor(key: string, purpose: Purpose): Buffer {
	return Buffer.from(hkdfSync('sha256', Buffer.from(key, 'hex'), '', `tin-shed ${purpose}`, 32))
}
