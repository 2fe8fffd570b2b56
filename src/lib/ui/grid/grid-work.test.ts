/** What is done in a grid, against rows in memory: keys, blocks, what does not fit, what clashes, and the way back. */
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import type { WireRow } from '$lib/core/query/wire.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import type { BenchTable } from '$lib/core/requests/bench.ts'
import { fakeRows, type FakeRows } from '../../../../tests/support/fake-rows.ts'
import { GridEdits } from './grid-edits.svelte.ts'
import { copyCells, pasteCells, pressKey } from './grid-keys.ts'
import { GridRows } from './grid-rows.svelte.ts'
import { GridScroll } from './grid-scroll.svelte.ts'
import { GridWork } from './grid-work.svelte.ts'
import { at } from './selection.ts'

vi.mock('$app/navigation', () => ({ invalidateAll: () => Promise.resolve() }))

const COLUMNS: ShownColumn[] = [
	{ id: 1, name: 'Code', type: 'text', required: true },
	{ id: 2, name: 'Depth', type: 'decimal', places: 1 },
	{ id: 3, name: 'State', type: 'choice', choices: ['Good', 'Watch'] },
	{ id: 4, name: 'Twice', type: 'computed', shows: 'number', formula: 'Depth * 2' }
]
const rowOf = (i: number): WireRow => ({
	id: `r${i}`,
	rev: 1,
	cells: { c1: `M-${i}`, c2: i, c3: 'Good', c4: i * 2 },
	may: { change: [1, 2, 3], remove: true }
})

let server: FakeRows
let work: GridWork
let rows: GridRows

beforeEach(async () => {
	server = fakeRows(Array.from({ length: 2_500 }, (_row, i) => rowOf(i)))
	vi.stubGlobal('fetch', server.fetch)
	const table = { id: 7, name: 'Moorings', columns: COLUMNS, owned: true } as unknown as BenchTable
	rows = new GridRows(7)
	const scroll = new GridScroll(
		() => rows.count,
		() => ({ frozen: 0, lefts: [] })
	)
	work = new GridWork({ table: () => table, columns: () => COLUMNS, rows, edits: new GridEdits(7), scroll })
	await rows.open({ sorts: [], filters: [] })
})

afterEach(() => void vi.unstubAllGlobals())

const cell = (row: number, column: number) => server.rows[row]?.cells[`c${column}`]
const key = (name: string, more: Partial<KeyboardEvent> = {}) =>
	pressKey(work, { key: name, preventDefault() {}, stopPropagation() {}, ...more } as unknown as KeyboardEvent)
const control = (name: string, more: Partial<KeyboardEvent> = {}) => key(name, { ctrlKey: true, ...more })
const block = (top: number, left: number, bottom: number, right: number) =>
	(work.selection = { anchor: { row: top, column: left }, focus: { row: bottom, column: right } })

function clipboard(text = '') {
	const held = { text }
	const clipboardData = {
		getData: () => held.text,
		setData: (_type: string, given: string) => void (held.text = given)
	}
	return { held, event: { type: 'copy', clipboardData, preventDefault() {} } as unknown as ClipboardEvent }
}

async function type(text: string): Promise<void> {
	await key(text[0] ?? '')
	work.editing = { text }
}

describe('one cell', () => {
	test('a key begins a new value, Enter keeps it and goes down, Tab goes right', async () => {
		work.selection = at(0, 1)
		await type('7.25')
		await key('Enter')
		expect([cell(0, 2), work.selection.focus]).toEqual([7.3, { row: 1, column: 1 }])
		await type('2')
		await key('Tab')
		expect([cell(1, 2), work.selection.focus]).toEqual([2, { row: 1, column: 2 }])
	})

	test('F2 begins with what stands there; Escape leaves it', async () => {
		work.selection = at(3, 0)
		await key('F2')
		expect(work.editing).toEqual({ text: 'M-3' })
		await key('Escape')
		expect([work.editing, server.blocks]).toEqual([undefined, []])
	})

	test('a value of the wrong kind is said in words, and what was typed stays', async () => {
		work.selection = at(0, 1)
		await type('deep')
		await key('Enter')
		expect(work.wrong).toMatch(/^Depth: /)
		expect([work.editing, server.blocks]).toEqual([{ text: 'deep' }, []])
	})

	test('what the server refuses is said, and what was typed stays', async () => {
		server.refuses.set(2, (value) => (Number(value) > 50 ? 'Nothing here is deeper than 50 m.' : undefined))
		work.selection = at(0, 1)
		await type('60')
		await key('Enter')
		expect([work.wrong, work.editing, cell(0, 2)]).toEqual(['Nothing here is deeper than 50 m.', { text: '60' }, 0])
	})

	test('a computed cell says why it cannot be changed', async () => {
		work.selection = at(0, 3)
		await key('Enter')
		expect([work.editing, work.wrong !== '']).toEqual([undefined, true])
	})

	test('a cell that somebody else changed shows both; mine goes on top, or theirs stays', async () => {
		work.selection = at(0, 1)
		await type('7')
		server.rows = server.rows.map((row, i) => (i === 0 ? { ...row, cells: { ...row.cells, c2: 9 } } : row))
		await key('Enter')
		expect(work.clash?.conflict).toMatchObject({ theirs: 9, yours: 7 })
		await work.putMine()
		expect([cell(0, 2), work.clash]).toEqual([7, undefined])
		server.rows = server.rows.map((row, i) => (i === 0 ? { ...row, cells: { ...row.cells, c2: 11 } } : row))
		work.selection = at(0, 1)
		await type('8')
		await key('Enter')
		await work.takeTheirs()
		expect([cell(0, 2), work.editing, rows.at(0)?.cells['c2']]).toEqual([11, undefined, 11])
	})
})

describe('blocks', () => {
	test('copied as a spreadsheet takes them, pasted where the selection begins', async () => {
		block(0, 0, 1, 1)
		const copied = clipboard()
		copyCells(work, copied.event)
		expect(copied.held.text).toBe('M-0\t0\r\nM-1\t1')
		work.selection = at(5, 0)
		await pasteCells(work, clipboard('A\t1.5\r\nB\t2.5\r\n').event)
		expect([cell(5, 1), cell(5, 2), cell(6, 1), cell(6, 2)]).toEqual(['A', 1.5, 'B', 2.5])
		expect(server.blocks).toHaveLength(1)
	})

	test('one value is pasted into every cell of the selection; too wide a paste is said', async () => {
		block(2, 2, 4, 2)
		await pasteCells(work, clipboard('Watch').event)
		expect([2, 3, 4].map((row) => cell(row, 3))).toEqual(['Watch', 'Watch', 'Watch'])
		work.selection = at(0, 3)
		await pasteCells(work, clipboard('1\t2').event)
		expect(work.wrong).toBe('This is 2 columns wide, but only 1 is left from here.')
	})

	test('past the last row a paste adds rows', async () => {
		const last = server.rows.length - 1
		await rows.want(last - 1, last + 1)
		work.selection = at(last, 0)
		await pasteCells(work, clipboard('Z\t1\r\nNew\t2').event)
		expect(server.rows).toHaveLength(2_501)
		expect([cell(last, 1), cell(last + 1, 1)]).toEqual(['Z', 'New'])
	})

	test('cells that do not fit are named before anything goes in; then those that fit can', async () => {
		work.selection = at(0, 1)
		await pasteCells(work, clipboard('4.5\r\ndeep\r\n5.5').event)
		expect(work.misfits?.shown.map(({ place }) => place)).toEqual(['Row 2, Depth'])
		expect(server.blocks).toEqual([])
		await work.misfits?.partly()
		expect([0, 1, 2].map((row) => cell(row, 2))).toEqual([4.5, 1, 5.5])
		expect(work.misfits).toBeUndefined()
	})

	test('what the server refuses of a block is named by row and column, and none of it goes in', async () => {
		server.refuses.set(2, (value) => (Number(value) > 50 ? 'Too deep.' : undefined))
		work.selection = at(0, 1)
		await pasteCells(work, clipboard('4\r\n60').event)
		expect(work.misfits?.shown).toEqual([{ place: 'Row 2, Depth', message: 'Too deep.' }])
		expect([cell(0, 2), cell(1, 2)]).toEqual([0, 1])
		await work.misfits?.partly()
		expect([cell(0, 2), cell(1, 2), work.said]).toEqual([4, 1, '1 did not fit and were left out.'])
	})

	test('Ctrl D fills down, Delete clears, and a computed column cannot be cleared', async () => {
		block(7, 1, 9, 1)
		await control('d')
		expect([7, 8, 9].map((row) => cell(row, 2))).toEqual([7, 7, 7])
		await key('Delete')
		expect([7, 8, 9].map((row) => cell(row, 2))).toEqual([null, null, null])
		block(7, 3, 8, 3)
		await key('Delete')
		expect(work.wrong).not.toBe('')
	})

	test('a text is replaced in the column where one stands', async () => {
		work.selection = at(0, 2)
		await work.replace('good', 'Watch')
		expect(work.said).toBe('Replaced in 2,500 rows.')
		expect(server.rows.every((row) => row.cells['c3'] === 'Watch')).toBe(true)
		await work.replace('nowhere', 'x')
		expect(work.said).toBe('State holds no such text.')
	})

	test('what the chosen cells come to', () => {
		block(1, 1, 4, 1)
		expect(work.totals).toMatchObject({ filled: 4, sum: 10, mean: 2.5 })
		work.selection = at(1, 1)
		expect(work.totals).toBeUndefined()
	})

	test('more rows than can be changed at once are refused, all of them chosen or not', async () => {
		server.rows = Array.from({ length: 12_000 }, (_row, i) => rowOf(i))
		await rows.open({ sorts: [], filters: [] })
		await control('a')
		expect(work.block).toEqual({ top: 0, left: 0, bottom: 11_999, right: 3 })
		await key('Delete')
		expect(work.wrong).toBe('Choose at most 10,000 rows at once.')
	})
})

describe('the way back and forth', () => {
	test('each change is taken back and done again, in order', async () => {
		work.selection = at(0, 1)
		await type('5')
		await key('Enter')
		block(1, 1, 3, 1)
		await key('Delete')
		await control('z')
		expect([1, 2, 3].map((row) => cell(row, 2))).toEqual([1, 2, 3])
		await control('z')
		expect(cell(0, 2)).toBe(0)
		await control('y')
		await control('z', { shiftKey: true })
		expect([0, 1, 2, 3].map((row) => cell(row, 2))).toEqual([5, null, null, null])
		expect(work.edits.canRedo).toBe(false)
	})

	test('rows that were added go, rows that were removed come back', async () => {
		await work.addRow()
		expect(server.rows).toHaveLength(2_501)
		await control('z')
		expect(server.rows).toHaveLength(2_500)
		block(0, 0, 1, 0)
		await work.removeRows()
		expect(server.rows.map(({ id }) => id)).not.toContain('r0')
		await control('z')
		expect(server.rows.map(({ id }) => id)).toContain('r0')
	})

	test('a cell that somebody has changed since is not taken back, and that is said', async () => {
		work.selection = at(0, 1)
		await type('5')
		await key('Enter')
		server.rows = server.rows.map((row, i) => (i === 0 ? { ...row, cells: { ...row.cells, c2: 6 } } : row))
		await control('z')
		expect([cell(0, 2), work.wrong]).toEqual([6, 'Not taken back: 1 do not fit.'])
	})
})

describe('rows as they come into sight', () => {
	test('the first rows come before the count; a far one from the nearest place', async () => {
		expect(server.asked.slice(0, 2).map((path) => path.split('?')[0])).toEqual(['/rows/7', '/rows/7/anchors'])
		expect([rows.count, rows.at(50)?.id, rows.at(2_300)]).toEqual([2_500, 'r50', undefined])
		await rows.want(2_300, 2_310)
		expect(rows.at(2_305)?.id).toBe('r2305')
		expect(server.asked.at(-1)).toContain('skip=300&after=2')
	})

	test('what is under way is not asked twice, and what is there not again', async () => {
		const before = server.asked.length
		await Promise.all([rows.want(1_000, 1_050), rows.want(1_000, 1_050)])
		await rows.want(1_000, 1_050)
		expect(server.asked.length - before).toBe(1)
	})

	test('an answer to an earlier question is dropped, and says nothing', async () => {
		let cascade = () => {}
		server.hold = new Promise<void>((done) => (cascade = done))
		const first = rows.open({ sorts: [{ column: 1, descending: true }], filters: [] })
		const second = rows.open({ sorts: [], filters: [] })
		cascade()
		await Promise.all([first, second])
		expect([rows.wrong, rows.at(0)?.id, rows.count]).toEqual(['', 'r0', 2_500])
	})

	test('a search that takes too long can be stopped; what was shown stays', async () => {
		let cascade = () => {}
		server.hold = new Promise<void>((done) => (cascade = done))
		const search = rows.open({ sorts: [], filters: [{ column: 0, is: 'contains', text: 'x' }] })
		await vi.waitFor(() => expect(rows.slow).toBe(true))
		rows.stop()
		expect([rows.slow, rows.stopped, rows.at(0)?.id]).toEqual([false, true, 'r0'])
		expect(rows.wrong).toMatch(/^Stopped before/)
		cascade()
		await search
		expect(rows.wrong).toMatch(/^Stopped before/)
		const before = server.asked.length
		await rows.want(1_000, 1_050)
		expect(server.asked.length).toBe(before)
		await rows.open({ sorts: [], filters: [] })
		expect([rows.wrong, rows.stopped]).toEqual(['', false])
	})
})
