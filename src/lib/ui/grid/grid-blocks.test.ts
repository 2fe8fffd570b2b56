import { describe, expect, test } from 'vitest'
import type { WireRow } from '$lib/core/query/wire.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { clearCells, fillFrom, putTexts, replaceTexts } from './grid-blocks.ts'

const CODE: ShownColumn = { id: 1, name: 'Code', type: 'code', required: true }
const DEPTH: ShownColumn = { id: 2, name: 'Depth', type: 'decimal', places: 1 }
const HARBOUR: ShownColumn = { id: 3, name: 'Harbour', type: 'reference', to: 5 }
const DUE: ShownColumn = { id: 4, name: 'Due', type: 'computed', shows: 'date' }

const row = (id: string, cells: WireRow['cells'], change = [1, 2, 3]): WireRow => ({
	id,
	rev: 1,
	cells,
	may: { change, remove: false }
})
const ONE = row('a', { c1: 'VQ-001', c2: 4, c3: { id: 'h', label: 'Ness Hythe' }, c4: '2026-01-01' })
const TWO = row('b', { c1: 'VQ-002', c2: null, c3: { hidden: true } })

const texts = (given: readonly (readonly string[])[]) => (i: number, j: number) => given[i]?.[j] ?? ''

describe('texts into a block', () => {
	test('each is read by its column and says what it replaces; what is the same is left alone', () => {
		const plan = putTexts({
			rows: [ONE, TWO],
			first: 1,
			columns: [CODE, DEPTH],
			textAt: texts([
				['VQ-001', '5.25'],
				['X', '']
			])
		})
		expect(plan.misfits).toEqual([])
		expect(plan.changes).toEqual([
			{ kind: 'change', row: 'a', cells: [{ column: 2, value: 5.3, was: 4 }] },
			{ kind: 'change', row: 'b', cells: [{ column: 1, value: 'X', was: 'VQ-002' }] }
		])
	})

	test('what does not fit is told apart, with its place', () => {
		const plan = putTexts({
			rows: [ONE],
			first: 7,
			columns: [CODE, DEPTH, HARBOUR, DUE],
			textAt: texts([['', 'deep', 'Gull Stair', 'x']])
		})
		expect(plan.misfits).toEqual([
			{ place: 'Row 7, Code', message: 'Code must be filled in.' },
			{ place: 'Row 7, Depth', message: '"deep" is no number. Write digits, with a dot before decimals: 1.4.' },
			{ place: 'Row 7, Due', message: 'Due is computed. Open its card to change the formula.' }
		])
		expect(plan.changes).toEqual([
			{
				kind: 'change',
				row: 'a',
				cells: [{ column: 3, value: { match: 'Gull Stair' }, was: { id: 'h', label: 'Ness Hythe' } }]
			}
		])
	})

	test('a cell that one may not change is a misfit; rows past the end are added', () => {
		const kept = row('c', { c2: 1 }, [1])
		const plan = putTexts({ rows: [kept, undefined], first: 1, columns: [DEPTH], textAt: texts([['2'], ['3']]) })
		expect(plan.misfits.map((misfit) => misfit.message)).toEqual(['You may not change Depth here.'])
		expect(plan.changes).toEqual([{ kind: 'add', cells: [{ column: 2, value: 3 }] }])
	})
})

test('a fill copies what stands in a row, references as the rows they mean; computed columns are left', () => {
	expect(fillFrom(ONE, [TWO], [DEPTH, HARBOUR, DUE])).toEqual([
		{
			kind: 'change',
			row: 'b',
			cells: [
				{ column: 2, value: 4, was: null },
				{ column: 3, value: { id: 'h' }, was: { hidden: true } }
			]
		}
	])
})

test('a clearing touches only cells that hold something', () => {
	expect(clearCells([ONE, TWO], [DEPTH, DUE])).toEqual([
		{ kind: 'change', row: 'a', cells: [{ column: 2, value: null, was: 4 }] }
	])
})

test('a replacement takes signs as they are and has no regard to case', () => {
	const rows = [row('a', { c1: 'a.b A.B' }), row('b', { c1: 'axb' })]
	expect(replaceTexts(rows, CODE, { text: 'A.b', by: '$&' }).changes).toEqual([
		{ kind: 'change', row: 'a', cells: [{ column: 1, value: '$& $&', was: 'a.b A.B' }] }
	])
})
