import { expect, test } from 'vitest'
import { fromClipboard, toClipboard } from './clipboard.ts'

test.each<[what: string, cells: string[][]]>([
	[
		'plain cells',
		[
			['VQ-001', '4'],
			['VQ-002', '']
		]
	],
	[
		'a tab, a quote and a line break in a cell',
		[
			['a\tb', 'say "so"'],
			['two\nlines', 'x']
		]
	],
	['one cell', [['alone']]]
])('%s come back as they went', (_what, cells) => {
	expect(fromClipboard(toClipboard(cells))).toEqual(cells)
})

test('a spreadsheet closes its last row with a line break', () => {
	expect(fromClipboard('1\t2\r\n3\t4\r\n')).toEqual([
		['1', '2'],
		['3', '4']
	])
})
