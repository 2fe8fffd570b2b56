/**
 * Lets the one connection that writes know by itself when a table of the program's turns, whatever turned it, so that what
 * follows from the table need not be asked with each change. Triggers of the connection's own count.
 *
 * A turn that is undone is counted all the same, and undoing it is not: so what was read between the two must not be
 * trusted afterwards. `settledTurns` gives a number only while every turn that was counted is committed.
 */
import type { Database } from 'better-sqlite3'
import type { Store } from './store.ts'

const WATCHED = {
	access_epoch: 'UPDATE',
	// Releases are put in force by it.
	app: 'UPDATE',
	signoff_case: 'INSERT'
} as const

export type WatchedTable = keyof typeof WATCHED

interface Turns {
	readonly counted: Record<WatchedTable, number>
	readonly committed: Record<WatchedTable, number>
}

const TURNS = new WeakMap<Database, Turns>()

/** For a connection beside which no other writes. */
export function watchTurns(db: Database): void {
	const none = { access_epoch: 0, app: 0, signoff_case: 0 }
	const turns = { counted: { ...none }, committed: { ...none } }
	TURNS.set(db, turns)
	// Only our own triggers call it, with the names of these tables.
	db.function('note_turn', (table: unknown) => ++turns.counted[table as WatchedTable])
	for (const [table, verb] of Object.entries(WATCHED))
		db.exec(`
			CREATE TEMP TRIGGER turn_of_${table} AFTER ${verb} ON main.${table}
			BEGIN SELECT note_turn('${table}'); END`)
}

/** After a commit: what was counted is so. */
export function settleTurns(db: Database): void {
	const turns = TURNS.get(db)
	if (turns) Object.assign(turns.committed, turns.counted)
}

/**
 * How often a table turned; undefined while a turn is open, or was undone since the last commit, and on a connection that
 * cannot know.
 */
export function settledTurns(db: Database, table: WatchedTable): number | undefined {
	const turns = TURNS.get(db)
	return turns?.counted[table] === turns?.committed[table] ? turns?.counted[table] : undefined
}

/** Remembers what follows from one table alone, for as long as it is known not to have turned. */
export function rememberSettled<T>(table: WatchedTable, read: (store: Store) => T): (store: Store) => T {
	const memories = new WeakMap<Store, { readonly turns: number; readonly value: T }>()
	return (store) => {
		const turns = settledTurns(store.db, table)
		const memory = memories.get(store)
		if (memory && memory.turns === turns) return memory.value
		const value = read(store)
		if (turns !== undefined) memories.set(store, { turns, value })
		return value
	}
}
