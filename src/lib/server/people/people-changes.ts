/** What stewards do with people: add, suspend, let back in, sign out. People's rows pass the doors like any other. */
import type { ByActor } from '../rights/rights-of-actor.ts'
import { AppError } from '$lib/core/app-error.ts'
import type { CellChange } from '$lib/core/query/change.ts'
import { changeRows } from '../rows/change.ts'
import { writeHistory } from '../history/history.ts'
import type { Store } from '../store/store.ts'
import { giveRole } from './grants.ts'
import { invite } from '../credentials/one-time-links.ts'
import { keepingASteward, refuseUnlessSteward } from '../rights/stewardship.ts'
import { joinTeam } from './teams.ts'

export interface NewPerson extends ByActor {
	readonly cells: readonly CellChange[]
	readonly roles: readonly number[]
	readonly teams: readonly number[]
	readonly invited: boolean
	readonly words: string
}

/** Adds somebody with their roles and teams, and invites them, in one go: all of it or nothing. */
export function addPerson(store: Store, { cells, roles, teams, invited, words, actor, now }: NewPerson): string {
	refuseUnlessSteward(store, actor)
	const { people } = store.workspace().catalogue
	const change = { kind: 'add' as const, table: people.id, cells }
	const [added] = changeRows(store, [change], { actor, now, through: 'People' })
	const person = added && store.ids.fromId(people.id, added.row)
	if (!added || person === undefined) throw new Error('Expected a new person to have a number')
	for (const role of roles) giveRole(store, { person, role, mayPassOn: false, actor, now })
	for (const team of teams) joinTeam(store, { team, person, actor, now })
	if (invited) invite(store, { person, words, actor, now })
	return added.row
}

const SUSPEND = `INSERT OR IGNORE INTO suspended (person, at, by) VALUES (@person, @now, @by)`
const LET_BACK = `DELETE FROM suspended WHERE person = ?`
const END_SESSIONS = `DELETE FROM session WHERE person = ?`

export interface OfPerson extends ByActor {
	readonly person: number
}

/** Ends all sessions of a person and lets them in no more; never oneself, never the last steward. */
export function suspend(store: Store, { person, actor, now }: OfPerson): void {
	refuseUnlessSteward(store, actor)
	if (person === actor.person) throw new AppError('invalid', 'Nobody suspends themselves. Ask another steward.')
	keepingASteward(store, () => store.prepare(SUSPEND).run({ person, now, by: actor.person }))
	store.prepare(END_SESSIONS).run(person)
	note(store, 'suspend', { person, actor, now })
}

export function letBack(store: Store, { person, actor, now }: OfPerson): void {
	refuseUnlessSteward(store, actor)
	store.prepare(LET_BACK).run(person)
	note(store, 'let back in', { person, actor, now })
}

export function endSessionsOf(store: Store, { person, actor, now }: OfPerson): void {
	refuseUnlessSteward(store, actor)
	store.prepare(END_SESSIONS).run(person)
	note(store, 'sign out everywhere', { person, actor, now })
}

function note(store: Store, kind: string, { person, actor, now }: OfPerson): void {
	const { people } = store.workspace().catalogue
	const entry = { at: now, person: actor.person, through: 'People' as const, kind }
	writeHistory(store, { ...entry, table: people.id, row: person, body: {} })
	store.touched.add('access')
}
