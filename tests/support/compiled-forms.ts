/** The SQL that a formula comes to, as text with its parameters in it, for somebody who sees all and for somebody who does not. */
import { check, checkCondition } from '$lib/core/formula/check/check.ts'
import { fold, type Moment } from '$lib/core/formula/evaluate/fold.ts'
import { compileCondition, compileError, compileValue } from '$lib/core/formula/sql/compile.ts'
import { newContext, type Visibility } from '$lib/core/formula/sql/sql-context.ts'
import { getTable } from '$lib/core/model/table.ts'
import type { Sql } from '$lib/core/sql/sql.ts'
import { buildWorkspace } from '$lib/core/workspace/catalogue.ts'
import { WORKSPACE_FORMAT, type ColumnEntry } from '$lib/core/workspace/document.ts'
import { BASES, FORMULA_TABLES, ITEMS, KIDS } from './formula-tables.ts'

const PEOPLE = 1
const moment: Moment = { today: '2026-11-23', now: '2026-11-23T12:00:00.000Z' }

const computed = (id: number, name: string, formula: string): ColumnEntry => ({ id, name, type: 'computed', formula })
/** Kinds of column that the tables of formulas have no need of: worked out for each reader, vouched, with files. */
const MORE: ColumnEntry[] = [
	computed(50, 'late', 'd < TODAY()'),
	{ ...computed(51, 'half fee', 'base.fee / 2'), vouched: true },
	{ id: 52, name: 'photo', type: 'photo' },
	computed(53, 'shown', 'base.name & t'),
	computed(54, 'spent', 'SUM(kids.cost)'),
	computed(55, 'mean', 'AVERAGE(kids.cost)'),
	computed(56, 'costs', 'base.fee / a'),
	{ id: 57, name: 'free', type: 'choice', choices: [] },
	{ id: 58, name: 'share', type: 'percent', places: 1 },
	{ id: 59, name: 'boss', type: 'reference', to: PEOPLE },
	computed(60, 'last', 'MAX(kids.kd)'),
	computed(61, 'many', 'COUNT(kids)'),
	computed(62, 'least', 'MIN(kids.cost)'),
	{ id: 64, name: 'fine', type: 'decimal', places: 6 },
	{ id: 65, name: 'finest', type: 'decimal', places: 7 },
	{ ...computed(63, 'all spent', 'SUM(kids.cost)'), vouched: true }
]

const { catalogue } = buildWorkspace({
	format: WORKSPACE_FORMAT,
	name: 'Forms',
	timeZone: 'UTC',
	people: PEOPLE,
	tables: [
		{
			...{ id: PEOPLE, name: 'people', keepers: [1], label: 1 },
			columns: [
				{ id: 1, name: 'name', type: 'text' },
				{ id: 2, name: 'email', type: 'email', unique: true },
				{ id: 3, name: 'post', type: 'reference', to: BASES, reverseName: 'staff' },
				computed(4, 'rate', 'post.fee / post.size')
			]
		},
		...FORMULA_TABLES.map((table) => (table.id === ITEMS ? { ...table, columns: [...table.columns, ...MORE] } : table))
	],
	roles: [{ id: 10, name: 'Keepers of kids', includes: [] }],
	// What a total is kept of value by value follows from the lines.
	lines: [{ id: 'own', table: KIDS, role: 10, verbs: ['see'], where: 'kt = me.name', columns: { kind: 'all' } }]
})

/** What each reader sees, as conditions over a row of the table; what is not named is seen always. */
const READERS: Readonly<
	Record<
		'all' | 'some' | 'parent' | 'own' | 'themselves',
		{ rows: Record<number, string>; cells: Record<number, string> }
	>
> = {
	all: { rows: {}, cells: {} },
	some: {
		rows: { [KIDS]: 'of.w > 1', [BASES]: 'open' },
		cells: { 24: 'y', 20: 'w > 0', 31: 'w > 2', 27: 'y', 28: 'w = 1', 26: 'y', 43: 'ky', 10: 'size > 1', 40: 'k > 0' }
	},
	/** Children of some rows, all or none; children that hold one value. */
	parent: { rows: { [KIDS]: 'of.y' }, cells: {} },
	own: { rows: { [KIDS]: 'kt = "Ness Hythe"' }, cells: {} },
	/** Somebody who is in the tables themselves; the others are nobody there. */
	themselves: { rows: {}, cells: {} }
}
export type FormReader = keyof typeof READERS

function visibilityOf(reader: FormReader): Visibility | undefined {
	if (reader === 'all' || reader === 'themselves') return undefined
	const { rows, cells } = READERS[reader]
	const condition = (table: number, text: string) => {
		const { expr, issues } = checkCondition(text, { catalogue, rows: [getTable(catalogue, table)], me: false })
		if (!expr) throw new Error(`${text}: ${issues[0]?.message}`)
		return fold(expr, moment)
	}
	return {
		rows: (table) => condition(table.id, rows[table.id] ?? 'true'),
		cell: (table, column) => condition(table.id, cells[column.id] ?? 'true')
	}
}

/** `condition`, where the formula is one, `value` and `error`, a line each. */
export function formsOf(formula: string, reader: FormReader): string {
	const { expr, issues } = check(formula, { catalogue, rows: [getTable(catalogue, ITEMS)], me: true })
	if (!expr) throw new Error(`${formula}: ${issues[0]?.message}`)
	const now = reader === 'themselves' ? { ...moment, me: { n: 7, value: () => null } } : moment
	const folded = fold(expr, now)
	const ctx = () => newContext('r', now, visibilityOf(reader))
	const error = compileError(folded, ctx())
	return [
		`${formula}   · ${reader}`,
		...(expr.type.kind === 'yesno' ? [`  where ${textOf(compileCondition(folded, ctx()))}`] : []),
		`  value ${textOf(compileValue(folded, ctx()))}`,
		`  error ${error ? textOf(error) : 'none'}`
	].join('\n')
}

function textOf({ text, params }: Sql): string {
	const [first = '', ...rest] = text.split('?')
	return rest.reduce((all, part, i) => all + shown(params[i]) + part, first)
}

function shown(value: unknown): string {
	if (value === null) return 'NULL'
	if (typeof value === 'bigint') return String(value)
	return typeof value === 'number' ? `${Number.isInteger(value) ? value.toFixed(1) : value}` : `'${String(value)}'`
}
