/** What the screen holds whose lines are being written, for the formulas in them: names that go on, and what they may read. */
import { getContext, setContext } from 'svelte'
import type { HeldKind } from '$lib/core/formula/check/rename.ts'

type HeldHere = Readonly<Record<string, HeldKind>>

const KEY = Symbol('held here')

/** For the formulas of the lines below. */
export function provideHeld(held: () => HeldHere): void {
	setContext(KEY, held)
}

/** Nothing, where a formula stands on no screen. */
export function useHeld(): () => HeldHere {
	return getContext<(() => HeldHere) | undefined>(KEY) ?? (() => ({}))
}
