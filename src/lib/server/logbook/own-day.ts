/** What somebody did to rows today, the latest first, each with whether it can be taken back. */
import type { DoneToday } from '$lib/core/requests/today.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import type { Table } from '$lib/core/model/table.ts'
import { momentOf, standingOf, type ByActor, type Standing } from '../rights/rights-of-actor.ts'
import { readRows } from '../rows/read.ts'
import { isSeenNow, shownCells } from '../rows/read-history.ts'
import type { Store } from '../store/store.ts'
import { dayOf, entriesBackwards, TAKEN_BACK_BY, type OwnEntry } from './own-entries.ts'

/** More than anybody reads through; the Logbook has the rest. */
const MOST_SHOWN = 100

export function readOwnDay(store: Store, { actor, now }: ByActor): DoneToday[] {
	const { tables } = store.workspace().catalogue
	const { today } = momentOf(store, actor.person, now)
	const standing = standingOf(store, actor, now)
	const done: DoneToday[] = []
	/** Entries that a later one has taken back. */
	const undone = new Set<number>()
	for (const entry of entriesBackwards(store, { person: actor.person, now })) {
		if (dayOf(store, actor.person, entry.at) !== today || done.length === MOST_SHOWN) break
		const table = tables.get(entry.table)
		if (!table) continue
		if (entry.takesBack !== undefined) undone.add(entry.takesBack)
		else done.push(describe(store, { entry, table, standing, isUndone: undone.has(entry.seq) }, { actor, now }))
	}
	return done
}

interface Described {
	readonly entry: OwnEntry
	readonly table: Table
	readonly standing: Standing
	readonly isUndone: boolean
}

function describe(store: Store, { entry, table, standing, isUndone }: Described, { actor, now }: ByActor): DoneToday {
	const { seq, at, kind, row: n, body, through } = entry
	const id = store.ids.toId(table.id, n)
	const page = readRows(store, actor, { table: table.id, row: id, columns: [table.label] }, now)
	const columns = table.columns.filter((column) => isSeenNow(store, table, { column, n, rights: standing.rights }))
	const label = page.rows[0]?.cells[cellKey(table.label)]
	return {
		...{ entry: seq, at, kind, through, table: table.name },
		label: typeof label === 'object' && label !== null ? '' : String(label ?? ''),
		cells: page.rows[0] ? shownCells({ store, table, standing, n }, columns, body) : [],
		state: isUndone ? 'taken back' : mayTakeBack(kind, table, standing) ? 'can be taken back' : 'stays'
	}
}

/** As far as it can be told before it is tried: whoever may not remove rows does not take back that they added one. */
function mayTakeBack(kind: OwnEntry['kind'], table: Table, { rights }: Standing): boolean {
	return rights.mayPossibly(TAKEN_BACK_BY[kind], table)
}
