/** The rows of the demo's smaller tables, each from a seed of its own, so that a change of one changes no other. */
import { changeRows } from '../src/lib/server/rows/change.ts'
import { PEOPLE as PEOPLE_TABLE } from '../src/lib/server/structure/make.ts'
import type { Store } from '../src/lib/server/store/store.ts'
import { berthRows, visitRows } from './quayside.ts'
import { randomFrom } from './random.ts'
import { add, columnsOf } from './rows.ts'
import { stockRows } from './stores.ts'
import { remarkRows } from './remarks.ts'
import { callsOf, workRows } from './work.ts'
import { PEOPLE } from './people.ts'

const DAY = 86_400_000

export interface Filling {
	/** Ids of harbours by name. */
	readonly harbourIds: ReadonlyMap<string, string>
	readonly builder: number
	/** Epoch ms. */
	readonly now: number
	readonly seed: number
}

/** What lies in the stores, as its keeper counted it. */
export function fillStock(store: Store, table: number, { harbourIds, builder, now, seed }: Filling): void {
	for (const { harbour, ...cells } of stockRows(randomFrom(seed + 2), [...harbourIds.keys()], dayOf(now)))
		add(
			store,
			builder,
			table,
			named(store, table, { ...cells, Harbour: { id: harbourIds.get(harbour) ?? '' } }),
			now - 100 * DAY
		)
}

/** Depths that were mended in the course of the last year: the register was not always what it is, and is what it was brought in as. */
export function fillSoundings(store: Store, moorings: number, { builder, now, seed }: Filling): void {
	const random = randomFrom(seed + 7)
	const depth = columnsOf(store, moorings)('Depth')
	const rows = store.db.prepare(`SELECT n, c${depth} AS depth FROM t${moorings} ORDER BY n`).all() as {
		n: number
		depth: number | null
	}[]
	const some = rows.filter(({ depth: tenths, n }) => tenths !== null && n % 9 === 0)
	for (const [i, { n, depth: tenths }] of some.entries()) {
		const row = store.ids.toId(moorings, n)
		const put = (value: number, at: number) => {
			const cells = [{ column: depth, value: (value / 10).toFixed(1) }]
			const context = { actor: { person: builder }, now: at, through: 'demo' as const }
			changeRows(store, [{ kind: 'change', table: moorings, row, cells }], context)
		}
		put(Number(tenths) + 1 + random.below(3), now - 399 * DAY)
		put(Number(tenths), now - Math.round(((some.length - i) * 330) / some.length) * DAY)
	}
}

/** Visitors' berths, and who lay there. */
export function fillQuay(
	store: Store,
	{ berths, visits }: { readonly berths: number; readonly visits: number },
	{ harbourIds, builder, now, seed }: Filling
): void {
	const rows = berthRows([...harbourIds.keys()])
	const known = rows.map(({ harbour: name, ...cells }) => {
		const harbour = { id: harbourIds.get(name) ?? '' }
		return {
			harbour,
			id: add(store, builder, berths, named(store, berths, { ...cells, Harbour: harbour }), now - 900 * DAY)
		}
	})
	for (const { berth, daysAgo, cells } of visitRows(randomFrom(seed + 3), rows, dayOf(now))) {
		const { harbour = { id: '' }, id = '' } = known[berth] ?? {}
		const visit = named(store, visits, { ...cells, Harbour: harbour, Berth: { id } })
		add(store, builder, visits, visit, now - daysAgo * DAY)
	}
}

export function fillRemarks(store: Store, remarks: number, { harbourIds, builder, now, seed }: Filling): void {
	const ids = [...harbourIds.values()]
	for (const { harbour, cells } of remarkRows(randomFrom(seed + 6), ids.length, dayOf(now))) {
		const said = named(store, remarks, { ...cells, Harbour: { id: ids[harbour] ?? '' } })
		add(store, builder, remarks, said, Date.parse(cells['Said'] ?? ''))
	}
}

/** Work orders at some of the moorings. */
export function fillWork(
	store: Store,
	{ work, moorings }: { readonly work: number; readonly moorings: number },
	{ builder, now, seed, harbourIds, people }: Filling & { readonly people: ReadonlyMap<string, number> }
): void {
	const column = columnsOf(store, moorings)
	const names = new Map([...harbourIds].map(([name, id]) => [id, name]))
	const [harbours] = [...store.workspace().catalogue.tables.values()].filter(({ name }) => name === 'Harbours')
	const rows = store.db
		.prepare(`SELECT n, c${column('Harbour')} AS harbour, c${column('Position')} AS place FROM t${moorings} ORDER BY n`)
		.all() as {
		n: number
		harbour: number
		place: string | null
	}[]
	const nameOf = (n: number) => names.get(store.ids.toId(harbours?.id ?? 0, n)) ?? ''
	const divers = (at: string) =>
		PEOPLE.filter(({ roles, harbour: own }) => roles.includes('Divers') && own === at).map(({ name }) => name)
	const all = workRows(
		randomFrom(seed + 5),
		rows.map((row) => nameOf(row.harbour)),
		divers,
		dayOf(now)
	)
	const places = all.map(({ mooring }) => rows[mooring]?.place ?? '')
	const orders = all.map(({ mooring, cells }, i) => ({
		...{ cells, place: places[i] ?? '', harbour: nameOf(rows[mooring]?.harbour ?? 0) }
	}))
	const calls = callsOf(orders, dayOf(now))
	for (const [i, { mooring, diver, cells }] of all.entries()) {
		const given = diver === null ? {} : { 'Given to': { id: store.ids.toId(PEOPLE_TABLE, people.get(diver) ?? 0) } }
		const at = {
			...{ Mooring: { id: store.ids.toId(moorings, rows[mooring]?.n ?? 0) } },
			...{ Place: places[i] || null, Call: calls.get(i) ?? null }
		}
		add(store, builder, work, named(store, work, { ...cells, ...at, ...given }), now - 20 * DAY)
	}
}

type Cells = Parameters<typeof add>[3]

function named(store: Store, table: number, cells: Readonly<Record<string, Cells[number]>>): Cells {
	const column = columnsOf(store, table)
	return Object.fromEntries(Object.entries(cells).map(([name, value]) => [column(name), value]))
}

function dayOf(now: number): string {
	return new Date(now).toISOString().slice(0, 10)
}
