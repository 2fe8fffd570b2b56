/** What is proposed for words that are no sentence of ours. */
import { expect, test } from 'vitest'
import { printText } from '../../sentence/print.ts'
import type { Vocabulary } from '../../sentence/vocabulary.ts'
import { SCREEN_LINES, type LineKind } from './all.ts'
import { beginLine } from './new-line.ts'
import { proposeLines } from './propose-lines.ts'

const vocabulary: Vocabulary = {
	signoffs: [],
	tables: [
		{
			...{ id: 5, name: 'Moorings' },
			columns: [
				{ id: 17, name: 'Code', type: 'code' },
				{ id: 18, name: 'Last look', type: 'date' },
				{ id: 19, name: 'Next due', type: 'computed', shows: 'date' },
				{ id: 20, name: 'not in use', type: 'computed', condition: true },
				{ id: 21, name: 'Depth', type: 'decimal' },
				{ id: 22, name: 'Until', type: 'text' }
			]
		},
		{ id: 6, name: 'Spend requests', columns: [{ id: 30, name: 'What for', type: 'text' }] },
		{
			...{ id: 7, name: 'Stock' },
			columns: [
				...['Item', 'Bin', 'Count', 'Kept by'].map((name, i) => ({ id: 40 + i, name, type: 'text' })),
				{ id: 49, name: 'Bought', type: 'date' }
			]
		}
	],
	...{ roles: [], screens: [{ id: 's', title: 'Start' }], routines: [] }
}

const proposed = (typed: string) =>
	proposeLines(typed, vocabulary).map((line) =>
		printText(SCREEN_LINES[line['kind'] as LineKind].sentence.kind, line, vocabulary)
	)

test.each([
	[
		'list of moorings due this week',
		/^List of Moorings where Next due <= TODAY\(\) \+ 7, by Next due, soonest first; each row shows Code, Last look, Next due, Depth;/
	],
	['which mooring is overdue?', /^List of Moorings where Next due < TODAY\(\)/],
	['moorings not in use', /^List of Moorings where 'not in use', by Next due/],
	['a table of stock', /^List of Stock where|^List of Stock every row.*; shown as a table/],
	// What it is ordered by is shown, though it is the fifth.
	[
		'stock of today',
		/^List of Stock where Bought = TODAY\(\), by Bought, soonest first; each row shows Item, Bin, Count, Bought;/
	],
	['add a spend request', /^Form that adds to Spend requests, asking for What for/],
	['details of a mooring', /^Record sheet of Moorings, showing Code/],
	['chart of moorings by month', /^Chart of the count from Moorings every row, by Last look in months/],
	['stock by week as a graph', /^Chart of the count from Stock every row, by Bought in weeks/],
	['histogram of moorings by depth', /^Chart of the count from Moorings every row, by Depth in bands$/],
	[
		'heat calendar of moorings',
		/^Chart of the count from Moorings every row, by Last look in days; shown as a calendar$/
	],
	['bars of stock by bin', /^Chart of the count from Stock every row, by Bin$/],
	[
		'how many moorings are overdue?',
		/^Figure moorings are overdue showing the count from Moorings where Next due < TODAY\(\)/
	]
])('%s', (typed, first) => {
	expect(proposed(typed)[0]).toMatch(first)
})

test('nothing is proposed where no table is named, and each proposal works as it stands', () => {
	expect(proposed('something nice')).toEqual([])
	expect(proposed('items')).toEqual([])
	for (const line of proposeLines('add a mooring or see those due soon', vocabulary))
		expect(beginLine(line, { id: 'n', screen: 's', vocabulary, within: [] })).toMatchObject({ id: 'n', table: 5 })
})
