/** What the history holds of one person's changes of rows. */
import type { Verb } from '$lib/core/access/types.ts'
import { momentOf } from '../rights/rights-of-actor.ts'
import { visitedApp } from '../rights/roles-held.ts'
import type { Store } from '../store/store.ts'

export interface OwnEntry {
	readonly seq: number
	/** Epoch ms. */
	readonly at: number
	readonly kind: 'add' | 'change' | 'remove'
	readonly table: number
	readonly row: number
	readonly body: string
	readonly through: string
	/** The entry that this one took back. */
	readonly takesBack: number | undefined
}

/** The right that it takes to undo each. */
export const TAKEN_BACK_BY: Readonly<Record<OwnEntry['kind'], Verb>> = {
	add: 'remove',
	change: 'change',
	remove: 'add'
}

const COLUMNS = `seq, at, person, kind, table_id AS "table", row_n AS row, body, through`
const BACKWARDS = `SELECT ${COLUMNS} FROM history ORDER BY seq DESC`
const ONE = `SELECT ${COLUMNS} FROM history WHERE seq = ?`

interface StoredEntry {
	readonly seq: number
	readonly at: number
	readonly person: number | null
	readonly kind: string
	readonly table: number | null
	readonly row: number | null
	readonly body: string
	readonly through: string
}

/** No day anywhere is longer. */
const LONGEST_DAY_MS = 26 * 3_600_000

/** Somebody's own, the latest first, as far back as today can reach. */
export function* entriesBackwards(store: Store, { person, now }: { person: number; now: number }): Generator<OwnEntry> {
	if (visitedApp(store, person) !== undefined) return
	for (const entry of store.prepare<StoredEntry>(BACKWARDS).iterate()) {
		if (entry.at < now - LONGEST_DAY_MS) return
		const own = entry.person === person ? toOwn(entry) : undefined
		if (own) yield own
	}
}

/** One of somebody's own; undefined where it is somebody else's, or none of a row. Visitors share a row, and own nothing. */
export function findOwnEntry(store: Store, { person, seq }: { person: number; seq: number }): OwnEntry | undefined {
	if (visitedApp(store, person) !== undefined) return undefined
	const entry = store.prepare<StoredEntry>(ONE).get(seq)
	return entry?.person === person ? toOwn(entry) : undefined
}

/** The day of a moment, where somebody lives. */
export function dayOf(store: Store, person: number, at: number): string {
	return momentOf(store, person, at).today
}

/** The way of a change that takes another back, and which: it is written down with it. */
export function takingBack(seq: number): `taking back ${number}` {
	return `taking back ${seq}`
}

function toOwn({ seq, at, kind, table, row, body, through }: StoredEntry): OwnEntry | undefined {
	if (table === null || row === null || (kind !== 'add' && kind !== 'change' && kind !== 'remove')) return undefined
	const [, taken] = /^taking back (\d+)$/.exec(through) ?? []
	return { seq, at, kind, table, row, body, through, takesBack: taken === undefined ? undefined : Number(taken) }
}
