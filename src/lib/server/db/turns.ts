/**
 * Lets the one connection that writes know by itself when a table of the program's turns, whatever turned it, so that what
 * follows from the table need not be asked with each change. Triggers of the connection's own count.
 *
 * A turn that is undone is counted all the same, and undoing it is not: so what was read between the two must not be
 * trusted afterwards. `settledTurns` gives a number only while every turn that was counted is committed.
 */
import type { Database } from 'better-sqlite3'

const WATCHED = {
	access_epoch: 'UPDATE',
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
	const none = { access_epoch: 0, signoff_case: 0 }
	const turns = { counted: { ...none }, committed: { ...none } }
	TURNS.set(db, turns)
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

/** How often a table turned, undone turns among them; undefined on a connection that cannot know. */
export function turnsOf(db: Database, table: WatchedTable): number | undefined {
	return TURNS.get(db)?.counted[table]
}

/** The same while no turn is open; undefined while one is, or was undone since the last commit. */
export function settledTurns(db: Database, table: WatchedTable): number | undefined {
	const turns = TURNS.get(db)
	return turns?.counted[table] === turns?.committed[table] ? turns?.counted[table] : undefined
}
