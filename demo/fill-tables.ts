/** The rows of the demo's smaller tables, each from a seed of its own, so that a change of one changes no other. */
import type { Store } from '../src/lib/server/store/store.ts'
import { berthRows, visitRows } from './quayside.ts'
import { randomFrom } from './random.ts'
import { add, columnsOf } from './rows.ts'
import { stockRows } from './stores.ts'

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

type Cells = Parameters<typeof add>[3]

function named(store: Store, table: number, cells: Readonly<Record<string, Cells[number]>>): Cells {
	const column = columnsOf(store, table)
	return Object.fromEntries(Object.entries(cells).map(([name, value]) => [column(name), value]))
}

function dayOf(now: number): string {
	return new Date(now).toISOString().slice(0, 10)
}
