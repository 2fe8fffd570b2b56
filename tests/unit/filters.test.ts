/**
 * What a filter that is set by hand finds: for each type of column the rows that a person would expect, judged by hand from
 * the table below.
 */
import { beforeAll, describe, expect, test } from 'vitest'
import type { Filter } from '$lib/core/query/filter.ts'
import { filtersSchema, toCondition } from '$lib/core/query/filter.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readAnchors } from '$lib/server/rows/read-anchors.ts'
import { readRows } from '$lib/server/rows/read.ts'
import type { Store } from '$lib/server/store/store.ts'

const NOW = Date.parse('2026-11-28T12:00:00Z')
const [HARBOURS, H_NAME] = [2, 20]
const BUOYS = 3
const ID = {
	...{ code: 30, note: 31, count: 32, depth: 33, worth: 34, share: 35, lit: 36, laid: 37, seen: 38, tide: 39 },
	...{ span: 40, state: 41, marks: 42, harbour: 43, mail: 44, phone: 45, double: 46, grade: 47, due: 48, dim: 49 }
}
type Name = keyof typeof ID

let store: Store

beforeAll(() => {
	const keepers = [KEEPER]
	const choices = ['Sound', 'Worn', 'Renew']
	store = openScratch({
		now: NOW,
		tables: [
			{ id: HARBOURS, name: 'harbours', keepers, label: H_NAME, columns: [{ id: H_NAME, name: 'name', type: 'text' }] },
			{
				...{ id: BUOYS, name: 'buoys', keepers, label: ID.code },
				columns: [
					{ id: ID.code, name: 'code', type: 'text' },
					{ id: ID.note, name: 'note', type: 'long text' },
					{ id: ID.count, name: 'count', type: 'whole number' },
					{ id: ID.depth, name: 'depth', type: 'decimal', places: 1 },
					{ id: ID.worth, name: 'worth', type: 'money', unit: '£' },
					{ id: ID.share, name: 'share', type: 'percent' },
					{ id: ID.lit, name: 'lit', type: 'yes/no' },
					{ id: ID.laid, name: 'laid', type: 'date' },
					{ id: ID.seen, name: 'seen', type: 'date and time' },
					{ id: ID.tide, name: 'tide', type: 'time' },
					{ id: ID.span, name: 'span', type: 'duration' },
					{ id: ID.state, name: 'state', type: 'choice', choices },
					{ id: ID.marks, name: 'marks', type: 'several choices', choices: ['Bell', 'Lamp', 'Lamp post'] },
					{ id: ID.harbour, name: 'harbour', type: 'reference', to: HARBOURS, reverseName: 'buoys' },
					{ id: ID.mail, name: 'mail', type: 'email' },
					{ id: ID.phone, name: 'phone', type: 'phone' },
					{ id: ID.double, name: 'double', type: 'computed', formula: 'count * 2' },
					{ id: ID.grade, name: 'grade', type: 'computed', formula: 'IF(count > 5; "Many"; "Few")' },
					{ id: ID.due, name: 'due', type: 'computed', formula: 'EDATE(laid; 12)' },
					{ id: ID.dim, name: 'dim', type: 'computed', formula: 'NOT(lit)' }
				]
			}
		]
	})
	store.db.exec(`INSERT INTO t2 (n, made_at, changed_at, c20, c20k) VALUES (1, 0, 0, 'Ness Hythe', 'ness hythe')`)
	const rows: Partial<Record<Name, unknown>>[] = [
		{
			...{ code: 'A-1*', note: 'Lamp is dim', count: 12, depth: 4.5, worth: 1250, share: 0.25, lit: true },
			...{ laid: '2026-03-01', seen: '2026-07-15T13:05:00.000Z', tide: '06:30', span: '1:30', state: 'Worn' },
			...{ marks: 'Bell; Lamp', harbour: { id: store.ids.toId(HARBOURS, 1) }, mail: 'imke@x.example' },
			phone: '+44 20 7946 0018'
		},
		{ code: 'b-2?', count: 2, depth: 10, lit: false, laid: '2025-12-31', state: 'Sound', marks: 'Lamp post' },
		{ code: 'C-3~' }
	]
	for (const row of rows) {
		const cells = Object.entries(row).map(([name, value]) => ({ column: ID[name as Name], value: value as string }))
		const [added] = changeRows(store, [{ kind: 'add', table: BUOYS, cells }], {
			...{ actor: { person: KEEPER }, now: NOW, through: 'grid' }
		})
		expect(added?.conflicts).toEqual([])
	}
})

/** The rows that are found, by their first letters. */
function found(column: Name | 'any', is: Filter['is'], text = ''): string {
	const filters = [{ column: column === 'any' ? 0 : ID[column], is, text }]
	const page = readRows(store, { person: KEEPER }, { table: BUOYS, columns: [ID.code], filters }, NOW)
	expect(readAnchors(store, { person: KEEPER }, { table: BUOYS, filters }, NOW).count).toBe(page.rows.length)
	return page.rows.map(({ cells }) => String(cells[`c${ID.code}`])[0]?.toLowerCase()).join('')
}

test.each<[Name | 'any', string, string]>([
	['code', 'A', 'a'],
	['code', 'B', 'b'],
	['code', '-', 'abc'],
	// Signs that stand for others elsewhere are only themselves here.
	['code', '*', 'a'],
	['code', '?', 'b'],
	['code', '~', 'c'],
	['code', ' b-2 ', 'b'],
	['note', 'LAMP', 'a'],
	['count', '2', 'ab'],
	['count', '12', 'a'],
	['depth', '.5', 'a'],
	['depth', '10', 'b'],
	['worth', '1250', 'a'],
	['share', '25', 'a'],
	['laid', '2026', 'a'],
	['laid', '-31', 'b'],
	['laid', 'March', ''],
	['state', 'or', 'a'],
	['state', 'renew', ''],
	['state', 'nothing like it', ''],
	['marks', 'lamp', 'a'],
	['marks', 'Lamp post', 'b'],
	['marks', 'Lam', ''],
	['harbour', 'hythe', 'a'],
	['harbour', 'varrow', ''],
	['mail', 'IMKE', 'a'],
	['phone', '7946', 'a'],
	['double', '4', 'ab'],
	['grade', 'man', 'a'],
	['grade', 'few', 'bc'],
	['due', '2027', 'a'],
	// An answer holds no text: the filter says nothing, and leaves nothing out.
	['lit', 'yes', 'abc'],
	['dim', 'yes', 'abc'],
	['any', 'lamp', 'a'],
	['any', 'lamp post', 'b'],
	['any', 'hythe', 'a'],
	['any', '31', 'b'],
	['any', 'worn', 'a'],
	['any', 'nowhere', '']
])('%s contains "%s": %s', (column, text, rows) => {
	expect(found(column, 'contains', text)).toBe(rows)
})

test.each<[Name | 'any', string, string, string, string]>([
	['code', 'b-2?', 'b', 'bc', 'ab'],
	['count', '2', 'b', 'ab', 'b'],
	['count', ' 12 ', 'a', 'a', 'ab'],
	['depth', '4.5', 'a', 'ab', 'a'],
	['worth', '£1,250.00', 'a', 'a', 'a'],
	['share', '25%', 'a', 'a', 'a'],
	['laid', '2026-03-01', 'a', 'a', 'ab'],
	['laid', '1 March 2026', 'a', 'a', 'ab'],
	['tide', '06:30', 'a', 'a', 'a'],
	['span', '1:30', 'a', 'a', 'a'],
	['state', 'worn', 'a', 'a', 'ab'],
	['harbour', 'NESS HYTHE', 'a', 'a', 'a'],
	['mail', 'imke@x.example', 'a', 'a', 'a'],
	['double', '4', 'b', 'ab', 'bc'],
	['double', '24', 'a', 'a', 'abc'],
	['grade', 'few', 'bc', 'abc', 'bc'],
	['due', '2027-03-01', 'a', 'a', 'ab'],
	// What is no number, no date, no answer says nothing, so that nothing is left out by it.
	['count', 'many', 'abc', 'abc', 'abc'],
	['double', 'many', 'abc', 'abc', 'abc'],
	['due', 'soon', 'abc', 'abc', 'abc'],
	['dim', 'perhaps', 'abc', 'abc', 'abc'],
	['code', '  ', 'abc', 'abc', 'abc'],
	['any', '2', 'b', 'abc', 'b']
])('%s and "%s": equal %s, at least %s, at most %s', (column, text, equal, least, most) => {
	expect(found(column, 'equal', text)).toBe(equal)
	if (column === 'any') return
	expect(found(column, 'at least', text)).toBe(least)
	expect(found(column, 'at most', text)).toBe(most)
})

test.each<[Name, string, string]>([
	['lit', 'yes', 'a'],
	// A blank is no answer.
	['lit', 'NO', 'b'],
	['dim', 'Yes', 'bc'],
	['dim', 'no', 'a']
])('%s is %s: %s', (column, text, rows) => {
	expect(found(column, 'equal', text)).toBe(rows)
})

test.each<[Name, string]>([
	['note', 'bc'],
	['count', 'c'],
	['laid', 'c'],
	['state', 'c'],
	['marks', 'c'],
	['harbour', 'bc'],
	['due', 'c'],
	['code', '']
])('%s is blank: %s; filled: the others', (column, blank) => {
	expect(found(column, 'blank')).toBe(blank)
	expect(found(column, 'filled')).toBe([...'abc'].filter((row) => !blank.includes(row)).join(''))
})

describe('a filter that says nothing', () => {
	const table = () => {
		const { catalogue } = store.workspace()
		const buoys = catalogue.tables.get(BUOYS)
		if (!buoys) throw new Error('Cannot find the buoys')
		return [buoys, catalogue] as const
	}
	test.each<[string, Filter]>([
		['of no column that is there', { column: 999, is: 'contains', text: 'x' }],
		['without a text in any column', { column: 0, is: 'contains', text: '  ' }],
		['without a text in a column', { column: ID.code, is: 'contains', text: '  ' }],
		['a text in a yes/no', { column: ID.lit, is: 'contains', text: 'yes' }]
	])('%s, is none', (_what, filter) => {
		expect(toCondition(filter, ...table())).toBeUndefined()
	})
	test.each([
		[{ column: -1, is: 'blank', text: '' }],
		[{ column: 1.5, is: 'blank', text: '' }],
		[{ column: 1, is: 'near', text: '' }],
		[{ column: 1, is: 'equal', text: 'x'.repeat(201) }]
	])('%j is refused', (filter) => {
		// prettier-ignore
		expect(filtersSchema.safeParse([filter]).success).toBe(false)
	})
	test('nor are more than twenty taken', () => {
		const one = { column: 1, is: 'blank', text: '' }
		expect(filtersSchema.safeParse(Array.from({ length: 20 }, () => one)).success).toBe(true)
		expect(filtersSchema.safeParse(Array.from({ length: 21 }, () => one)).success).toBe(false)
	})
})
