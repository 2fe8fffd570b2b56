import { z } from 'zod'
import type { Line } from '../../access/types.ts'
import { columnType } from '../../formula/check/column-type.ts'
import { checkCondition } from '../../formula/check/check.ts'
import { isSameTree, someNode } from '../../formula/syntax/walk.ts'
import type { Expr } from '../../model/formula.ts'
import { findColumn, type Table } from '../../model/table.ts'
import { checkColumns, mistake, remark, SCREEN_GONE, TABLE_GONE, type Found } from '../../document/findings.ts'
import { checkHeldName } from '../../sentence/held-kind.ts'
import { formula, id, number, words } from '../../document/parts.ts'
import { PLAIN_LINE, type Around, type LineEntry } from './entry.ts'
import { FORMS_OF_LIST } from '../../sentence/slots/all.ts'
import { isKept } from '../../query/kept.ts'
import { checkBelongs, checkDay, checkKept, checkWhom, lineParts, withWhom, WHICH_ROWS, ONCE_CHOSEN } from './parts.ts'
import type { TreeLine } from './tree.ts'
import { remarkUnseen } from './unseen.ts'

export const listSchema = z.object({
	...lineParts,
	kind: z.literal('list'),
	table: number,
	where: formula,
	/** What must hold besides, once every row is chosen that it reads as `here.NAME`; until then it is left out. */
	once: formula.default(''),
	/** The column by which rows belong to the row that the screen shows; all rows, where it is null. */
	of: number.nullable().default(null),
	/** The day on whose evening its rows are shown as they were; as they are, where it is blank. */
	asOf: formula.default(''),
	as: z.enum(FORMS_OF_LIST).nullable().default(null),
	/** By the first; by each further one where those before it are the same. */
	sort: z.array(z.object({ column: number, descending: z.boolean() })),
	/** Rows of one value stand together, under it and how many they are. */
	group: number.nullable().default(null),
	/** What each row shows: the first big, the others small. */
	columns: z.array(number),
	/** The screen that a row opens. */
	opens: id.nullable(),
	/** Columns that its reader may look for words in, and choose values of. */
	finds: z.array(number).default([]),
	filters: z.array(number).default([]),
	/** At most so many rows; all of them, page by page, where it is null. */
	limit: number.max(1_000).nullable().default(null),
	/** A yes/no column that each row has a box for, which saves at once. */
	ticks: number.nullable().default(null),
	/** Columns of numbers that are added up at the foot, over all rows that its reader sees. */
	totals: z.array(number).default([]),
	/** As a table: columns that take more room than their share, and those that take no more than they need. */
	wide: z.array(number).default([]),
	narrow: z.array(number).default([]),
	/** What is said where there is no row. */
	empty: words.default(''),
	/** What the row is called that is chosen in it, for the other lines of the screen: `here.mooring`. */
	holds: words.default('')
})
export type ListLine = z.infer<typeof listSchema> & { readonly lines: readonly TreeLine[] }

export const list: LineEntry<ListLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'list',
			about: 'Rows of a table, one under the other',
			tableKey: 'table',
			parts: withWhom(
				'List of ',
				{ key: 'table', type: 'table', title: 'a table' },
				' ',
				WHICH_ROWS,
				ONCE_CHOSEN,
				{
					...{ key: 'of', type: 'column', title: 'Only what belongs to the row that is shown, by' },
					...{ before: ', of the row that is shown, by ', clause: 'of the row that is shown, by…' }
				},
				{
					...{ key: 'asOf', type: 'formula', title: 'As it was at the end of a day' },
					...{ before: ', as it was on ', clause: 'as it was on…' }
				},
				', by ',
				{ key: 'sort', type: 'sorts', title: 'Order', empty: 'the order they came in' },
				{ key: 'group', type: 'column', title: 'Grouped by', before: ', grouped by ', clause: 'grouped by…' },
				'; each row shows ',
				{ key: 'columns', type: 'columns', title: 'columns' },
				'; a tap opens ',
				{ key: 'opens', type: 'screen', title: 'A screen', empty: 'nothing' },
				{
					...{ key: 'as', type: 'form of list', title: 'How its rows are shown' },
					...{ before: '; shown as ', clause: 'shown as…' }
				},
				{
					key: 'finds',
					type: 'columns',
					title: 'Words are looked for in',
					before: '; words are looked for in ',
					clause: 'words are looked for in…'
				},
				{
					key: 'filters',
					type: 'columns',
					title: 'Narrowed down by',
					before: '; narrowed down by ',
					clause: 'narrowed down by…'
				},
				{ key: 'ticks', type: 'column', title: 'A box to tick for', before: '; a box ticks ', clause: 'a box ticks…' },
				{ key: 'totals', type: 'columns', title: 'Added up at the foot', before: '; adds up ', clause: 'adds up…' },
				{ key: 'wide', type: 'columns', title: 'Wide columns', before: '; wide ', clause: 'wide columns…' },
				{ key: 'narrow', type: 'columns', title: 'Narrow columns', before: '; narrow ', clause: 'narrow columns…' },
				{ key: 'limit', type: 'count', title: 'How many rows at most', before: '; at most ', clause: 'at most… rows' },
				{
					key: 'empty',
					type: 'text',
					title: 'What it says where there is no row',
					before: '; empty, it says ',
					clause: 'empty, it says…'
				},
				{
					...{ key: 'holds', type: 'text', title: 'What the chosen row is called here' },
					...{ before: '; the chosen row is ', clause: 'the chosen row is…' }
				}
			)
		},
		blank: {
			...{ kind: 'list', table: null, where: '', once: '', sort: [], group: null, columns: [], opens: null },
			...{
				of: null,
				asOf: '',
				as: null,
				finds: [],
				filters: [],
				ticks: null,
				totals: [],
				wide: [],
				narrow: [],
				limit: null,
				empty: '',
				holds: '',
				who: [],
				lines: []
			}
		}
	},
	holds: ['mark', 'button', 'tally', 'put'],
	chooses: ({ holds, table }) => (holds === '' ? undefined : { name: holds, kind: { table } }),
	written: ({ ticks }) => (ticks === null ? [] : [ticks]),
	showsRow: ({ of }) => of !== null,
	order: ({ table, sort: [first] }) => first && { table, column: first.column },
	check(line, around) {
		const table = around.catalogue.tables.get(line.table)
		if (!table) return mistake(TABLE_GONE)
		return [
			...checkWhom(line, around),
			...checkColumns(line.columns, table),
			...remarkUnseen(table, around.lines),
			...(line.opens !== null && !around.hasScreen(line.opens) ? mistake(SCREEN_GONE) : []),
			...(line.sort.every(({ column }) => findColumn(table, column))
				? []
				: mistake('A column it is sorted by is gone.')),
			...checkNarrowing(line, table),
			...checkTicks(line, table),
			...checkTotals(line, table, around),
			...checkWidths(line),
			...checkHolds(line),
			...checkBelongs(line.of, table),
			...checkPast(line, table, around),
			...checkWhere(line.where, table, around),
			...checkWhere(line.once, table, around)
		]
	}
}

/** What staff narrow it down by: columns that are there, and whose values can be chosen or looked for. */
function checkNarrowing({ group, finds, filters }: ListLine, table: Table): Found[] {
	const named = [...(group === null ? [] : [group]), ...finds, ...filters]
	return named.every((column) => findColumn(table, column))
		? []
		: mistake('A column it is grouped, found or narrowed down by is gone.')
}

/** What was is looked at: it is neither changed nor grouped, and of some columns nothing is kept. */
function checkPast(line: ListLine, table: Table, around: Around): Found[] {
	if (line.asOf.trim() === '') return []
	const doing = line.ticks !== null || line.lines.some(({ kind }) => kind !== 'mark')
	const lost = line.columns.flatMap((id) => findColumn(table, id) ?? []).filter((column) => !isKept(column))
	return [
		...checkDay(line.asOf, around),
		...checkKept([line.where, line.once], table, around),
		...(doing ? mistake('Rows as they were are not changed. Take off its box, its buttons and its counts.') : []),
		...(line.group !== null || line.totals.length > 0
			? mistake('Rows as they were are neither grouped nor added up. Take that off, or show a figure.')
			: []),
		...lost.flatMap(({ name }) =>
			remark(`${name} is made of other rows, or is a file. Of a past day nothing of it is known, so it stays out.`)
		)
	]
}

function checkTicks({ ticks }: ListLine, table: Table): Found[] {
	if (ticks === null) return []
	return findColumn(table, ticks)?.type === 'yes/no' ? [] : mistake('A box ticks a yes/no column. Choose such a one.')
}

function checkTotals({ totals }: ListLine, table: Table, { catalogue }: Around): Found[] {
	const columns = totals.map((id) => findColumn(table, id))
	const isSound = columns.every((column) => column && columnType(catalogue, column).kind === 'number')
	return isSound ? [] : mistake('What is added up at the foot is no column of numbers.')
}

function checkWidths({ as, columns, wide, narrow }: ListLine): Found[] {
	const named = [...wide, ...narrow]
	if (named.length === 0) return []
	if (as !== 'a table') return remark('Columns have a width in a table only. Show the list as a table.')
	if (!named.every((id) => columns.includes(id)))
		return mistake('A column that is wide or narrow is none that each row shows.')
	return wide.some((id) => narrow.includes(id)) ? mistake('A column cannot be wide and narrow.') : []
}

function checkHolds({ holds, opens }: ListLine): Found[] {
	if (holds === '') return []
	const wrong = checkHeldName(holds)
	if (wrong.length > 0 || opens === null) return wrong
	return remark('A tap opens a screen, so no row is ever chosen here. Take one of the two off.')
}

function checkWhere(where: string, table: Table, { catalogue, lines, here }: Around): Found[] {
	if (where.trim() === '') return []
	const { expr, issues } = checkCondition(where, { catalogue, rows: [table], me: true, here })
	const hides = expr && readsMe(expr) && !isGuarded(expr, table, lines)
	return [
		...issues.flatMap(({ message }) => mistake(message)),
		...(hides
			? remark(
					'This hides rows by who looks; it does not guard them. Write the same condition as a line of access if they must not be seen.'
				)
			: [])
	]
}

/** Whether each line that lets rows be seen asks at least what the list does, as far as the texts tell. */
function isGuarded(expr: Expr, table: Table, lines: readonly Line[]): boolean {
	const asked = partsOfAnd(expr)
	const seeing = lines.filter((line) => line.table === table.id && line.verbs.includes('see'))
	return seeing.every((line) => {
		const has = partsOfAnd(line.where)
		return asked.filter(readsMe).every((part) => has.some((each) => isSameTree(each, part)))
	})
}

function partsOfAnd(expr: Expr): readonly Expr[] {
	return expr.kind === 'and' ? expr.args.flatMap(partsOfAnd) : [expr]
}

/** Also by way of a named condition or another computed column. */
function readsMe(expr: Expr): boolean {
	return someNode(
		expr,
		(node) =>
			node.kind === 'me' ||
			(node.kind === 'field' && node.column.computed !== undefined && readsMe(node.column.computed.expr))
	)
}
