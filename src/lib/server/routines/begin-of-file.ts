/** Begins the routines that start once for a file that was brought in, in the transaction that ends bringing it in. */
import type { Actor } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import { addRun } from './runs.ts'
import { fileStartsOn } from './starts.ts'

export interface BroughtIn {
	readonly table: number
	/** What it is called. */
	readonly file: string
	/** How many rows. */
	readonly added: number
	readonly changed: number
	readonly removed: number
	readonly actor: Actor
	/** Epoch ms. */
	readonly now: number
}

/** A file that changed nothing starts nothing. */
export function beginOfFile(store: Store, { table, file, added, changed, removed, actor, now }: BroughtIn): void {
	if (added + changed + removed === 0) return
	const held = { file, added, changed, removed }
	for (const { app, routine } of fileStartsOn(store, table)) {
		const begun = { app: app.id, release: app.release, routine: routine.id, path: [routine.name], held, now }
		addRun(store, { ...begun, person: actor.person, on: undefined })
	}
}
