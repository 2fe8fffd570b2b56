/**
 * Generates access scenarios with their answers: people, roles that include others, rows, lines with random conditions,
 * and attempts at changes. The answers come from a calculation of its own, over plain objects and conditions of its own,
 * which shares no code with the program: it reads docs, not sources.
 */
import type { Scenario } from '$lib/server/check-values/access.ts'
import { randomFrom, type Random } from '../../demo/random.ts'

type Cell = string | number | boolean | null
type Row = { readonly id: string } & Readonly<Record<string, Cell>>
type Rows = Readonly<Record<string, readonly Row[]>>

/** A condition, as the formula's text and as what it means for a row. */
interface Condition {
	readonly text: string
	readonly holds: (row: Row, world: World, me: Person) => boolean
}

interface World {
	readonly rows: Rows
	readonly today: string
}

interface Person {
	readonly email: string
	readonly attrs: Readonly<Record<string, Cell>>
	readonly roles: string[]
}

interface Line {
	readonly role: string
	readonly table: string
	readonly verbs: ('see' | 'add' | 'change' | 'remove')[]
	readonly columns: 'all' | { only?: string[]; except?: string[] }
	readonly where: Condition
	readonly after: Condition | undefined
}

const TODAY = '2026-11-24'
const NAMES = ['Varrow Quay', 'Ness Hythe', 'Gull Stair', 'Orrin Slip']
const STATES = ['sound', 'watch', 'replace']
const COLUMNS: Readonly<Record<string, Scenario['tables'][string]['columns']>> = {
	harbours: [
		{ name: 'name', type: 'text' },
		{ name: 'berths', type: 'number' },
		{ name: 'boats', type: 'computed', formula: 'COUNT(moorings)' },
		{ name: 'worth', type: 'computed', formula: 'SUM(moorings.amount)' }
	],
	moorings: [
		{ name: 'code', type: 'text' },
		{ name: 'harbour', type: 'reference', to: 'harbours' },
		{ name: 'depth', type: 'number' },
		{ name: 'state', type: 'choice', choices: STATES },
		{ name: 'due', type: 'date' },
		{ name: 'urgent', type: 'yesno' },
		{ name: 'amount', type: 'number' },
		{ name: 'deep', type: 'computed', formula: 'depth > 10' },
		{ name: 'alarm', type: 'computed', formula: 'deep and urgent' },
		{ name: 'place', type: 'computed', formula: 'harbour.name' },
		{ name: 'dived', type: 'computed', formula: 'SUM(dives.minutes)' },
		{ name: 'long dives', type: 'computed', formula: 'COUNT(FILTER(dives; minutes >= 30))' }
	],
	dives: [
		{ name: 'title', type: 'text' },
		{ name: 'mooring', type: 'reference', to: 'moorings' },
		{ name: 'minutes', type: 'number' },
		{ name: 'diver', type: 'text' },
		{ name: 'place', type: 'computed', formula: 'mooring.harbour.name' },
		{ name: 'how deep', type: 'computed', formula: 'mooring.depth' }
	]
}
const TABLES = Object.keys(COLUMNS)
const ROLES = ['clerk', 'diver', 'master', 'visitor'] as const

export function generateScenario(seed: number): Scenario {
	const random = randomFrom(seed)
	const world: World = { rows: makeRows(random), today: TODAY }
	const roles = ROLES.map((name, i) => ({ name, includes: i > 0 && random.chance(0.3) ? [ROLES[i - 1] ?? ''] : [] }))
	const people = Array.from({ length: 4 }, (_person, i): Person => ({
		email: `person${i}@varrow.example`,
		attrs: {
			home: random.chance(0.85) ? random.pick(NAMES) : null,
			grade: random.chance(0.85) ? between(random, 1, 5) : null
		},
		roles: ROLES.filter(() => random.chance(0.4))
	}))
	const lines = Array.from({ length: between(random, 2, 9) }, () => makeLine(random))
	const held = (person: Person) => closure(person.roles, roles)
	const grants = Array.from({ length: between(random, 0, 3) }, () => makeGrant(random, world, random.pick(people)))
	const judge: Judge = { world, lines, held, grants }
	return {
		id: `seed ${seed}`,
		today: TODAY,
		tables: Object.fromEntries(
			TABLES.map((name) => [name, { columns: COLUMNS[name] ?? [], rows: [...(world.rows[name] ?? [])] }])
		),
		roles,
		grants,
		attrTypes: { home: 'text', grade: 'number' },
		people: people.map((person) => ({ ...person, attrs: { ...person.attrs } })),
		lines: lines.map(({ where, after, ...line }) => ({
			...line,
			whereText: where.text,
			...(after ? { afterText: after.text } : {})
		})),
		expected: Object.fromEntries(people.map((person) => [person.email, expectedFor(judge, person)])),
		attempts: Array.from({ length: 12 }, () => makeAttempt(random, judge, random.pick(people)))
	}
}

function makeRows(random: Random): Rows {
	const harbours = NAMES.map((name, i): Row => ({
		id: `h${i}`,
		name,
		berths: random.chance(0.8) ? between(random, 5, 90) : null
	}))
	const moorings = Array.from({ length: 9 }, (_row, i): Row => ({
		id: `m${i}`,
		code: `M-${i}`,
		harbour: random.chance(0.85) ? random.pick(harbours).id : null,
		depth: random.chance(0.85) ? between(random, 1, 20) : null,
		state: random.chance(0.85) ? random.pick(STATES) : null,
		due: random.chance(0.85) ? `2026-${random.pick(['10', '11', '12'])}-${random.pick(['05', '24', '28'])}` : null,
		urgent: random.chance(0.8) ? random.chance(0.5) : null,
		amount: random.chance(0.8) ? between(random, 0, 500) : null
	}))
	const dives = Array.from({ length: 14 }, (_row, i): Row => ({
		id: `d${i}`,
		title: `Dive ${i}`,
		mooring: random.chance(0.9) ? random.pick(moorings).id : null,
		minutes: random.chance(0.85) ? between(random, 5, 60) : null,
		diver: random.chance(0.85) ? `person${between(random, 0, 3)}@varrow.example` : null
	}))
	return { harbours, moorings, dives }
}

/** Somebody was asked to decide about a row, and shown some of its columns. */
function makeGrant(random: Random, world: World, { email }: Person): Grant {
	const table = random.pick(TABLES)
	const columns = (COLUMNS[table] ?? []).map(({ name }) => name).filter(() => random.chance(0.4))
	return { email, table, id: random.pick(world.rows[table] ?? []).id, columns }
}

function makeLine(random: Random): Line {
	const table = random.pick(TABLES)
	const names = (COLUMNS[table] ?? []).map((column) => column.name)
	const some = names.filter(() => random.chance(0.6))
	const verbs = (['see', 'add', 'change', 'remove'] as const).filter((verb) =>
		random.chance(verb === 'see' ? 0.75 : 0.4)
	)
	return {
		role: random.pick(ROLES),
		table,
		verbs: verbs.length > 0 ? verbs : ['see'],
		columns: random.chance(0.5) ? 'all' : random.chance(0.5) ? { only: some } : { except: some },
		where: makeCondition(random, table, 2),
		after: random.chance(0.2) ? makeCondition(random, table, 1) : undefined
	}
}

/** A blank equals nothing, and a comparison with one is no; `<>` is the opposite of `=`. */
function makeCondition(random: Random, table: string, depth: number): Condition {
	if (random.chance(0.12)) return { text: '', holds: () => true }
	if (depth > 0 && random.chance(0.5)) return combine(random, table, depth)
	return random.pick(LEAVES[table] ?? [])(random)
}

function combine(random: Random, table: string, depth: number): Condition {
	const part = (): Condition => {
		const made = makeCondition(random, table, depth - 1)
		return made.text === '' ? { text: 'TRUE', holds: () => true } : made
	}
	const [a, b] = [part(), part()]
	const how = random.pick(['and', 'or', 'not'] as const)
	if (how === 'not') return { text: `not (${a.text})`, holds: (...of) => !a.holds(...of) }
	if (how === 'and') return { text: `(${a.text}) and (${b.text})`, holds: (...of) => a.holds(...of) && b.holds(...of) }
	return { text: `(${a.text}) or (${b.text})`, holds: (...of) => a.holds(...of) || b.holds(...of) }
}

/** A whole number, both ends among them. */
function between(random: Random, least: number, most: number): number {
	return least + random.below(most - least + 1)
}

type Leaf = (random: Random) => Condition

const compare = (op: string, a: Cell | undefined, b: Cell | undefined): boolean => {
	const blank = a === null || a === undefined || b === null || b === undefined
	const [x, y] = [a, b].map((each) => (typeof each === 'string' ? each.toLowerCase() : each)) as [never, never]
	if (op === '<>') return blank || x !== y
	if (blank) return false
	if (op === '=') return x === y
	return op === '<' ? x < y : x >= y
}

const OPS = ['=', '<>', '<', '>='] as const
const find = (world: World, table: string, id: Cell | undefined) => world.rows[table]?.find((row) => row.id === id)
const divesOf = (world: World, row: Row) => (world.rows['dives'] ?? []).filter((dive) => dive['mooring'] === row.id)

const number =
	(column: string, most: number): Leaf =>
	(random) => {
		const [op, value] = [random.pick(OPS), between(random, 1, most)]
		return { text: `${column} ${op} ${value}`, holds: (row) => compare(op, row[column], value) }
	}

const blankness =
	(column: string): Leaf =>
	() => ({ text: `ISBLANK(${column})`, holds: (row) => row[column] === null })

const LEAVES: Readonly<Record<string, readonly Leaf[]>> = {
	harbours: [
		number('berths', 90),
		() => ({ text: 'name = me.home', holds: (row, _world, me) => compare('=', row['name'], me.attrs['home']) }),
		(random) => {
			const count = between(random, 0, 4)
			const of = (world: World, row: Row) =>
				(world.rows['moorings'] ?? []).filter((each) => each['harbour'] === row.id).length
			return { text: `COUNT(moorings) >= ${count}`, holds: (row, world) => of(world, row) >= count }
		}
	],
	moorings: [
		number('depth', 20),
		number('amount', 400),
		blankness('state'),
		() => ({ text: 'urgent', holds: (row) => row['urgent'] === true }),
		() => ({ text: 'due < TODAY()', holds: (row, world) => compare('<', row['due'], world.today) }),
		(random) => {
			const state = random.pick(STATES)
			// Text is compared without regard to case.
			return { text: `state = "${state.toUpperCase()}"`, holds: (row) => compare('=', row['state'], state) }
		},
		() => ({
			text: 'harbour.name = me.home',
			holds: (row, world, me) => compare('=', find(world, 'harbours', row['harbour'])?.['name'], me.attrs['home'])
		}),
		() => ({
			text: 'depth < me.grade * 3',
			holds: (row, _world, me) => compare('<', row['depth'], Number(me.attrs['grade'] ?? 0) * 3)
		}),
		(random) => {
			const [minutes, count] = [between(random, 5, 60), between(random, 1, 3)]
			const long = (world: World, row: Row) =>
				divesOf(world, row).filter((dive) => compare('>=', dive['minutes'], minutes))
			return {
				text: `COUNT(FILTER(dives; minutes >= ${minutes})) >= ${count}`,
				holds: (row, world) => long(world, row).length >= count
			}
		}
	],
	dives: [
		number('minutes', 60),
		blankness('mooring'),
		() => ({ text: 'diver = me.email', holds: (row, _world, me) => compare('=', row['diver'], me.email) }),
		() => ({
			text: 'mooring.harbour.name = me.home',
			holds: (row, world, me) => {
				const mooring = find(world, 'moorings', row['mooring'])
				return compare('=', find(world, 'harbours', mooring?.['harbour'])?.['name'], me.attrs['home'])
			}
		}),
		(random) => {
			const depth = between(random, 1, 20)
			return {
				text: `mooring.depth >= ${depth}`,
				holds: (row, world) => compare('>=', find(world, 'moorings', row['mooring'])?.['depth'], depth)
			}
		}
	]
}

interface Grant {
	readonly email: string
	readonly table: string
	readonly id: string
	readonly columns: string[]
}

interface Judge {
	readonly grants: readonly Grant[]
	readonly world: World
	readonly lines: readonly Line[]
	readonly held: (person: Person) => ReadonlySet<string>
}

function closure(held: readonly string[], roles: readonly { name: string; includes: string[] }[]): Set<string> {
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

function linesFor({ lines, held }: Judge, person: Person, verb: Line['verbs'][number], table: string): Line[] {
	return lines.filter((line) => line.table === table && line.verbs.includes(verb) && held(person).has(line.role))
}

/** The columns of a row that somebody sees; undefined where they do not see the row. */
function seenOf(judge: Judge, person: Person, table: string, row: Row): string[] | undefined {
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

type Shown = (judge: Judge, person: Person, row: Row) => Cell | { label: string } | { hidden: true }

const sumOf = (cells: readonly Cell[]) => cells.reduce<number>((all, cell) => all + Number(cell ?? 0), 0)
const follow = (judge: Judge, person: Person, table: string, row: Row | undefined, name: string) => {
	const to = COLUMNS[table]?.find((column) => column.name === name)?.to ?? ''
	return find(judge.world, to, cellFor(judge, person, table, row, name))
}

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

function expectedFor(judge: Judge, person: Person): Scenario['expected'][string] {
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

function makeAttempt(random: Random, judge: Judge, person: Person): Scenario['attempts'][number] {
	const table = random.pick(TABLES)
	const verb = random.pick(['add', 'change', 'change', 'remove'] as const)
	const row = random.pick(judge.world.rows[table] ?? [])
	if (verb === 'remove') {
		const may = linesFor(judge, person, verb, table).some((line) => line.where.holds(row, judge.world, person))
		return {
			email: person.email,
			verb,
			table,
			id: row.id,
			allowed: seenOf(judge, person, table, row) !== undefined && may
		}
	}
	const names = (COLUMNS[table] ?? [])
		.map((column) => column.name)
		.filter(() => random.chance(verb === 'add' ? 0.6 : 0.3))
	const set = Object.fromEntries((names.length > 0 ? names : ['']).flatMap((name) => valueFor(random, table, name)))
	const allowed = verb === 'add' ? mayAdd(judge, person, table, set) : mayChange(judge, person, table, row, set)
	return { email: person.email, verb, table, ...(verb === 'add' ? {} : { id: row.id }), set, allowed }
}

function valueFor(random: Random, table: string, name: string): [string, Cell][] {
	const type = COLUMNS[table]?.find((column) => column.name === name)?.type
	if (type === 'text')
		return [[name, name === 'diver' ? `person${between(random, 0, 3)}@varrow.example` : `New ${between(random, 1, 9)}`]]
	if (type === 'number') return [[name, between(random, 0, 60)]]
	if (type === 'yesno') return [[name, random.chance(0.5)]]
	if (type === 'date') return [[name, '2026-11-05']]
	if (type === 'choice') return [[name, random.pick(STATES)]]
	// References are set to blank only here: setting one to a row that is not seen is a case of its own.
	return type === 'reference' ? [[name, null]] : []
}

function mayAdd(judge: Judge, person: Person, table: string, set: Record<string, Cell>): boolean {
	const blank = Object.fromEntries((COLUMNS[table] ?? []).map((column) => [column.name, null]))
	const row: Row = { ...blank, ...set, id: 'new' }
	const world = withRow(judge.world, table, row)
	const letting = linesFor(judge, person, 'add', table).filter((line) => line.where.holds(row, world, person))
	return letting.length > 0 && Object.keys(set).every((name) => letting.some((line) => covers(line, name)))
}

function mayChange(judge: Judge, person: Person, table: string, row: Row, set: Record<string, Cell>): boolean {
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
