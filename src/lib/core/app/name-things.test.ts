import { expect, test } from 'vitest'
import { capitalized, oneOf, withArticle } from './name-things.ts'

test.each([
	['Moorings', 'mooring', 'a mooring'],
	['Inspections', 'inspection', 'an inspection'],
	['Spend requests', 'spend request', 'a spend request'],
	['stock', 'item', 'an item'],
	['Entries', 'entry', 'an entry'],
	['Keys', 'key', 'a key'],
	['Boxes', 'box', 'a box'],
	['Gear', 'item', 'an item'],
	['Glass', 'item', 'an item'],
	['News', 'item', 'an item'],
	['Uniforms', 'uniform', 'a uniform'],
	['PO numbers', 'PO number', 'a PO number'],
	['People', 'person', 'a person'],
	['Houses', 'house', 'a house'],
	['Prices', 'price', 'a price'],
	['Buoys', 'buoy', 'a buoy']
])('a row of %s is %s', (table, one, withA) => {
	expect(oneOf(table)).toBe(one)
	expect(withArticle(oneOf(table))).toBe(withA)
})

test('a title begins with a capital', () => {
	expect([capitalized('stock'), capitalized('Moorings'), capitalized('')]).toEqual(['Stock', 'Moorings', ''])
})
