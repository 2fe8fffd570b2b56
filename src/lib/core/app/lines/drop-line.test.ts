/** Where a dragged line may be let go: every gap, every level, and what comes of it. */
import { expect, test } from 'vitest'
import { dropLine, gapsFor, nearestDrop } from './drop-line.ts'
import { placedLines, type MayHold, type TreeLine } from './tree.ts'

const holder = (id: string, ...lines: TreeLine[]): TreeLine => ({ id, kind: 'section', lines })
const plain = (id: string): TreeLine => ({ id, kind: 'text' })
const mayHold: MayHold = (kind) => kind === undefined || kind === 'section'

const TREE = [plain('a'), holder('b', plain('c'), holder('d', plain('e'))), plain('f')]
const outline = (lines: readonly TreeLine[]) => placedLines(lines).map(({ line, level }) => '.'.repeat(level) + line.id)

test('each gap offers the levels at which a line can stand there', () => {
	const gaps = gapsFor(TREE, 'f', mayHold).map(({ above, drops }) => [above ?? '', drops.map(({ level }) => level)])
	expect(gaps).toEqual([
		['', [0]],
		['a', [0]],
		// Between a holder and what it holds, within it alone.
		['b', [1]],
		['c', [1]],
		['d', [2]],
		['e', [0, 1, 2]]
	])
})

test.each<[string, number, number, string[]]>([
	['f', 0, 3, ['f', 'a', 'b', '.c', '.d', '..e']],
	['f', 2, 0, ['a', 'b', '.f', '.c', '.d', '..e']],
	['f', 5, 2, ['a', 'b', '.c', '.d', '..e', '..f']],
	['f', 5, 1, ['a', 'b', '.c', '.d', '..e', '.f']],
	['a', 5, 0, ['b', '.c', '.d', '..e', 'f', 'a']],
	['d', 1, 0, ['a', 'd', '.e', 'b', '.c', 'f']],
	['d', 4, 1, ['a', 'b', '.c', 'f', 'd', '.e']]
])('%s let go in gap %i at level %i', (id, gap, level, expected) => {
	const found = gapsFor(TREE, id, mayHold)[gap]
	const drop = found && nearestDrop(found, level)
	expect(drop && outline(dropLine(TREE, id, drop))).toEqual(expected)
})

test('a line that may not stand by itself goes only where it is held', () => {
	const inner: MayHold = (kind) => kind === 'section'
	expect(gapsFor(TREE, 'c', inner).map(({ drops }) => drops.map(({ level }) => level))).toEqual([[], [], [1], [2], [1, 2], []]) // prettier-ignore
	expect(gapsFor(TREE, 'nothing', inner)).toEqual([])
})
