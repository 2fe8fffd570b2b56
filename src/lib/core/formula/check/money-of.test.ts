/** Formulas that give amounts of money, and such that do not. */
import { BRITISH } from '../../model/writing.ts'
import { expect, test } from 'vitest'
import type { Catalogue, Column, Table } from '../../model/table.ts'
import { check } from './check.ts'
import { moneyOf } from './money-of.ts'

const column = (id: number, name: string, more: Partial<Column>): Column => ({
	id,
	name,
	type: 'whole number',
	...more
})
const items: Table = {
	...{ id: 2, name: 'items', keepers: [], label: 20, checks: [], backReferences: [] },
	columns: [
		column(20, 'name', { type: 'text' }),
		column(21, 'count', {}),
		column(22, 'each', { type: 'money', unit: '€' }),
		column(23, 'fee', { type: 'money' })
	]
}
const catalogue: Catalogue = { tables: new Map([[2, items]]), people: items, timeZone: 'UTC', writing: BRITISH }

test.each([
	['each', '€'],
	['fee', '£'],
	['count * each', '€'],
	['each * count * 2 + 5', '€'],
	['10 - fee', '£'],
	['each / count', '€'],
	['-each', '€'],
	['ROUND(each * 1.2; 2)', '€'],
	['IF(count > 3; each * 3; 0)', '€'],
	['IFERROR(each / count; 0)', '€'],
	['MAX(each; 3)', '€'],
	['count', undefined],
	['each / fee', undefined],
	['each * fee', undefined],
	['count / each', undefined],
	['each ^ 2', undefined],
	['LEN(name) * 2', undefined],
	['each > 5', undefined]
])('%s', (text, unit) => {
	const { expr, issues } = check(text, { catalogue, rows: [items], me: false })
	expect(issues).toEqual([])
	expect(expr && moneyOf(expr)).toBe(unit)
})
