/** Lines over a small harbour, judged by themselves: what decides, what is proposed, what two people see together. */
import { describe, expect, test } from 'vitest'
import { printText } from '../sentence/print.ts'
import type { Vocabulary } from '../sentence/vocabulary.ts'
import { getTable } from '../model/table.ts'
import { buildWorkspace, type Workspace } from '../workspace/catalogue.ts'
import { WORKSPACE_FORMAT, type LineEntry, type TableEntry } from '../workspace/document.ts'
import { columnsComparedWithMe, decidingColumns } from './deciding.ts'
import { proposeLines } from './propose.ts'
import { EVERYTHING, NOTHING, rightsOf, withinVisibilityOf, type Reader, type Rights } from './rights.ts'
import { ACCESS_LINE } from '../sentence/access-line.ts'
import { closeRoles, covers } from './types.ts'

const [PEOPLE, HARBOURS, MOORINGS, KEEPER, DIVERS] = [1, 2, 3, 90, 7]

const TABLES: TableEntry[] = [
	{
		...{ id: PEOPLE, name: 'people', keepers: [], label: 10 },
		columns: [
			{ id: 10, name: 'name', type: 'text' },
			{ id: 11, name: 'email', type: 'email' },
			{ id: 12, name: 'harbour', type: 'reference', to: HARBOURS },
			{ id: 13, name: 'grade', type: 'whole number' },
			{ id: 14, name: 'senior', type: 'computed', formula: 'grade > 3' }
		]
	},
	{ ...{ id: HARBOURS, name: 'harbours', keepers: [], label: 20 }, columns: [{ id: 20, name: 'name', type: 'text' }] },
	{
		...{ id: MOORINGS, name: 'moorings', keepers: [KEEPER], label: 30 },
		columns: [
			{ id: 30, name: 'code', type: 'code' },
			{ id: 31, name: 'harbour', type: 'reference', to: HARBOURS },
			{ id: 32, name: 'keeper', type: 'email' },
			{ id: 33, name: 'diver', type: 'reference', to: PEOPLE },
			{ id: 34, name: 'state', type: 'choice', choices: ['sound', 'worn'] },
			{ id: 35, name: 'depth', type: 'decimal' },
			{ id: 36, name: 'shout', type: 'computed', formula: 'UPPER(code)' }
		]
	}
]

function line(where: string, more: Partial<LineEntry> = {}): LineEntry {
	return { id: where, table: MOORINGS, role: DIVERS, verbs: ['see'], where, columns: { kind: 'all' }, ...more }
}

function workspaceOf(lines: LineEntry[], tables = TABLES): Workspace {
	const roles = [{ id: DIVERS, name: 'Divers', includes: [] }]
	const head = { format: WORKSPACE_FORMAT, name: 'Harbour', timeZone: 'UTC', people: PEOPLE } as const
	const built = buildWorkspace({ ...head, tables, roles, lines })
	expect(built.issues).toEqual([])
	return built
}

describe('columns that lines compare with whoever looks', () => {
	const compared = (...lines: LineEntry[]) => {
		const built = workspaceOf(lines)
		return columnsComparedWithMe(getTable(built.catalogue, MOORINGS), built.lines).map(({ name }) => name)
	}

	test.each<[where: string, found: string[]]>([
		['keeper = me.email', ['keeper']],
		['me.email = keeper', ['keeper']],
		['diver = me', ['diver']],
		['harbour = me.harbour', ['harbour']],
		['depth > 3 and keeper = me.email', ['keeper']],
		['keeper = me.email or diver = me', ['keeper', 'diver']],
		['keeper = me.email and keeper = me.email', ['keeper']],
		// Another's column, another comparison, and what nobody's row is compared with.
		['harbour.name = me.name', []],
		['keeper <> me.email', []],
		['depth >= me.grade', []],
		['keeper = "x@brig.example"', []],
		['code = code', []],
		// What is worked out is in no index, and a choice lies there as a number.
		['shout = me.name', []],
		['state = me.name', []],
		['depth = me.grade', []]
	])('%s', (where, found) => {
		expect(compared(line(where))).toEqual(found)
	})

	test('of lines that let people see rows of this table alone', () => {
		expect(compared(line('keeper = me.email', { verbs: ['change'] }))).toEqual([])
		expect(compared(line('name = me.name', { table: HARBOURS }))).toEqual([])
	})
})

test('columns that decide are found through computed ones and references, in conditions before and after', () => {
	const { lines, roles } = workspaceOf([
		line('me.senior and harbour.name = "Ness"', { verbs: ['see', 'change'], after: 'state = "sound"' })
	])
	const found = decidingColumns(lines, roles).map(({ table, column }) => `${table.name}.${column.name}`)
	expect(found.sort()).toEqual(['harbours.name', 'moorings.harbour', 'moorings.state', 'people.grade'])
})

describe('lines for a table that has none', () => {
	const proposed = (tables = TABLES) => {
		const { catalogue } = workspaceOf([], tables)
		return proposeLines(getTable(catalogue, MOORINGS), catalogue).map(({ says, where, asksRole }) => [
			says,
			where,
			asksRole
		])
	}
	const EVERY_ROW = ['Every row, for a role of your choice', '', true]
	const withColumns = (table: number, change: (columns: TableEntry['columns']) => TableEntry['columns']) =>
		TABLES.map((each) => (each.id === table ? { ...each, columns: change(each.columns) } : each))

	test('come from addresses, from references to people and from what people point to as well; last, every row', () => {
		expect(proposed()).toEqual([
			['The rows of their harbour', 'harbour = me.harbour', false],
			['Their own rows, by keeper', 'keeper = me.email', false],
			['Their own rows, by diver', 'diver = me', false],
			EVERY_ROW
		])
	})

	test('are three of them at most, with every row', () => {
		const more = withColumns(MOORINGS, (columns) => [
			...columns,
			{ id: 40, name: 'second', type: 'reference', to: PEOPLE }
		])
		expect(proposed(more)).toHaveLength(4)
		expect(proposed(more).at(-1)).toEqual(EVERY_ROW)
	})

	test('are only every row where people have no address, and point nowhere that these rows do', () => {
		const bare = withColumns(PEOPLE, (columns) => columns.filter(({ type }) => type === 'text'))
		const rows = bare.map((each) =>
			each.id === MOORINGS ? { ...each, columns: each.columns.filter(({ name }) => name !== 'diver') } : each
		)
		expect(proposed(rows)).toEqual([EVERY_ROW])
		const elsewhere = withColumns(PEOPLE, (columns) =>
			columns.map((column) => (column.name === 'harbour' ? { ...column, to: PEOPLE } : column))
		)
		expect(proposed(elsewhere).map(([says]) => says)).not.toContain('The rows of their harbour')
	})
})

describe('what somebody may do', () => {
	const reader = (more: Partial<Reader> = {}): Reader => ({
		...{ person: 5, roles: new Set([DIVERS]), grants: new Set<number>(), keeps: () => false },
		...more
	})
	const rights = (lines: LineEntry[], of = reader()): Rights =>
		rightsOf(of, workspaceOf(lines).lines, { today: '2026-11-28', now: '2026-11-28T12:00:00Z' })
	const { catalogue } = workspaceOf([])
	const moorings = getTable(catalogue, MOORINGS)
	const [code, , keeper] = moorings.columns
	if (!code || !keeper) throw new Error('Expected columns')

	test('is possible where a line has the verb and covers the column, and nowhere without', () => {
		const some = rights([line('depth > 3', { columns: { kind: 'only', columns: [30] } })])
		expect(some.mayPossibly('see', moorings)).toBe(true)
		expect(some.mayPossibly('see', moorings, code)).toBe(true)
		expect(some.mayPossibly('see', moorings, keeper)).toBe(false)
		expect(some.mayPossibly('change', moorings)).toBe(false)
		expect(rights([line('FALSE')]).mayPossibly('see', moorings)).toBe(false)
	})

	test('is nothing without a line, or with one of a role that is not held', () => {
		expect(rights([]).rows(moorings)).toEqual(NOTHING)
		expect(rights([]).cell(moorings, code)).toEqual(NOTHING)
		expect(rights([line('')], reader({ roles: new Set() })).rows(moorings)).toEqual(NOTHING)
	})

	test('is everything with a line for every row, or for who keeps the table', () => {
		expect(rights([line('')]).rows(moorings)).toEqual(EVERYTHING)
		expect(rights([], reader({ keeps: () => true })).rows(moorings)).toEqual(EVERYTHING)
		expect(rights([line('depth > 3'), line('')]).rows(moorings)).toEqual(EVERYTHING)
	})

	test('of one line is its condition, of several any of theirs', () => {
		expect(rights([line('depth > 3')]).rows(moorings).kind).toBe('compare')
		expect(rights([line('depth > 3'), line('FALSE')]).rows(moorings).kind).toBe('compare')
		expect(rights([line('depth > 3'), line('state = "worn"')]).rows(moorings)).toMatchObject({
			...{ kind: 'or', type: { kind: 'yesno' } },
			args: [{ kind: 'compare' }, { kind: 'compare' }]
		})
	})

	test('of a cell is where a covering line holds: always, where every line covers it', () => {
		const both = [line('depth > 3', { columns: { kind: 'except', columns: [32] } }), line('state = "worn"')]
		expect(rights(both).cell(moorings, code)).toEqual(EVERYTHING)
		expect(rights(both).cell(moorings, keeper).kind).toBe('compare')
	})

	test('of two together is what both see; of a table that one of them keeps, what the other does', () => {
		const [mine, theirs] = [
			rights([line('depth > 3')]),
			rights([line('state = "worn"', { columns: { kind: 'except', columns: [32] } })])
		]
		const together = withinVisibilityOf(mine, theirs, () => false)
		expect(together.rows(moorings)).toMatchObject({ kind: 'and', args: [{ kind: 'compare' }, { kind: 'compare' }] })
		expect(together.cell(moorings, code)).toEqual(EVERYTHING)
		expect(together.cell(moorings, keeper)).toEqual(NOTHING)
		const kept = withinVisibilityOf(mine, theirs, () => true)
		expect(kept.rows(moorings)).toEqual(mine.rows(moorings))
		expect(kept.cell(moorings, keeper)).toEqual(EVERYTHING)
		// One sees all of it: what the other sees is left, and a cell of it only in rows that both see.
		const all = rights([line('')])
		expect(withinVisibilityOf(all, theirs, () => false).rows(moorings)).toEqual(theirs.rows(moorings))
		const part = rights([line('depth > 3', { columns: { kind: 'only', columns: [30] } }), line('state = "worn"')])
		expect(withinVisibilityOf(part, all, () => false).cell(moorings, keeper)).toMatchObject({ kind: 'and' })
	})
})

describe('the words of a line', () => {
	const vocabulary = {
		roles: [{ id: DIVERS, name: 'divers' }],
		tables: [{ id: MOORINGS, name: 'moorings', columns: [{ id: 30, name: 'code', type: 'code' }] }]
	} as unknown as Vocabulary
	const says = (value: object) => printText(ACCESS_LINE.kind, { ...ACCESS_LINE.blank, ...value }, vocabulary, MOORINGS)

	test('say who may do what with which rows, and what must hold after a change where there can be one', () => {
		expect(says({})).toBe('a role may see every row, all columns')
		expect(says({ role: DIVERS, where: 'depth > 3' })).toBe('divers may see rows where depth > 3, all columns')
		expect(says({ role: DIVERS, verbs: ['see', 'change'] })).toBe(
			'divers may see and change every row, all columns; after a change the same holds'
		)
		expect(says({ role: DIVERS, columns: { kind: 'only', columns: [30] } })).toBe('divers may see every row, only code')
	})
})

test('a line covers all columns, only some, or all but some', () => {
	const covered = (scope: Parameters<typeof covers>[0]) => [30, 31].map((column) => covers(scope, column))
	expect(covered({ kind: 'all' })).toEqual([true, true])
	expect(covered({ kind: 'only', columns: [30] })).toEqual([true, false])
	expect(covered({ kind: 'except', columns: [30] })).toEqual([false, true])
})

test('roles are held with all that they include, in circles too', () => {
	const roles = [
		{ id: 1, includes: [2] },
		{ id: 2, includes: [3, 1] },
		{ id: 4, includes: [] }
	]
	expect([...closeRoles([1], roles)].sort()).toEqual([1, 2, 3])
	expect([...closeRoles([], roles)]).toEqual([])
})
