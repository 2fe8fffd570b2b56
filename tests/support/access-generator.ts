/**
 * Generates access scenarios with their answers: people, roles that include others, rows, lines with random conditions,
 * and attempts at changes. The answers come from a calculation of its own, over plain objects and conditions of its own,
 * which shares no code with the program: it reads docs, not sources.
 */
import type { Scenario } from '../check-values/access.ts'
import { randomFrom, type Random } from '../../demo/random.ts'
import { makeCondition } from './access-conditions.ts'
import { closure, expectedFor, linesFor, mayAdd, mayChange, seenOf, type Judge } from './access-oracle.ts'
import {
	between,
	COLUMNS,
	NAMES,
	ROLES,
	STATES,
	TABLES,
	TODAY,
	type Cell,
	type Grant,
	type Line,
	type Person,
	type Row,
	type Rows,
	type World
} from './access-world.ts'

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
