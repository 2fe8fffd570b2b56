/** What is known of somebody's second factor. The secret comes and goes sealed; a step that was used is never taken again. */
import type { ByActor } from '../rights/rights-of-actor.ts'
import { AppError } from '$lib/core/app-error.ts'
import { writeHistory } from '../history/history.ts'
import type { Store } from '../store/store.ts'
import { refuseUnlessSteward } from '../rights/stewardship.ts'

export interface SecondFactor {
	readonly sealed: string
	readonly confirmed: boolean
}

const FIND = `SELECT sealed, confirmed_at IS NOT NULL AS confirmed FROM second_factor WHERE person = ?`
const PUT = `
	INSERT INTO second_factor (person, sealed) VALUES (@person, @sealed)
	ON CONFLICT (person) DO UPDATE SET sealed = excluded.sealed, last_step = 0 WHERE confirmed_at IS NULL`
const USE = `UPDATE second_factor SET last_step = @step WHERE person = @person AND last_step < @step`
const CONFIRM = `UPDATE second_factor SET confirmed_at = @now WHERE person = @person AND confirmed_at IS NULL`
const DROP = `DELETE FROM second_factor WHERE person = ? AND confirmed_at IS NOT NULL`

/** The sealed secret and whether a first code has confirmed it; null where there is none. */
export function findSecondFactor(store: Store, { person }: { person: number }): SecondFactor | null {
	const found = store.prepare<{ sealed: string; confirmed: number }>(FIND).get(person)
	return found ? { sealed: found.sealed, confirmed: found.confirmed === 1 } : null
}

/** Keeps a new secret until its first code confirms it; one that was confirmed stays. */
export function putSecondFactor(store: Store, { person, sealed }: { person: number; sealed: string }): void {
	if (store.prepare(PUT).run({ person, sealed }).changes === 0)
		throw new AppError('invalid', 'A second factor is set up already. Take it off first.')
}

/** False where this step, or a later one, was used before: a code that was overheard is of no use. */
export function useStep(store: Store, { person, step }: { person: number; step: number }): boolean {
	return store.prepare(USE).run({ person, step }).changes === 1
}

/** Done twice, it is noted once. */
export function confirmSecondFactor(store: Store, { person, now }: { person: number; now: number }): void {
	if (store.prepare(CONFIRM).run({ person, now }).changes === 0) return
	note(store, 'set up second factor', { person, now, by: person })
}

export function dropSecondFactor(store: Store, { person, now, by }: { person: number; now: number; by: number }): void {
	if (store.prepare(DROP).run(person).changes === 1) note(store, 'take off second factor', { person, now, by })
}

/** For somebody who lost what gives them their codes. */
export function takeOffSecondFactor(store: Store, { person, actor, now }: ByActor & { person: number }): void {
	refuseUnlessSteward(store, actor)
	if (person === actor.person) throw new AppError('forbidden', 'Take your own off under your name, with your password.')
	dropSecondFactor(store, { person, now, by: actor.person })
}

function note(store: Store, kind: string, { person, now, by }: { person: number; now: number; by: number }): void {
	const table = store.workspace().catalogue.people.id
	writeHistory(store, { at: now, person: by, through: 'account', kind, table, row: person, body: {} })
}
