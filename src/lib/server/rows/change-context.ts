import type { Through } from '../history/through.ts'
import type { Actor } from '../rights/rights-of-actor.ts'

/** Who makes a change, when, and what led to it. */
export interface ChangeContext {
	readonly actor: Actor
	/** Epoch ms. */
	readonly now: number
	/** By what way, for the history. */
	readonly through: Through
	/** How many routines led here; chains stop at ten. */
	readonly depth?: number
}
