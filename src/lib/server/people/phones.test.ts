/** Codes by which a device follows a look: once, for two minutes, and only what they were made for. */
import { beforeEach, expect, test } from 'vitest'
import { openPhones, type Phones } from './phones.ts'

const OFFERED = { looker: 7, look: 'look-1', sessionHash: 'hash', name: 'Imke Dahl' }
let now = 0
let phones: Phones

beforeEach(() => {
	now = 1_000_000
	phones = openPhones(() => now)
})

test('a code opens its look once', () => {
	const { code } = phones.offer(OFFERED)
	const taken = phones.redeem(code, 'Quay 3')
	expect(taken?.look).toBe('look-1')
	expect(phones.redeem(code, 'another')).toBeUndefined()
	expect(phones.find(taken?.cookie ?? '')).toMatchObject({ look: 'look-1', sessionHash: 'hash' })
	expect(phones.list(7)).toMatchObject([{ name: 'Imke Dahl', taken: { agent: 'Quay 3' } }])
	expect(phones.list(8)).toEqual([])
})

test.each([
	['after two minutes', 120_000, false],
	['just before', 119_999, true]
])('a code serves %s: %s ms', (_says, after, serves) => {
	const { code } = phones.offer(OFFERED)
	now += after
	expect(phones.redeem(code, '') !== undefined).toBe(serves)
})

test('a device follows for twelve hours at most', () => {
	const cookie = phones.redeem(phones.offer(OFFERED).code, '')?.cookie ?? ''
	now += 12 * 3_600_000 - 1
	expect(phones.find(cookie)).toBeDefined()
	now += 1
	expect(phones.find(cookie)).toBeUndefined()
})

test('a further code for the same look takes the place of the one before', () => {
	const first = phones.offer(OFFERED)
	const second = phones.offer(OFFERED)
	expect(phones.redeem(first.code, '')).toBeUndefined()
	expect(phones.redeem(second.code, '')).toBeDefined()
})

test('only who made it ends it', () => {
	const { id, code } = phones.offer(OFFERED)
	const cookie = phones.redeem(code, '')?.cookie ?? ''
	phones.end(id, 8)
	expect(phones.find(cookie)).toBeDefined()
	phones.end(id, 7)
	expect(phones.find(cookie)).toBeUndefined()
})

test('a code is typed as it is read: small, with blanks', () => {
	const { code } = phones.offer(OFFERED)
	expect(phones.redeem(`${code.slice(0, 5).toLowerCase()} - ${code.slice(5)}`, '')).toBeDefined()
	expect(code).toMatch(/^[A-HJ-NP-Z2-9]{10}$/)
})

test.each(['', 'ABCDEFGHJK', '__proto__', '\u0000'])('%j opens nothing', (code) => {
	phones.offer(OFFERED)
	expect(phones.redeem(code, '')).toBeUndefined()
	expect(phones.find(code)).toBeUndefined()
})
