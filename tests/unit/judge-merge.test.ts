/**
 * Which row of a file is new, changes one of the table, says the same or is left out: generated files against generated
 * tables, judged in spans of any length, against an oracle that looks at every pair.
 */
import { describe, expect, test } from 'vitest'
import type { MergeInto } from '$lib/core/exchange/plan.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { BUILDER } from '$lib/server/rights/system-roles.ts'
import { judgeStaged, judgeTable, measureMerge } from '$lib/server/sources/judge-merge.ts'
import { readComparison } from '$lib/server/sources/read-comparison.ts'
import type { Store } from '$lib/server/store/store.ts'
import { randomFrom, type Random } from '../../demo/random.ts'
import { stageCsv } from '../support/stage-csv.ts'

const NOW = Date.parse('2026-11-23T12:00:00Z')
const [BUOYS, CODE, DEPTH, STATE] = [2, 20, 21, 22]
const COLUMNS = [
	{ to: CODE, type: 'text' },
	{ to: DEPTH, type: 'whole number' },
	{ to: STATE, type: 'text' }
] as const

interface Row {
	readonly code: string
	/** Null is blank; in a file "deep" cannot be read as a number, so the table keeps what it holds. */
	readonly depth: number | 'deep' | null
	readonly state: string | null
}

/** Codes that differ in capitals alone are the same key; few of them, so that some stand more than once. */
function rowsFrom(random: Random, most: number, depths: readonly Row['depth'][]): Row[] {
	return Array.from({ length: random.below(most + 1) }, () => ({
		code: random.pick(['', ...Array.from({ length: 14 }, (_, i) => `${random.pick(['B', 'b'])}-${i}`)]),
		depth: random.pick(depths),
		state: random.pick(['lit', 'unlit', null])
	}))
}

function makeStore(rows: readonly Row[]): Store {
	const store = openScratch({
		now: NOW,
		tables: [
			{
				id: BUOYS,
				name: 'buoys',
				keepers: [KEEPER],
				label: CODE,
				columns: [
					{ id: CODE, name: 'code', type: 'text' },
					{ id: DEPTH, name: 'depth', type: 'whole number' },
					{ id: STATE, name: 'state', type: 'text' }
				]
			}
		]
	})
	store.db.prepare('INSERT INTO role_held (person, role) VALUES (?, ?)').run(KEEPER, BUILDER)
	const add = store.db.prepare(
		`INSERT INTO t2 (made_at, changed_at, c20, c20k, c21, c22, c22k) VALUES (0, 0, @code, text_key(@code), @depth, @state, text_key(@state))`
	)
	for (const row of rows) add.run({ ...row, code: row.code === '' ? null : row.code })
	return store
}

/** Undefined where a part of it is blank. */
function keyOf(row: Row, keys: readonly number[]): string | undefined {
	const parts = keys.map((key) => (key === CODE ? row.code : (row.state ?? '')))
	return parts.includes('') ? undefined : parts.join('/').toLowerCase()
}

/** What the words of the comparison mean, said once more without a database. */
function oracle({ how, keys }: Pick<MergeInto, 'how' | 'keys'>, file: readonly Row[], table: readonly Row[]) {
	const count = { added: 0, changed: 0, same: 0, missing: 0, repeated: 0, keyless: 0 }
	if (how === 'add') return { ...count, added: file.length }
	if (keys.length === 0) return { ...count, added: file.length, missing: table.length }
	for (const row of file) {
		const key = keyOf(row, keys)
		const alike = file.filter((each) => keyOf(each, keys) === key)
		const met = table.filter((each) => keyOf(each, keys) === key)
		const [there] = met
		const sameDepth = row.depth === 'deep' || row.depth === there?.depth
		if (key === undefined) count.keyless++
		else if (alike.length > 1 || met.length > 1) count.repeated++
		else if (!there) count.added++
		else if (!sameDepth || (!keys.includes(STATE) && row.state !== there.state)) count.changed++
		else count.same++
	}
	const known = new Set(file.map((row) => keyOf(row, keys)).filter((key) => key !== undefined))
	count.missing = table.filter((row) => !known.has(keyOf(row, keys) ?? '')).length
	return count
}

/** Spans of any length, in any order: what lies between two of them may be judged long before or after. */
function spans(random: Random, length: number): { from: number; to: number }[] {
	const cut: { from: number; to: number }[] = []
	for (let from = 1; from <= length;) {
		const to = Math.min(length, from + random.below(7))
		cut.push({ from, to })
		from = to + 1
	}
	return random.chance(0.5) ? cut : cut.reverse()
}

const WAYS = [
	{ how: 'update', keys: [CODE] },
	{ how: 'update', keys: [CODE, STATE] },
	{ how: 'replace', keys: [CODE] },
	{ how: 'replace', keys: [STATE, CODE] },
	{ how: 'replace', keys: [] },
	{ how: 'add', keys: [] }
] as const

describe.each(WAYS)('rows judged to $how by $keys', ({ how, keys }) => {
	test.each(Array.from({ length: 25 }, (_, seed) => seed))('as the oracle says, seed %d', async (seed) => {
		const random = randomFrom(seed)
		const table = rowsFrom(random, 12, [1, 2, null])
		const file = rowsFrom(random, 20, [1, 2, null, 'deep'])
		const store = makeStore(table)
		const lines = file.map(({ code, depth, state }) => `${code},${depth ?? ''},${state ?? ''}`)
		const text = `code,depth,state\n${lines.map((line) => `${line}\n`).join('')}`
		const into = { table: BUOYS, how, keys: [...keys] }
		const staging = await stageCsv(store, { text, columns: COLUMNS, into, person: KEEPER, now: NOW })
		const isBlank = (row: Row) => row.code === '' && row.depth === null && row.state === null
		const expected = oracle(
			into,
			file.filter((row) => !isBlank(row)),
			table
		)
		// Twice, since it is judged again before it is brought in.
		for (let time = 0; time < 2; time++) {
			const ends = measureMerge(store, staging)
			for (const span of spans(random, ends.staged)) judgeStaged(store, { ...staging, ...span })
			for (const span of spans(random, ends.table)) judgeTable(store, { ...staging, ...span })
			expect(readComparison(store, staging)).toMatchObject(expected)
		}
		store.db.close()
	})
})
