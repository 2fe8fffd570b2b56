import { describe, expect, test } from 'vitest'
import { compareCodePoints, textKey } from './key.ts'
import { editDistance, findNearest } from './nearest.ts'

describe('the key by which text is compared (Unicode NFC, simple lower case)', () => {
	test.each([
		['ÉCLUSE', 'écluse'],
		['e\u0301cluse', 'écluse'],
		['ΣΊΣΥΦΟΣ', 'σίσυφος'],
		['Straße', 'straße']
	])('%s and %s are one', (a, b) => {
		expect(textKey(a)).toBe(textKey(b))
	})
	test.each([
		['Straße', 'Strasse'],
		['Écluse', 'Ecluse'],
		['a', 'a ']
	])('%s and %s are two', (a, b) => {
		expect(textKey(a)).not.toBe(textKey(b))
	})
})

describe('the order of texts is the database’s', () => {
	test('as UTF-8 bytes compare, characters beyond the first plane among them', () => {
		const texts = ['', 'a', 'ab', 'b', 'z', 'é', '\u{ffff}', '\ue000', '\u{1f600}', '\ud7ff', 'Z']
		const ours = [...texts].sort(compareCodePoints)
		const bytes = [...texts].sort((x, y) => Buffer.compare(Buffer.from(x), Buffer.from(y)))
		expect(ours).toEqual(bytes)
	})
})

describe('the nearest name', () => {
	test.each([
		['Dept', ['Depth', 'Date'], 'Depth'],
		['next deu', ['Next due', 'Note'], 'Next due'],
		['Harbor', ['Harbour', 'Holder'], 'Harbour'],
		['xyz', ['Depth', 'Date'], undefined]
	])('%s', (name, candidates, wanted) => {
		expect(findNearest(name, candidates)).toBe(wanted)
	})
	test('swapped neighbours are one slip', () => {
		expect(editDistance('deu', 'due')).toBe(1)
	})
})
