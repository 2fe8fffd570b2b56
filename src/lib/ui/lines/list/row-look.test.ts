/** What stands where on a row of a list, and how rows stand together. */
import { describe, expect, test } from 'vitest'
import type { WireRow } from '$lib/core/query/wire.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { dueStamp, groupRows, lookOf, smallText } from './row-look.ts'

const column = (id: number, name: string, type: ShownColumn['type']): ShownColumn => ({ id, name, type })
const [CODE, KIND, DUE, MADE, OWED, PHOTO, PLACE] = [
	column(1, 'Code', 'code'),
	column(2, 'Kind', 'text'),
	column(3, 'Next due', 'date'),
	column(4, 'Made', 'date'),
	column(5, 'Owed', 'money'),
	column(6, 'Photo', 'photo'),
	column(7, 'Harbour', 'text')
]
const row = (cells: Record<string, WireRow['cells'][string]>): WireRow => ({ id: 'r', rev: 1, cells })
const TODAY = new Date(2026, 10, 28)

test('the first column is big, a date and money stand at the side, files are no words', () => {
	const look = lookOf({ columns: [CODE, KIND, DUE, OWED, PHOTO], groups: null }, [
		row({ c6: { file: { name: 'a.png' } } as never })
	])
	expect([look.big?.id, look.due?.id, look.amount?.id, look.photo?.id, look.small.map(({ id }) => id)]).toEqual([1, 3, 5, 6, [2]]) // prettier-ignore
	expect(smallText(look, row({ c2: 'Trot' }))).toBe('Trot')
	expect(smallText(look, row({ c2: null }))).toBe('')
	// No place is kept for pictures where there is none.
	expect(lookOf({ columns: [CODE, PHOTO], groups: null }, [row({ c6: null })]).photo).toBeUndefined()
})

test.each([
	[DUE, '2026-11-25', { text: '3 days past', tone: 'past' }],
	[DUE, '2026-11-27', { text: '1 day past', tone: 'past' }],
	[DUE, '2026-11-28', { text: 'today', tone: 'look' }],
	[DUE, '2026-11-29', { text: 'in 1 day', tone: 'look' }],
	[DUE, '2026-12-05', { text: 'in 7 days', tone: 'look' }],
	[DUE, '2026-12-06', { text: 'in 8 days' }],
	[DUE, '2027-03-01', { text: '1 Mar 2027' }],
	// A date that nothing is due by says itself.
	[MADE, '2026-11-25', { text: '25 Nov 2026' }]
])('%o on %s', (by, value, stamp) => {
	const look = lookOf({ columns: [CODE, by], groups: null }, [])
	expect(dueStamp(look, row({ [`c${by.id}`]: value }), TODAY)).toEqual(stamp)
	expect(dueStamp(look, row({}), TODAY)).toBeUndefined()
})

describe('rows of one value', () => {
	const rows = ['Ness', 'Ness', 'Quay', null].map((value) => row({ c7: value }))
	const groups = { column: PLACE, counts: [{ value: 'Ness', rows: 12, sums: ['Price £7'] }], blank: 3, blankSums: [] }
	const seen = (isCounted: boolean) =>
		groupRows({ groups }, rows, isCounted).map((group) => [
			group.name,
			group.count,
			group.rows.length,
			group.sums.join()
		])

	test('stand together under it, with how many there are', () => {
		expect(seen(true)).toEqual([['Ness', 12, 2, 'Price £7'], ['Quay', undefined, 1, ''], ['without harbour', 3, 1, '']]) // prettier-ignore
	})

	test('are not counted where words were looked for', () => {
		expect(seen(false).map(([, count, , sums]) => [count, sums])).toEqual([[undefined, ''], [undefined, ''], [undefined, '']]) // prettier-ignore
	})

	test('stand without a name where nothing groups them, and what groups is not said again on a row', () => {
		expect(groupRows({ groups: null }, rows, true)).toEqual([{ name: '', count: undefined, sums: [], rows }])
		expect(lookOf({ columns: [CODE, KIND, PLACE], groups }, []).small).toEqual([KIND])
	})
})
