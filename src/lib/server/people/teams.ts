/** Teams: people who hold roles together. Kept by stewards. */
import type { ByActor } from '../rights/rights-of-actor.ts'
import { AppError } from '$lib/core/app-error.ts'
import { textKey } from '$lib/core/text/key.ts'
import { writeHistory } from '../history/history.ts'
import type { Store } from '../store/store.ts'
import { readPersonRow } from '../rights/roles-held.ts'
import { keepingASteward, refuseUnlessSteward } from '../rights/stewardship.ts'
import { EVERYONE } from '../rights/system-roles.ts'

const ADD = `INSERT INTO team (name, name_key, made_at, made_by) VALUES (@name, @key, @now, @by) ON CONFLICT DO NOTHING`
const RENAME = `UPDATE OR IGNORE team SET name = @name, name_key = @key WHERE id = @id`
const REMOVE = `DELETE FROM team WHERE id = ?`
const NAME = `SELECT name FROM team WHERE id = ?`
const JOIN = `INSERT OR IGNORE INTO team_member (team, person) VALUES (?, ?)`
const LEAVE = `DELETE FROM team_member WHERE team = ? AND person = ?`
const GIVE = `INSERT OR IGNORE INTO team_role (team, role) VALUES (?, ?)`
const TAKE = `DELETE FROM team_role WHERE team = ? AND role = ?`

export interface OfTeam extends ByActor {
	readonly team: number
}

/** Gives the number of the new team; `invalid` where the name is taken. */
export function addTeam(store: Store, { name, actor, now }: ByActor & { name: string }): number {
	refuseUnlessSteward(store, actor)
	const plain = plainName(name)
	const { changes, lastInsertRowid } = store
		.prepare(ADD)
		.run({ name: plain, key: textKey(plain), now, by: actor.person })
	if (changes === 0) throw taken(plain)
	note(store, 'add team', { team: plain }, { actor, now })
	return Number(lastInsertRowid)
}

export function renameTeam(store: Store, { team, name, actor, now }: OfTeam & { name: string }): void {
	const was = begin(store, { team, actor, now })
	const plain = plainName(name)
	if (store.prepare(RENAME).run({ id: team, name: plain, key: textKey(plain) }).changes === 0) throw taken(plain)
	note(store, 'rename team', { team: plain, was }, { actor, now })
}

export function removeTeam(store: Store, { team, actor, now }: OfTeam): void {
	const name = begin(store, { team, actor, now })
	keepingASteward(store, () => store.prepare(REMOVE).run(team))
	note(store, 'remove team', { team: name }, { actor, now })
}

/** Nobody puts themselves into a team: its roles would become their own. */
export function joinTeam(store: Store, { team, person, actor, now }: OfTeam & { person: number }): void {
	const name = begin(store, { team, actor, now })
	refuseOwn(actor.person, person)
	if (!readPersonRow(store, person)) throw new AppError('not_found', 'This person is not there.')
	store.prepare(JOIN).run(team, person)
	note(store, 'join team', { team: name }, { actor, now, person })
}

export function leaveTeam(store: Store, { team, person, actor, now }: OfTeam & { person: number }): void {
	const name = begin(store, { team, actor, now })
	refuseOwn(actor.person, person)
	keepingASteward(store, () => store.prepare(LEAVE).run(team, person))
	note(store, 'leave team', { team: name }, { actor, now, person })
}

const IS_MEMBER = `SELECT 1 FROM team_member WHERE team = ? AND person = ?`

/** All members have the role then; who is in the team themselves may not. */
export function giveTeamRole(store: Store, { team, role, actor, now }: OfTeam & { role: number }): void {
	const name = begin(store, { team, actor, now })
	const found = store.workspace().roles.find((each) => each.id === role)
	if (!found || role === EVERYONE) throw new AppError('not_found', 'This role is not there.')
	if (store.prepare(IS_MEMBER).get(team, actor.person))
		throw new AppError('forbidden', 'You are in this team, so another steward must give it roles.')
	store.prepare(GIVE).run(team, role)
	note(store, 'give team role', { team: name, role: found.name }, { actor, now })
}

export function takeTeamRole(store: Store, { team, role, actor, now }: OfTeam & { role: number }): void {
	const name = begin(store, { team, actor, now })
	keepingASteward(store, () => store.prepare(TAKE).run(team, role))
	note(store, 'take team role', { team: name, role }, { actor, now })
}

function begin(store: Store, { team, actor }: OfTeam): string {
	refuseUnlessSteward(store, actor)
	const name = store.prepare<string>(NAME).pluck().get(team)
	if (name === undefined) throw new AppError('not_found', 'This team is not there.')
	return name
}

function refuseOwn(actor: number, person: number): void {
	if (actor === person) throw new AppError('forbidden', 'Nobody changes their own teams. Ask another steward.')
}

function plainName(name: string): string {
	const plain = name.trim().slice(0, 80)
	if (plain === '') throw new AppError('invalid', 'The team needs a name.')
	return plain
}

function taken(name: string): AppError {
	return new AppError('invalid', `There is a team called "${name}" already.`)
}

function note(
	store: Store,
	kind: string,
	body: Record<string, unknown>,
	{ actor, now, person }: ByActor & { person?: number }
): void {
	const table = person === undefined ? null : store.workspace().catalogue.people.id
	writeHistory(store, { at: now, person: actor.person, through: 'People', kind, table, row: person ?? null, body })
	store.touched.add('access')
}
