import { expect, test } from 'vitest'
import { at, blockOf, holds, isOneCell, moved, type Selection } from './selection.ts'

const EXTENT = { rows: 100, columns: 5 }
const start = at(10, 2)

test.each<[what: string, key: string, shift: boolean, control: boolean, want: Selection]>([
	['an arrow moves by one', 'ArrowDown', false, false, at(11, 2)],
	['with control it goes to the edge', 'ArrowDown', false, true, at(99, 2)],
	['with shift it grows', 'ArrowRight', true, false, { anchor: start.anchor, focus: { row: 10, column: 3 } }],
	['a page', 'PageDown', false, false, at(30, 2)],
	['no further than the end', 'PageUp', false, false, at(0, 2)],
	['the start of the row', 'Home', false, false, at(10, 0)],
	['the first cell of all', 'Home', false, true, at(0, 0)],
	['the last cell of all', 'End', false, true, at(99, 4)]
])('%s', (_what, key, shift, control, want) => {
	expect(moved(start, { key, shift, control }, EXTENT, 20)).toEqual(want)
})

test('other keys move nothing', () => {
	expect(moved(start, { key: 'a', shift: false, control: false }, EXTENT, 20)).toBeUndefined()
})

test('a block is the same whichever corner it was begun at', () => {
	const forwards = blockOf({ anchor: { row: 1, column: 2 }, focus: { row: 4, column: 3 } })
	expect(blockOf({ anchor: { row: 4, column: 3 }, focus: { row: 1, column: 2 } })).toEqual(forwards)
	expect(holds(forwards, 4, 3)).toBe(true)
	expect(holds(forwards, 5, 3)).toBe(false)
	expect(isOneCell(start)).toBe(true)
})
