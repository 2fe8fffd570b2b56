/** Rows of a sheet that are no records: named, left out unless they are kept; groups filled down; units moved into headings. */
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from 'vitest'
import { openNoRows, unitsOf } from '$lib/core/exchange/no-rows.ts'
import type { ColumnEntry } from '$lib/core/workspace/document.ts'
import { bringIn } from '$lib/server/sources/bring-in.ts'
import { inspectFile } from '$lib/server/sources/inspect.ts'
import { proposePlan, rowsOf, turnRow } from '$lib/ui/sources/import-plan.ts'
import type { ImportPlan } from '$lib/core/exchange/plan.ts'
import type { StoredValue } from '$lib/core/table/storage.ts'

const SHEET = [
	'Stock of the harbour trust,,,',
	'Harbour,Item,Length,Cost',
	',,m,£',
	'Ness,Rope,12,3.50',
	',Chain,30,120.00',
	',Subtotal,,123.50',
	'Varrow,Rope,8,2.75',
	',Shackle,1,9.25',
	',Total,,12.00',
	'Harbour,Item,Length,Cost',
	'Orrin,Paint,2,18.00',
	',Buoy,4,55.00',
	'Grand total,,,208.50',
	'* counted by hand on the last working day,,,'
].join('\n')

function given(text: string): { path: string; name: string } {
	const path = join(mkdtempSync(join(tmpdir(), 'tin-shed-rows-')), 'stock.csv')
	writeFileSync(path, `${text}\n`)
	return { path, name: 'stock.csv' }
}

/** What would be written, row by row. */
async function broughtIn(file: { path: string; name: string }, plan: ImportPlan): Promise<StoredValue[][]> {
	const included = plan.columns.filter((column) => column.include)
	const columns = included.map(({ name, type, places, choices }, i): ColumnEntry => ({
		...{ id: 20 + i, name, type },
		...(places === undefined ? {} : { places }),
		...(choices ? { choices } : {})
	}))
	const rows: StoredValue[][] = []
	const write = (batch: { columns: readonly { name: string; key: string }[]; values: readonly StoredValue[] }) => {
		const width = batch.columns.reduce((all, { key }) => all + (key === 'given' ? 2 : 1), 0)
		for (let at = 0; at < batch.values.length; at += width) {
			let place = at
			rows.push(
				batch.columns.map(({ key }) => {
					const value = batch.values[place] ?? null
					place += key === 'given' ? 2 : 1
					return value
				})
			)
		}
		return Promise.resolve()
	}
	const begun = { table: 5, columns, timeZone: 'UTC' }
	await bringIn({ ...file, plan, begun, now: 0, person: 1 }, write, {
		onProgress: () => undefined,
		isStopped: () => false
	})
	return rows
}

test('totals, headings that come again, units and notes are named, with their rows', async () => {
	const found = await inspectFile(given(SHEET))
	expect(found.noRows.map(({ row, what }) => [row, what])).toEqual([
		[3, 'units'],
		[6, 'total'],
		[9, 'total'],
		[10, 'heading'],
		[13, 'total'],
		[14, 'note']
	])
	expect(found.rowCount).toBe(6)
	expect(found.columns.map(({ name, type, unit }) => [name, type, unit])).toEqual([
		['Harbour', 'text', undefined],
		['Item', 'text', undefined],
		['Length', 'whole number', 'm'],
		['Cost', 'money', '£']
	])
	expect(found.groups).toEqual([0])
	expect(found.label).toBe(1)
})

test('a single unit under its heading is one, and the item names its row', async () => {
	const found = await inspectFile(given('Harbour,Item,Length\n,,m\nNess,Rope,12\nNess,Chain,30'))
	expect(found.noRows.map(({ what }) => what)).toEqual(['units'])
	expect(found.columns[2]).toMatchObject({ type: 'whole number', unit: 'm' })
	expect(found.label).toBe(1)
})

test('they stay out, groups are filled down, and a row that is kept comes in', async () => {
	const file = given(SHEET)
	const found = await inspectFile(file)
	const plan = proposePlan(found, 'stock.csv')
	expect(rowsOf(found, plan)).toBe(6)
	expect(await broughtIn(file, plan)).toEqual([
		['Ness', 'Rope', 12, 350],
		['Ness', 'Chain', 30, 12000],
		['Varrow', 'Rope', 8, 275],
		['Varrow', 'Shackle', 1, 925],
		['Orrin', 'Paint', 2, 1800],
		['Orrin', 'Buoy', 4, 5500]
	])
	const kept = turnRow(plan, 6)
	expect(rowsOf(found, kept)).toBe(7)
	expect((await broughtIn(file, kept))[2]).toEqual(['Ness', 'Subtotal', null, 12350])
	const without = turnRow(plan, 4)
	expect(rowsOf(found, without)).toBe(5)
	expect((await broughtIn(file, without))[0]).toEqual([null, 'Chain', 30, 12000])
	expect(turnRow(turnRow(plan, 4), 4)).toEqual(plan)
})

test.each([
	['a record that is called total', 'Code,Name,Depth\nA,Total Rope,3\nB,Chain,4\nC,Buoy,5'],
	[
		'a table of one filled column',
		'Note,Seen,By\nA long remark that says a thing or two,,\nAnother long remark that says something,,'
	],
	['notes in the middle', 'Code,Name,Depth\nA,Rope,3\nNote: what follows was counted twice,,\nB,Chain,4'],
	['two columns', 'Name,Depth\nTotal,3\nNote: deep,'],
	['words that are units elsewhere', 'Code,Unit,Per\nA,m,h\nB,kg,min'],
	['a first record without a name', 'Code,Unit,Per\n,box,3\nB,kg,4']
])('%s: nothing is taken for no record', async (_what, text) => {
	expect((await inspectFile(given(text))).noRows).toEqual([])
})

test.each([
	['a group in the middle of many', 'Name,Harbour,Depth\nA,Ness,3\nB,,4\nC,,5\nD,Varrow,6\nE,,7', [1]],
	['a column with gaps', 'Name,Seen,Depth\nA,,3\nB,x,4\nC,,5\nD,x,6\nE,,7', []],
	['a column that is mostly filled', 'Harbour,Name,Depth\nNess,A,3\nNess,B,4\n,C,5\nVarrow,D,6\nOrrin,E,7', []]
])('%s', async (_what, text, groups) => {
	expect((await inspectFile(given(text))).groups).toEqual(groups)
})

test('a row as it is judged by itself', () => {
	const finder = openNoRows(['Code', 'Length', 'Cost'], 3)
	expect(finder.judge(['', '(m)', '[£]'], false)).toBe('units')
	expect(finder.judge(['A', '1', '2'], false)).toBeUndefined()
	expect(finder.judge(['', '(m)', '[£]'], false)).toBeUndefined()
	expect(finder.judge(['CODE', ' length ', 'Cost'], false)).toBe('heading')
	expect(finder.judge(['Sub-total', '', '4'], false)).toBe('total')
	expect(finder.judge(['', '', ''], false)).toBeUndefined()
	expect(unitsOf(['', '(m)', '[£]', 'text'])).toEqual([undefined, 'm', '£', undefined])
})
