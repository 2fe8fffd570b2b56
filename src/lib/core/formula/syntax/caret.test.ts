import { expect, test } from 'vitest'
import { callAt, completionsAt } from './caret.ts'

test.each<[before: string, want: unknown]>([
	['ROUND(', { name: 'ROUND', part: 0 }],
	['ROUND(Depth; ', { name: 'ROUND', part: 1 }],
	['IF(ISBLANK(Depth); SUM(a; b; ', { name: 'SUM', part: 2 }],
	['IF(ISBLANK(Depth); ', { name: 'IF', part: 1 }],
	['FIND("(("; ', { name: 'FIND', part: 1 }],
	['ERROR.TYPE((1 + ', { name: 'ERROR.TYPE', part: 0 }],
	['Depth > 2', undefined],
	['ROUND(2)', undefined]
])('in %s', (before, want) => {
	expect(callAt(before, before.length)).toEqual(want)
})

const NAMES = ['Next due', 'Next look', 'NETWORKDAYS', 'Depth']

test.each<[before: string, names: string[], from: number]>([
	['Ne', ['Next due', 'Next look', 'NETWORKDAYS'], 0],
	['Depth > next d', ['Next due'], 8],
	['IF(net', ['NETWORKDAYS'], 3]
])('after %s', (before, names, from) => {
	const found = completionsAt(before, before.length, NAMES)
	expect(found.map((each) => each.name)).toEqual(names)
	expect(found[0]?.from).toBe(from)
})

test.each(['"Ne', 'N', 'Depth', ''])('nothing goes on from %s', (before) => {
	expect(completionsAt(before, before.length, NAMES)).toEqual([])
})
