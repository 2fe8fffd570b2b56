import type { Through } from '../history/through.ts'
import type { Actor } from '../rights/rights-of-actor.ts'

/** Who makes a change, when, and what led to it. */
export interface ChangeContext {
	readonly actor: Actor
	/** Epoch ms. */
	readonly now: number
	/** By what way, for the history. */
	readonly through: Through
	/** The routines that led to it, by name, the first of them first; none where somebody did it. */
	readonly path?: readonly string[]
	/** What the changes that are made together have added so far, by their place; set by the door. */
	readonly added?: readonly (AddedRow | null)[]
}

export interface AddedRow {
	readonly table: number
	readonly n: number | undefined
}

/** Whose doing a change is, as it is written down: nobody's where a clock or a role did it, though somebody set that off. */
export function whoseDoing({ actor }: Pick<ChangeContext, 'actor'>): number | null {
	return actor.role !== undefined || actor.person === 0 ? null : actor.person
}
