import { describe, expect, test } from 'vitest'
import { differences, type Sights } from './sights.ts'

const SEEN: Sights = {
	screen: 'due',
	screens: ['Due', 'All'],
	lists: [{ line: 'l', title: 'moorings', count: 14 }],
	columns: [
		{ line: 'l', names: ['Code', 'Arrears'] },
		{ line: 'r', names: ['Code', 'Arrears'] }
	],
	offers: ['Lift done']
}

const CASES: readonly [what: string, other: Partial<Sights>, said: string[]][] = [
	['nothing differs', {}, []],
	['fewer rows', { lists: [{ line: 'l', title: 'moorings', count: 1 }] }, ['Osric: 14 rows of moorings, Imke: 1 row.']],
	[
		'counts go no further than a thousand',
		{ lists: [{ line: 'l', title: 'moorings', count: 1000 }] },
		['Osric: 14 rows of moorings, Imke: more than 1,000 rows.']
	],
	[
		'a column kept back, in a list and on a sheet, is said once',
		{
			columns: [
				{ line: 'l', names: ['Code'] },
				{ line: 'r', names: ['Code'] }
			]
		},
		['Only Osric gets Arrears.']
	],
	['a list that the other does not get at all says nothing of rows', { lists: [] }, []],
	['a button', { offers: ['Lift done', 'Scan'] }, ['Only Imke gets Scan.']],
	['two screens', { screens: ['Due', 'All', 'Map', 'Work'] }, ['Only Imke gets the screens Map, Work.']],
	[
		'another screen: only what is the same for all of it',
		{ screen: 'all', offers: [], screens: ['All'] },
		['Only Osric gets the screen Due.']
	]
]

describe('what two people get of a screen', () => {
	test.each(CASES)('%s', (_what, other, said) => {
		expect(differences({ name: 'Osric', sees: SEEN }, { name: 'Imke', sees: { ...SEEN, ...other } })).toEqual(said)
	})
})
