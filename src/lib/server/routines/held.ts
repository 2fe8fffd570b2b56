/** The values that a run holds by name, as its formulas read them. */
import type { Here } from '$lib/core/formula/check/check-call.ts'
import { hereIn } from '$lib/core/formula/check/rename.ts'
import type { Plain } from '$lib/core/model/formula.ts'
import { givenTo, heldIn } from '$lib/core/routine/held-values.ts'
import type { Routine } from '$lib/core/routine/routine.ts'
import { nameKey } from '$lib/core/text/key.ts'
import { ownJson } from '$lib/core/text/own-json.ts'
import type { Store } from '../store/store.ts'

/** By the key of a name; a row by its number. */
export type Held = Readonly<Record<string, Plain>>

export interface HeldHere {
	/** All of them, as whoever the routine acts as read them. */
	readonly here: Here
	/** Those that were read from no row, and may stand in words to anybody. */
	readonly given: Here
}

const READ = `SELECT held FROM run WHERE id = ?`
const KEEP = `UPDATE run SET held = ? WHERE id = ?`

export function heldOf(store: Store, routine: Routine, run: number): HeldHere {
	const kinds = heldIn(routine)
	if (Object.keys(kinds).length === 0) return { here: new Map(), given: new Map() }
	const { catalogue } = store.workspace()
	const held = readHeld(store, run)
	const withValues = (here: Here = new Map()): Here =>
		new Map([...here].map(([name, { type }]) => [name, { type, value: held[name] ?? null }]))
	return {
		here: withValues(hereIn(kinds, catalogue)),
		given: withValues(hereIn(givenTo(routine), catalogue))
	}
}

/** Called in the transaction of the step that keeps it. */
export function holdValue(store: Store, run: number, { name, value }: { name: string; value: Plain }): void {
	const held: Held = { ...readHeld(store, run), [nameKey(name)]: value }
	store.prepare(KEEP).run(JSON.stringify(held), run)
}

function readHeld(store: Store, run: number): Held {
	return ownJson<Held>(store.prepare<string>(READ).pluck().get(run) ?? '{}')
}
