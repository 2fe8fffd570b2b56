import { describe, expect, test } from 'vitest'
import { findHeadings, joinHeadings } from '$lib/core/exchange/headings.ts'

describe('where the headings stand', () => {
	test.each([
		[
			'in the first row',
			[
				['Code', 'Depth'],
				['NH-001', '4.2'],
				['NH-002', '6']
			],
			[0, 1, false]
		],
		[
			'below a title',
			[
				['Mooring register', ''],
				['', ''],
				['Code', 'Depth'],
				['NH-001', '4.2']
			],
			[2, 3, false]
		],
		[
			'nowhere',
			[
				['NH-001', '4.2'],
				['NH-002', '6']
			],
			[null, 0, false]
		],
		[
			'over two rows, groups above',
			[
				['Mooring', '', 'Chain', ''],
				['Code', 'Harbour', 'Length', 'Read'],
				['NH-001', 'Ness Hythe', '12', '11.5']
			],
			[1, 2, true]
		],
		[
			'over two rows, groups repeated as a merged cell is',
			[
				['Mooring', 'Mooring', 'Chain', 'Chain'],
				['Code', 'Harbour', 'Length', 'Read'],
				['NH-001', 'Ness Hythe', '12', '11.5']
			],
			[1, 2, true]
		],
		[
			'in one row, where the rows below are words too',
			[
				['Code', 'Note'],
				['NH-001', 'fine'],
				['NH-002', 'worn']
			],
			[0, 1, false]
		]
	] as const)('%s', (_name, rows, [headingRow, firstRow, overTwo]) => {
		expect(findHeadings(rows)).toEqual({ headingRow, firstRow, overTwo })
	})

	test('one group over some of the columns is one where the workbook says how far it goes; a title goes over all', () => {
		const rows = [
			['', '', 'Chain', '', ''],
			['Code', 'Harbour', 'Length', 'Read', 'Note'],
			['NH-001', 'Ness Hythe', '12', '11.5', 'fine']
		]
		const over = (from: number, to: number) => findHeadings(rows, [{ row: 0, from, to }]).overTwo
		expect([over(2, 3), over(0, 4), findHeadings(rows).overTwo]).toEqual([true, false, false])
		const [upper = [], lower = []] = rows
		expect(joinHeadings(upper, lower, [{ row: 0, from: 2, to: 3 }])).toEqual([
			...['Code', 'Harbour', 'Chain Length', 'Chain Read', 'Note']
		])
	})

	test('a group goes on to the right until the next one; a word that says the same is not doubled', () => {
		expect(joinHeadings(['Mooring', '', 'Chain', '', 'Note'], ['Code', 'Harbour', 'Length', 'Chain', ''])).toEqual([
			'Mooring Code',
			'Mooring Harbour',
			'Chain Length',
			'Chain',
			'Note'
		])
	})
})
