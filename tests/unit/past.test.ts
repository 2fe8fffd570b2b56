/**
 * Rows as they were on a past day, against what each person really read through the door on the evening of that day: of it as
 * much must come as they see today, and nothing else.
 */
import { beforeAll, describe, expect, test } from 'vitest'
import { checkApp } from '$lib/core/app/check-app.ts'
import type { ScreenInput } from '$lib/core/app/document.ts'
import { cellKey, type WireRow } from '$lib/core/query/wire.ts'
import { openScreen, readList } from '$lib/server/apps/open-screen.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readRows } from '$lib/server/rows/read.ts'
import { readPast, readPastValues, type PastRequest } from '$lib/server/rows/read-past.ts'
import type { Store } from '$lib/server/store/store.ts'
import { accessLine } from '../support/access-line.ts'
import { documentOf } from '../support/ports.ts'
import { openScratch, KEEPER } from '../support/scratch-store.ts'

const [PORTS, NAME] = [2, 20]
const [BUOYS, CODE, PORT, STATE, COST, NOTE, DOUBLE, NEAR, LIFTS, AGE] = [3, 30, 31, 32, 33, 34, 35, 36, 37, 38]
const [CREW, BOSSES] = [10, 11]
const [IMKE, BO, NOBODY] = [2, 3, 4]
const STATES = ['Sound', 'Watch', 'Lifted']
const ZONE = 'Pacific/Auckland'
/** Noon in Auckland, a day after the other. */
const noonOf = (day: number) => Date.UTC(2026, 9, day, 23)
const dateOf = (day: number) => new Date(noonOf(day) + 13 * 3_600_000).toISOString().slice(0, 10)
const DAYS = 12
const NOW = noonOf(DAYS + 1)

let store: Store
/** What each of them read on the evening of each day, by day and person. */
const evenings = new Map<string, readonly WireRow[]>()

beforeAll(() => {
	const line = (id: string, table: number, role: number, parts: object = {}) =>
		accessLine({ id, table, role, verbs: ['see'], ...parts })
	store = openScratch({
		now: 0,
		timeZone: ZONE,
		roles: [
			{ id: CREW, name: 'Crew', includes: [] },
			{ id: BOSSES, name: 'Bosses', includes: [] }
		],
		lines: [
			// Imke sees no buoy that is lifted, of those to watch no cost, and nothing at South.
			line('p', PORTS, CREW, { where: 'name <> "South"' }),
			line('b1', BUOYS, CREW, { where: 'state = "Sound"' }),
			line('b2', BUOYS, CREW, { where: 'state = "Watch"', columns: { kind: 'except', columns: [COST] } }),
			line('xp', PORTS, BOSSES),
			line('xb', BUOYS, BOSSES)
		],
		tables: [
			{ id: PORTS, name: 'ports', keepers: [KEEPER], label: NAME, columns: [{ id: NAME, name: 'name', type: 'text' }] },
			{
				...{ id: BUOYS, name: 'buoys', keepers: [KEEPER], label: CODE },
				columns: [
					{ id: CODE, name: 'code', type: 'text' },
					{ id: PORT, name: 'port', type: 'reference', to: PORTS, reverseName: 'buoys' },
					{ id: STATE, name: 'state', type: 'choice', choices: STATES },
					{ id: COST, name: 'cost', type: 'money', unit: '£' },
					{ id: NOTE, name: 'note', type: 'text' },
					{ id: DOUBLE, name: 'double', type: 'computed', formula: 'cost * 2' },
					{ id: NEAR, name: 'near', type: 'computed', formula: 'COUNT(port.buoys)' },
					{ id: LIFTS, name: 'lifts', type: 'date' },
					// What it says depends on the day on which it is read.
					{ id: AGE, name: 'due', type: 'computed', formula: 'lifts - TODAY()' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (2, 0, 0, 'Imke', 'imke'), (3, 0, 0, 'Bo', 'bo'), (4, 0, 0, 'Una', 'una');
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k) VALUES (1, 0, 0, 'North', 'north'), (2, 0, 0, 'South', 'south');
		INSERT INTO role_held (person, role) VALUES (${IMKE}, ${CREW}), (${BO}, ${BOSSES})`)
	// A fixed sequence: a linear congruential generator, as Numerical Recipes has it (from memory).
	let seed = 7
	const below = (most: number) => (seed = (seed * 1_664_525 + 1_013_904_223) % 2 ** 32) % most
	const rows: string[] = []
	const ports = [1, 2].map((n) => store.ids.toId(PORTS, n))
	for (let day = 1; day <= DAYS; day++) {
		for (let i = 0; i < 14; i++) {
			const context = { actor: { person: KEEPER }, now: noonOf(day) + i, through: 'grid' as const }
			const cells = [
				{ column: PORT, value: below(4) === 0 ? null : { id: ports[below(2)] ?? '' } },
				{ column: STATE, value: below(9) === 0 ? null : (STATES[below(3)] ?? null) },
				{ column: COST, value: below(5) === 0 ? null : String(below(500)) },
				{ column: NOTE, value: `day ${day}` },
				{ column: LIFTS, value: dateOf(below(DAYS)) }
			].filter(() => below(3) > 0)
			const row = rows[below(Math.max(1, rows.length))]
			const what = below(10)
			if (row === undefined || what < 3) {
				const code = { column: CODE, value: `B${rows.length}` }
				rows.push(changeRows(store, [{ kind: 'add', table: BUOYS, cells: [code, ...cells] }], context)[0]?.row ?? '')
			} else if (what < 9) {
				if (cells.length > 0) tryTo(() => changeRows(store, [{ kind: 'change', table: BUOYS, row, cells }], context))
			} else
				tryTo(() => changeRows(store, [{ kind: below(3) === 0 ? 'restore' : 'remove', table: BUOYS, row }], context))
		}
		for (const person of [IMKE, BO, NOBODY]) evenings.set(`${day} ${person}`, readToday(person, noonOf(day) + 1000))
	}
})

/** What is not there cannot be changed, nor put back what was not taken out. */
function tryTo(work: () => unknown): void {
	try {
		work()
	} catch {
		// Refused: nothing happened.
	}
}

function readToday(person: number, now = NOW): readonly WireRow[] {
	return readRows(store, { person }, { table: BUOYS, limit: 1000 }, now).rows
}

const readOn = (day: number, person: number, more: Partial<PastRequest> = {}) =>
	readPast(store, { person }, { table: BUOYS, day: dateOf(day), limit: 1000, ...more }, NOW)

/** Of what somebody saw on an evening, what they see today: rows that are there, cells that are. */
function expected(day: number, person: number): Record<string, Record<string, unknown>> {
	const today = new Map(readToday(person).map((row) => [row.id, row]))
	const rows = (evenings.get(`${day} ${person}`) ?? []).flatMap((row) => {
		const now = today.get(row.id)
		if (!now) return []
		const cells = Object.entries(row.cells).filter(([key]) => key in now.cells && key !== cellKey(NEAR))
		return [[row.id, Object.fromEntries(cells)] as const]
	})
	return Object.fromEntries(rows)
}

const cellsOf = (rows: readonly WireRow[]) => Object.fromEntries(rows.map(({ id, cells }) => [id, cells]))

describe.each([
	['Imke', IMKE],
	['Bo', BO]
])('as %s saw them', (_name, person) => {
	test.each(Array.from({ length: DAYS }, (_each, i) => i + 1))('on the evening of day %d', (day) => {
		const { rows, count, isCut } = readOn(day, person)
		expect(cellsOf(rows)).toEqual(expected(day, person))
		expect({ count, isCut }).toEqual({ count: rows.length, isCut: false })
	})

	test('there is something to compare, and it is not what stands there today', () => {
		const days = Array.from({ length: DAYS }, (_each, i) => Object.keys(expected(i + 1, person)).length)
		expect(Math.max(...days)).toBeGreaterThan(5)
		expect(expected(3, person)).not.toEqual(cellsOf(readToday(person)))
	})

	test('a condition is judged on what they saw then', () => {
		const { rows } = readOn(6, person, { where: ['cost > 100'] })
		const all = Object.entries(expected(6, person)).filter(([, cells]) => Number(cells[cellKey(COST)] ?? 0) > 100)
		expect(rows.map(({ id }) => id).sort()).toEqual(all.map(([id]) => id).sort())
	})

	test('TODAY() in a condition is that day', () => {
		const { rows } = readOn(6, person, { where: ['lifts < TODAY()'] })
		const all = Object.entries(expected(6, person)).filter(([, cells]) => {
			const lifts = cells[cellKey(LIFTS)]
			return typeof lifts === 'string' && lifts < dateOf(6)
		})
		expect(all.length).toBeGreaterThan(0)
		expect(rows.map(({ id }) => id).sort()).toEqual(all.map(([id]) => id).sort())
	})

	test('they are ordered by it, and come page by page', () => {
		const sort = { column: COST, descending: true }
		const whole = readOn(8, person, { sort }).rows
		const costs = whole.map(({ cells }) => cells[cellKey(COST)]).filter((cost) => typeof cost === 'number')
		expect(costs).toEqual(costs.toSorted((a, b) => b - a))
		const pages = [0, 3, 6].flatMap((skip) => readOn(8, person, { sort, skip, limit: 3 }).rows)
		expect(pages).toEqual(whole.slice(0, 9))
	})

	test('a measure is made of the cells that they see', () => {
		const found = readPastValues(store, { person }, { table: BUOYS, day: dateOf(5), column: COST }, NOW)
		const cells = Object.values(expected(5, person))
		const seen = cells.filter((each) => cellKey(COST) in each)
		expect(found?.values.toSorted()).toEqual(seen.map((each) => each[cellKey(COST)] ?? null).toSorted())
		expect(found?.kept).toBe(cells.length - seen.length)
	})
})

test('a total over other rows is not kept, and so not told', () => {
	const { rows, columns } = readOn(6, BO)
	expect(columns).not.toContain(NEAR)
	expect(rows.every(({ cells }) => !(cellKey(NEAR) in cells))).toBe(true)
	expect(readPastValues(store, { person: BO }, { table: BUOYS, day: dateOf(6), column: NEAR }, NOW)).toBeNull()
})

test('who sees nothing today is told nothing of any day', () => {
	expect(readOn(6, NOBODY)).toEqual({ rows: [], count: 0, columns: [], isCut: false })
})

test('before there was a row there is none; of today and later it is what stands there', () => {
	expect(readOn(-400, BO).count).toBe(0)
	for (const day of [DAYS, DAYS + 40]) {
		const { rows } = readOn(day, BO)
		expect(Object.keys(cellsOf(rows)).sort()).toEqual(readToday(BO).map(({ id }) => id).sort()) // prettier-ignore
	}
})

describe('on a screen', () => {
	const lines: ScreenInput['lines'] = [
		{
			...{
				id: 'l',
				kind: 'list',
				table: BUOYS,
				where: '',
				opens: null,
				columns: [CODE, STATE, COST, NEAR],
				finds: [CODE]
			},
			...{ sort: [{ column: CODE, descending: false }], asOf: `DATE(2026; 10; ${Number(dateOf(6).slice(8))})` },
			lines: [{ id: 'm', kind: 'mark', word: 'dear', tone: 'look', where: 'cost > 100' }]
		},
		{
			...{ id: 'f', kind: 'figure', label: 'sound', measure: { of: 'count', column: null }, table: BUOYS },
			...{ where: 'state = "Sound"', ago: 'TODAY() - 8' }
		}
	]
	const place = (person: number) => ({ app: 1, draft: true, document: documentOf(lines), actor: { person }, now: NOW })
	const shown = (person: number) => openScreen(store, { ...place(person), screen: 's' }).screen?.lines ?? []

	test.each([
		['Imke', IMKE],
		['Bo', BO]
	])('a list shows what %s saw then, marked by it, and says so', (_name, person) => {
		const [list] = shown(person)
		if (list?.kind !== 'list') throw new Error('Expected a list')
		const then = expected(6, person)
		expect(list).toMatchObject({ asOf: '7 Oct 2026', count: Object.keys(then).length, actions: [], groups: null })
		expect(list.page.rows.map(({ id }) => id).sort()).toEqual(Object.keys(then).sort())
		for (const { id, flags } of list.page.rows)
			expect(flags, id).toEqual(Number(then[id]?.[cellKey(COST)] ?? 0) > 100 ? [0] : [])
		const narrowing = { find: 'B', filters: [] }
		const found = readList(store, { ...place(person), screen: 's', line: 'l', narrowing, limit: 2 })
		expect(found.rows.length).toBe(2)
		const next = readList(store, { ...place(person), screen: 's', line: 'l', narrowing, limit: 2, after: found.next ?? '' }) // prettier-ignore
		expect(next.rows.some(({ id }) => found.rows.some((row) => row.id === id))).toBe(false)
	})

	test('a figure says how it stands to what it was', () => {
		const [, figure] = shown(BO)
		const sound = (rows: readonly { cells?: object }[]) =>
			rows.filter((row) => (row.cells as Record<string, unknown>)[cellKey(STATE)] === 'Sound').length
		const then = Object.values(expected(5, BO)).filter((cells) => cells[cellKey(STATE)] === 'Sound').length
		const apart = sound(readToday(BO)) - then
		const on = 'on 6 Oct 2026'
		const says = apart === 0 ? `as it was ${on}` : `${Math.abs(apart)} ${apart > 0 ? 'more' : 'fewer'} than ${on}`
		expect(figure).toMatchObject({ against: [{ text: says }] })
	})

	test.each([
		[{ asOf: '"soon"' }, /is no date/],
		[{ where: 'near > 1' }, /near is made of other rows/],
		[{ group: STATE }, /neither grouped nor added up/],
		[{ lines: [{ id: 'b', kind: 'button', label: 'Go', does: { kind: 'open', screen: 's' } }] }, /are not changed/]
	])('what is not known of a past day is said before a release: %j', (parts, says) => {
		const [list] = lines
		const document = documentOf([{ ...list, ...parts } as NonNullable<ScreenInput['lines']>[number]])
		const found = checkApp(document, store.workspace()).map(({ message }) => message)
		expect(
			found.some((message) => says.test(message)),
			found.join('; ')
		).toBe(true)
	})
})
