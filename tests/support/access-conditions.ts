/** Conditions of lines, made at random: each as the text of a formula, and as what it means for a row by a calculation of its own. */
import type { Random } from '../../demo/random.ts'
import { between, find, STATES, type Cell, type Condition, type Row, type World } from './access-world.ts'

/** A blank equals nothing, and a comparison with one is no; `<>` is the opposite of `=`. */
export function makeCondition(random: Random, table: string, depth: number): Condition {
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

type Leaf = (random: Random) => Condition

export const compare = (op: string, a: Cell | undefined, b: Cell | undefined): boolean => {
	const blank = a === null || a === undefined || b === null || b === undefined
	const [x, y] = [a, b].map((each) => (typeof each === 'string' ? each.toLowerCase() : each)) as [never, never]
	if (op === '<>') return blank || x !== y
	if (blank) return false
	if (op === '=') return x === y
	return op === '<' ? x < y : x >= y
}

const OPS = ['=', '<>', '<', '>='] as const

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
