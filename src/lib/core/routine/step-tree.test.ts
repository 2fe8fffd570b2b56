/** Steps within steps: what their formulas stand on follows renames, and what they name is found. */
import { expect, test } from 'vitest'
import { appSchema, APP_FORMAT } from '../app/document.ts'
import { mapFormulas, needsColumn, tablesOf } from '../app/walk-app.ts'
import { mayHoldStep, placedSteps, writingsOf } from './step-tree.ts'

const [ITEMS, NOTE, DUE] = [2, 20, 21]
const [ORDERS, MANY, OF] = [3, 30, 31]

const set = { id: 's', kind: 'set', column: MANY, formula: 'many + this.stock' } as const
const each = { id: 'e', kind: 'each', table: ORDERS, where: 'of = this.item', lines: [set] } as const
const add = { id: 'a', kind: 'add', table: ORDERS, lines: [{ id: 'c', kind: 'cell', column: MANY, formula: 'least' }, { id: 'l', kind: 'link', column: OF }] } as const // prettier-ignore
const when = { id: 'i', kind: 'if', where: 'stock < 3', lines: [each, add] } as const
const document = appSchema.parse({
	...{ format: APP_FORMAT, name: 'S', about: '', colour: 'sea', screens: [], signoffs: [] },
	routines: [
		{
			...{ id: 'r', name: 'R', acts: 10 },
			start: { kind: 'due', table: ITEMS, many: 3, side: 'before', column: DUE, at: '08:00', where: 'stock > 0' },
			steps: [when]
		}
	]
})
const [routine] = document.routines

test('each formula stands on its own row, and reaches the one around where there is one', () => {
	const found: string[] = []
	mapFormulas(document, (text, { table, outer }) => {
		found.push(`${text} on ${table} in ${outer ?? 'none'}`)
		return text
	})
	expect(found.toSorted()).toEqual([
		`least on ${ITEMS} in none`,
		`many + this.stock on ${ORDERS} in ${ITEMS}`,
		`of = this.item on ${ORDERS} in ${ITEMS}`,
		`stock < 3 on ${ITEMS} in none`,
		`stock > 0 on ${ITEMS} in none`
	])
})

test('the tables it names and the columns it cannot do without are those of every level', () => {
	expect(new Set(tablesOf(document).map(({ table }) => table))).toEqual(new Set([ITEMS, ORDERS]))
	expect([MANY, OF, DUE, NOTE].map((column) => needsColumn(document, column))).toEqual(['Routine R', 'Routine R', 'Routine R', undefined]) // prettier-ignore
	expect(routine && writingsOf(routine)).toEqual([
		{ table: ORDERS, verb: 'change', columns: [MANY] },
		{ table: ORDERS, verb: 'add', columns: [] },
		{ table: ORDERS, verb: 'add', columns: [MANY] },
		{ table: ORDERS, verb: 'add', columns: [OF] }
	])
	expect(routine && placedSteps(routine).map(({ step, level, number }) => [step.id, level, number])).toEqual(
		[['i', 0, 1], ['e', 1, 2], ['s', 2, 3], ['a', 1, 4], ['c', 2, 5], ['l', 2, 6]] // prettier-ignore
	)
})

test.each([
	[undefined, 'set', true],
	[undefined, 'cell', false],
	['add', 'cell', true],
	['add', 'set', false],
	['if', 'each', true],
	['set', 'set', false],
	[undefined, 'unheard of', false]
] as const)('in %s a step %s may stand: %s', (holder, kind, may) => {
	expect(mayHoldStep(holder, kind)).toBe(may)
})
