/** What a step is done with, and what it comes to. */
import { AppError } from '$lib/core/app-error.ts'
import type { Plain } from '$lib/core/model/formula.ts'
import type { Frame, Outcome } from '$lib/core/routine/program.ts'
import type { Pressed } from '$lib/core/requests/screen-doings.ts'
import type { Step } from '$lib/core/routine/routine.ts'
import type { Store } from '../store/store.ts'
import type { Acting } from './acting.ts'
import type { HeldHere } from './held.ts'
import { findPerson, givenOf, type RowAt } from './work-out.ts'

export interface StepNow {
	readonly store: Store
	readonly acting: Acting
	/** The number of its app, and of its release. */
	readonly app: number
	readonly release: number
	/** Whose doing it goes back to; null for a clock's. */
	readonly by: number | null
	/** The number of the run. */
	readonly run: number
	/** The row at hand, and the one around it. */
	readonly at: RowAt | undefined
	readonly outer: RowAt | undefined
	readonly frame: Frame
	/** What the routine holds by name, and what of it may stand in words to anybody. */
	readonly held: HeldHere
	/** What comes after it in its list. */
	readonly following: readonly Step[]
	/** What it sends or asks goes out once by this. */
	readonly cause: string
	/** The name of the routine, for the history. */
	readonly routine: string
	/** The routines that led here, by name, this one last. */
	readonly path: readonly string[]
	/** Of a press: who it was, to be told something. */
	readonly presser: number | undefined
	/** Of a press: the row that it added last. */
	readonly added: RowAt | undefined
	/** Epoch ms. */
	readonly now: number
}

export interface StepResult {
	readonly outcome: Outcome
	/** In a few words, without a value of any row; blank where there is nothing to write down. */
	readonly cameTo: string
	/** Whom it went to. */
	readonly person?: number
	/** What is said to whoever pressed. */
	readonly says?: string
	/** What is opened for whoever pressed. */
	readonly opens?: Pressed['opens']
	/** The row that it added. */
	readonly added?: RowAt
	/** A value that is held from now on. */
	readonly keeps?: { readonly name: string; readonly value: Plain }
	/** When the routine goes on (epoch ms), where that is later. */
	readonly until?: number
	/** How many entries it made in the history. */
	readonly wrote?: number
}

export function rowOf({ at }: Pick<StepNow, 'at'>): RowAt {
	if (!at) throw new AppError('invalid', 'There is no row here.')
	return at
}

/** Whom a message would go to; the row is read as it is, which its builder may. */
export function recipientOf(
	{ to }: { readonly to: string },
	{ store, at, outer, acting, held }: Pick<StepNow, 'store' | 'at' | 'outer' | 'acting' | 'held'>
): number | undefined {
	const given = outer && givenOf(store, outer, acting)
	return findPerson(store, to, { ...at, moment: acting.moment, here: held.here, ...(given ? { given } : {}) })
}
