/**
 * Who sees and may do what in a scenario: a calculation of its own over plain objects, which shares no code with the program.
 */
import type { Scenario } from '../check-values/access.ts'
import { compare } from './access-conditions.ts'
import {
	COLUMNS,
	find,
	TABLES,
	type Cell,
	type Grant,
	type Line,
	type Person,
	type Row,
	type World
} from './access-world.ts'

export interface Judge {
	readonly grants: readonly Grant[]
	readonly world: World
	readonly lines: readonly Line[]
	readonly held: (person: Person) => ReadonlySet<string>
}

export function closure(held: readonly string[], roles: readonly { name: string; includes: string[] }[]): Set<string> {
	const all = new Set(held)
	for (let more = true; more;) {
		const before = all.size
		for (const { name, includes } of roles) if (all.has(name)) for (const each of includes) all.add(each)
		more = all.size > before
	}
	return all
}

function covers({ columns }: Line, name: string): boolean {
	if (columns === 'all') return true
	return columns.only ? columns.only.includes(name) : !(columns.except ?? []).includes(name)
}

export function linesFor({ lines, held }: Judge, person: Person, verb: Line['verbs'][number], table: string): Line[] {
	return lines.filter((line) => line.table === table && line.verbs.includes(verb) && held(person).has(line.role))
}

/** The columns of a row that somebody sees; undefined where they do not see the row. */
export function seenOf(judge: Judge, person: Person, table: string, row: Row): string[] | undefined {
	const letting = linesFor(judge, person, 'see', table).filter((line) => line.where.holds(row, judge.world, person))
	const asked = judge.grants.filter((each) => isFor(each, person, table, row))
	if (letting.length === 0 && !asked.some(({ columns }) => columns.length > 0)) return undefined
	const covered = (name: string) =>
		letting.some((line) => covers(line, name)) || asked.some(({ columns }) => columns.includes(name))
	const isSeen = (name: string): boolean => covered(name) && (OPERANDS[`${table}.${name}`] ?? []).every(isSeen)
	return (COLUMNS[table] ?? []).map((column) => column.name).filter(isSeen)
}

function isFor(grant: Grant, { email }: Person, table: string, row: Row): boolean {
	return grant.email === email && grant.table === table && grant.id === row.id
}

/** What a computed column reads of its own row: where that is not seen, it is not. */
const OPERANDS: Readonly<Record<string, readonly string[]>> = {
	'moorings.deep': ['depth'],
	'moorings.alarm': ['deep', 'urgent'],
	'moorings.place': ['harbour'],
	'dives.place': ['mooring'],
	'dives.how deep': ['mooring']
}

/** What is in a cell as far as somebody sees it: blank where they do not. */
function cellFor(judge: Judge, person: Person, table: string, row: Row | undefined, name: string): Cell {
	if (!row || !(seenOf(judge, person, table, row) ?? []).includes(name)) return null
	return row[name] ?? null
}

/** The rows that point here, as far as somebody sees them and where they point. */
function pointing(judge: Judge, person: Person, table: string, column: string, to: Row): Row[] {
	return (judge.world.rows[table] ?? []).filter((row) => cellFor(judge, person, table, row, column) === to.id)
}

const sumOf = (cells: readonly Cell[]) => cells.reduce<number>((all, cell) => all + Number(cell ?? 0), 0)

const follow = (judge: Judge, person: Person, table: string, row: Row | undefined, name: string) => {
	const to = COLUMNS[table]?.find((column) => column.name === name)?.to ?? ''
	return find(judge.world, to, cellFor(judge, person, table, row, name))
}

type Shown = (judge: Judge, person: Person, row: Row) => Cell | { label: string } | { hidden: true }

/** What computed columns show to somebody who sees them, of what that person sees. */
const SHOWN: Readonly<Record<string, Shown>> = {
	'harbours.boats': (judge, person, row) => pointing(judge, person, 'moorings', 'harbour', row).length,
	'harbours.worth': (judge, person, row) =>
		sumOf(
			pointing(judge, person, 'moorings', 'harbour', row).map((each) =>
				cellFor(judge, person, 'moorings', each, 'amount')
			)
		),
	'moorings.deep': (_judge, _person, row) => compare('>=', row['depth'], 10) && row['depth'] !== 10,
	'moorings.alarm': (_judge, _person, row) => Number(row['depth'] ?? 0) > 10 && row['urgent'] === true,
	'moorings.place': (judge, person, row) =>
		cellFor(judge, person, 'harbours', follow(judge, person, 'moorings', row, 'harbour'), 'name'),
	'moorings.dived': (judge, person, row) =>
		sumOf(
			pointing(judge, person, 'dives', 'mooring', row).map((each) => cellFor(judge, person, 'dives', each, 'minutes'))
		),
	'moorings.long dives': (judge, person, row) =>
		pointing(judge, person, 'dives', 'mooring', row).filter((each) =>
			compare('>=', cellFor(judge, person, 'dives', each, 'minutes'), 30)
		).length,
	'dives.place': (judge, person, row) => {
		const mooring = follow(judge, person, 'dives', row, 'mooring')
		return cellFor(judge, person, 'harbours', follow(judge, person, 'moorings', mooring, 'harbour'), 'name')
	},
	'dives.how deep': (judge, person, row) =>
		cellFor(judge, person, 'moorings', follow(judge, person, 'dives', row, 'mooring'), 'depth')
}

/** A reference says by what its row is known, where that is seen. */
function showCell(judge: Judge, person: Person, table: string, row: Row, name: string): ReturnType<Shown> {
	const { type, to = '' } = COLUMNS[table]?.find((column) => column.name === name) ?? {}
	if (type === 'computed') return SHOWN[`${table}.${name}`]?.(judge, person, row) ?? null
	if (type !== 'reference' || row[name] === null) return row[name] ?? null
	const known = COLUMNS[to]?.[0]?.name ?? ''
	const label = cellFor(judge, person, to, find(judge.world, to, row[name]), known)
	return label === null ? { hidden: true } : { label: String(label) }
}

export function expectedFor(judge: Judge, person: Person): Scenario['expected'][string] {
	return Object.fromEntries(
		TABLES.map((table) => {
			const rows = judge.world.rows[table] ?? []
			const seen = rows.flatMap((row) => {
				const columns = seenOf(judge, person, table, row)
				return columns ? [[row, columns] as const] : []
			})
			const sum = seen.reduce(
				(all, [row, columns]) => all + (columns.includes('amount') ? Number(row['amount'] ?? 0) : 0),
				0
			)
			const cells = seen.map(([row, columns]) => [
				row.id,
				Object.fromEntries(columns.map((name) => [name, showCell(judge, person, table, row, name)]))
			])
			const all = {
				seen: Object.fromEntries(seen.map(([row, columns]) => [row.id, columns])),
				shown: Object.fromEntries(cells) as Record<string, Record<string, ReturnType<Shown>>>
			}
			return [table, table === 'moorings' ? { ...all, sumOfAmount: sum } : all]
		})
	)
}

export function mayAdd(judge: Judge, person: Person, table: string, set: Record<string, Cell>): boolean {
	const blank = Object.fromEntries((COLUMNS[table] ?? []).map((column) => [column.name, null]))
	const row: Row = { ...blank, ...set, id: 'new' }
	const world = withRow(judge.world, table, row)
	const letting = linesFor(judge, person, 'add', table).filter((line) => line.where.holds(row, world, person))
	return letting.length > 0 && Object.keys(set).every((name) => letting.some((line) => covers(line, name)))
}

export function mayChange(judge: Judge, person: Person, table: string, row: Row, set: Record<string, Cell>): boolean {
	if (seenOf(judge, person, table, row) === undefined) return false
	const after: Row = { ...row, ...set, id: row.id }
	const world = withRow(judge.world, table, after)
	const before = linesFor(judge, person, 'change', table).filter((line) => line.where.holds(row, judge.world, person))
	if (before.length === 0) return false
	// A change of nothing is none, so nothing is judged after it.
	if (Object.keys(set).length === 0) return true
	const both = before.filter((line) => (line.after ?? line.where).holds(after, world, person))
	return both.length > 0 && Object.keys(set).every((name) => both.some((line) => covers(line, name)))
}

function withRow(world: World, table: string, row: Row): World {
	const others = (world.rows[table] ?? []).filter((each) => each.id !== row.id)
	return { ...world, rows: { ...world.rows, [table]: [...others, row] } }
}
