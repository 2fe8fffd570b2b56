/** Tokens that open something for whoever has them: made here, and known afterwards by their SHA-256 alone. */
import { createHash, randomBytes } from 'node:crypto'

/** 192 random bits, as base64url. */
export function newToken(): string {
	return randomBytes(24).toString('base64url')
}

/** What is kept of a token. Enough for so much chance; a password, which has less, is hashed slowly. */
export function hashToken(token: string): string {
	return createHash('sha256').update(token).digest('hex')
}
