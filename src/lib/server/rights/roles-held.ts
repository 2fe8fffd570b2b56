/**
 * The roles that a person holds: by name, through a team, or because their row fits a role's condition. Whoever is
 * suspended holds none.
 */
import { closeRoles } from '$lib/core/access/types.ts'
import { evaluate, isTrue, type RowValues } from '$lib/core/formula/evaluate/evaluate.ts'
import { readStoredRow, storeEnv } from '../store/stored-row.ts'
import type { Store } from '../store/store.ts'
import { EVERYONE } from './system-roles.ts'

const HELD = `
	SELECT role FROM role_held WHERE person = @person
	UNION SELECT r.role FROM team_member AS m JOIN team_role AS r ON r.team = m.team WHERE m.person = @person`
const VISITS = `SELECT app FROM visitor WHERE person = ?`
const IS_SUSPENDED = `SELECT 1 FROM suspended WHERE person = ?`

/** All of them, with those they include; none for somebody who is not there or is suspended. */
export function rolesOf(store: Store, person: number, me: RowValues | undefined): ReadonlySet<number> {
	if (!me || isSuspended(store, person)) return new Set()
	// Visitors are named by nobody: what everyone who is holds is not theirs.
	const all = visitedApp(store, person) === undefined ? [EVERYONE] : []
	return closeRoles([...all, ...heldRoles(store, person, me)], store.workspace().roles)
}

/** Those that they hold themselves, without what follows from including. */
export function heldRoles(store: Store, person: number, me: RowValues): readonly number[] {
	const named = store.prepare<number>(HELD).pluck().all({ person })
	// The row of an app's visitors is nobody's: what it happens to fit says nothing of who is looking.
	const fitting = visitedApp(store, person) === undefined ? fittingRoles(store, me) : []
	return [...new Set([...named, ...fitting])]
}

/** The roles whose condition somebody's row fits. */
export function fittingRoles(store: Store, me: RowValues): number[] {
	const conditional = store.workspace().roles.filter((role) => role.where)
	if (conditional.length === 0) return []
	// A role's condition does not vary with the moment: saving refuses one that would.
	const env = { rows: [me], today: '', now: '', ...storeEnv(store) }
	return conditional.filter((role) => role.where && isTrue(evaluate(role.where, env))).map((role) => role.id)
}

/** The app that somebody visits without being named, if they do. */
export function visitedApp(store: Store, person: number): number | undefined {
	return store.prepare<number>(VISITS).pluck().get(person)
}

export function isSuspended(store: Store, person: number): boolean {
	return store.prepare(IS_SUSPENDED).get(person) !== undefined
}

/** A person's own row, for formulas over `me`; undefined where it was removed. */
export function readPersonRow(store: Store, person: number): RowValues | undefined {
	return readStoredRow(store, store.workspace().catalogue.people, person)
}
