/** Secrets at rest: what was sealed for one purpose, under one key, opens for nothing else. */
import { randomBytes } from 'node:crypto'
import { expect, test } from 'vitest'
import { seal, unseal } from '$lib/server/base/seal.ts'

const KEY = randomBytes(32).toString('hex')

test('opens under the same key and purpose, and is never sealed alike twice', () => {
	const one = seal(KEY, 'provider', 'kelp ladder')
	expect(unseal(KEY, 'provider', one)).toBe('kelp ladder')
	expect(seal(KEY, 'provider', 'kelp ladder')).not.toBe(one)
	expect(Buffer.from(one, 'base64').toString('latin1')).not.toContain('kelp')
})

test('does not open under another key, for another purpose, or altered', () => {
	const sealed = seal(KEY, 'provider', 'kelp ladder')
	expect(() => unseal(randomBytes(32).toString('hex'), 'provider', sealed)).toThrow()
	expect(() => unseal(KEY, 'second factor', sealed)).toThrow()
	const bytes = Buffer.from(sealed, 'base64')
	bytes[bytes.length - 1] = (bytes[bytes.length - 1] ?? 0) ^ 1
	expect(() => unseal(KEY, 'provider', bytes.toString('base64'))).toThrow()
})
