import { expect, test } from 'vitest'
import { partsOfAnd } from './parts-of-and.ts'

test.each([
	['Harbour = here.harbour', ['Harbour = here.harbour']],
	['a = 1 and b = 2 and c', ['a = 1', 'b = 2', 'c']],
	['a and (b or c and d)', ['a', '(b or c and d)']],
	['(a or b) = c and d', ['(a or b) = c', 'd']],
	['a and b or c', ['a and b or c']],
	['AND(a; b) and not c', ['AND(a; b)', 'not c']],
	['Kind in {"rope and chain"; "tar"} and x', ['Kind in {"rope and chain"; "tar"}', 'x']],
	["'terms and conditions' = 1 and x", ["'terms and conditions' = 1", 'x']],
	['', ['']],
	['a and (', ['a', '(']]
])('%s', (condition, parts) => {
	expect(partsOfAnd(condition)).toEqual(parts)
})
