/** Lines that hold lines, moved and changed; each case written as an outline, `a(b c) d`. */
import { describe, expect, test } from 'vitest'
import {
	allLines,
	insertLine,
	mapLines,
	moveLine,
	placedLines,
	replaceLine,
	type Direction,
	type MayHold,
	type Spot,
	type TreeLine
} from './tree.ts'

/** Letters are lines; capitals may hold any, T only lower case t, and t stands in T alone. */
function grow(text: string): TreeLine[] {
	const stack: TreeLine[][] = [[]]
	for (const sign of text.replaceAll(' ', '')) {
		if (sign === '(') stack.push([])
		else if (sign === ')') {
			const lines = stack.pop() ?? []
			const list = stack.at(-1) ?? []
			const last = list.pop()
			if (last) list.push({ ...last, lines })
		} else stack.at(-1)?.push({ id: sign, kind: sign, ...(/[A-Z]/.test(sign) ? { lines: [] } : {}) })
	}
	return stack[0] ?? []
}

function outline(lines: readonly TreeLine[]): string {
	return lines.map((line) => line.id + (line.lines?.length ? `(${outline(line.lines)})` : '')).join(' ')
}

const mayHold: MayHold = (holder, kind) => {
	if (kind === 't') return holder === 'T'
	return holder === undefined || (holder !== 'T' && /[A-Z]/.test(holder))
}

describe('a line moves', () => {
	test.each<[string, string, Direction, string]>([
		['a b c', 'b', 'up', 'b a c'],
		['a b c', 'b', 'down', 'a c b'],
		['a b c', 'a', 'up', 'a b c'],
		['a b c', 'c', 'down', 'a b c'],
		// Into what stands before it, as the last there.
		['A(x) b', 'b', 'in', 'A(x b)'],
		['a b', 'b', 'in', 'a b'],
		['b A', 'b', 'in', 'b A'],
		['T b', 'b', 'in', 'T b'],
		// Out after what holds it; up from the first, before; down from the last, after.
		['A(x y) b', 'x', 'out', 'A(y) x b'],
		['A(x y) b', 'x', 'up', 'x A(y) b'],
		['A(x y) b', 'y', 'down', 'A(x) y b'],
		['A(x y) b', 'y', 'up', 'A(y x) b'],
		['A(B(x) y)', 'x', 'out', 'A(B x y)'],
		['A(B(x) y)', 'B', 'down', 'A(y B(x))'],
		['A(B(x) y)', 'B', 'out', 'A(y) B(x)'],
		// A tab stands among tabs alone.
		['T(t) b', 't', 'out', 'T(t) b'],
		['T(t) b', 't', 'down', 'T(t) b'],
		['a', 'z', 'up', 'a']
	])('%s: %s %s gives %s', (before, id, to, after) => {
		expect(outline(moveLine(grow(before), id, to, mayHold))).toBe(after)
	})
})

test('every line has its number, its level and what holds it', () => {
	const placed = placedLines(grow('a A(B(x) y) z'))
	expect(placed.map(({ line, level, number }) => `${number}${line.id}${level}`)).toEqual(['1a0', '2A0', '3B1', '4x2', '5y1', '6z0']) // prettier-ignore
	expect(placed[3]?.within.map(({ id }) => id)).toEqual(['A', 'B'])
	expect(allLines(grow('A(x)')).map(({ id }) => id)).toEqual(['A', 'x'])
})

test.each<[string, string, Spot, string]>([
	['a b', 'n', 'end', 'a b n'],
	['a b', 'n', { after: 'a' }, 'a n b'],
	['A(x y) b', 'n', { after: 'x' }, 'A(x n y) b'],
	['A(x) b', 'n', { lastIn: 'A' }, 'A(x n) b'],
	['A(B) b', 'n', { lastIn: 'B' }, 'A(B(n)) b']
])('into %s comes %s', (before, id, spot, after) => {
	expect(outline(insertLine(grow(before), { id, kind: id }, spot))).toBe(after)
})

test('a change leaves everything beside it the same object', () => {
	const lines = grow('A(x) B(y)')
	const [a, b] = replaceLine(lines, 'y', { id: 'n', kind: 'n' })
	expect(a).toBe(lines[0])
	expect(outline([a, b] as TreeLine[])).toBe('A(x) B(n)')
	expect(outline(replaceLine(lines, 'A', undefined))).toBe('B(y)')
	expect(outline(replaceLine(lines, 'y', undefined))).toBe('A(x) B')
	expect(outline(mapLines(lines, (line) => ({ ...line, id: line.id.toUpperCase() })))).toBe('A(X) B(Y)')
})
