import { expect, test } from 'vitest'
import { layOutEnds } from './end-labels.ts'

test.each([
	['far apart they stand at their ends', [10, 50, 90], [10, 50, 90]],
	['two at one height stand one over the other', [50, 50], [50, 60]],
	['in the order of their ends, whatever the order of the lines', [52, 50], [60, 50]],
	['at the top they are pushed down', [98, 99, 40], [90, 100, 40]],
	['at the foot they are pushed up', [0, 0, 0], [0, 10, 20]],
	['a whole stack at the top', [100, 100, 100], [80, 90, 100]],
	['one that was never measured has none', [null, 30], [null, 30]],
	['no line', [], []]
])('%s', (_name, ends, expected) => {
	expect(layOutEnds(ends, 10)).toEqual(expected)
})
