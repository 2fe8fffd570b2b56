/** The roles of the workspace: made, named, included in one another, and held by whoever fits a condition. */
import type { ByActor } from '../rights/rights-of-actor.ts'
import { AppError } from '$lib/core/app-error.ts'
import { closeRoles } from '$lib/core/access/types.ts'
import type { RoleEntry } from '$lib/core/workspace/document.ts'
import { checkCondition } from '$lib/core/formula/check/check.ts'
import { textKey } from '$lib/core/text/key.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import { writeHistory } from '../history/history.ts'
import type { Store } from '../store/store.ts'
import { takeNumbers } from '../store/numbers.ts'
import { MOST_BESIDE_A_CHANGE, refuseTooDear } from '../derived/formula-cost.ts'
import { saveWorkspace } from '../structure/save.ts'
import { describePerson } from '../rights/accounts.ts'
import { keepingASteward, NAMED_BY_HAND, refuseUnlessSteward } from '../rights/stewardship.ts'
import { EVERYONE } from '../rights/system-roles.ts'

export interface RoleWords {
	readonly name: string
	readonly about?: string
	readonly includes?: readonly number[]
	readonly where?: string
}

const HOLD = `
	INSERT INTO role_held (person, role, may_pass_on, given_by, given_at) VALUES (@person, @role, 1, @person, @now)`

/** A builder may make a role, holds it, and passes it on; it lets nobody see anything until a line says so. */
export function addRole(store: Store, { name, about = '', actor, now }: ByActor & RoleWords): number {
	const isSteward = describePerson(store, actor.person)?.isSteward ?? false
	if (!isSteward || actor.lookedAtBy !== undefined) refuseUnlessBuilder(store, actor)
	refuseTaken(store, name, undefined)
	const id = freeNumber(store)
	const role: RoleEntry = {
		id,
		name: name.trim(),
		includes: [],
		...(about.trim() === '' ? {} : { about: about.trim() })
	}
	saveRoles(store, (roles) => [...roles, role], { what: `role ${role.name} added`, actor, now })
	if (!isSteward) store.prepare(HOLD).run({ person: actor.person, role: id, now })
	return id
}

/** Roles that were written into a document by hand took no number: theirs must not be given to another. */
function freeNumber(store: Store): number {
	const taken = new Set(store.workspace().roles.map((role) => role.id))
	for (;;) {
		const id = takeNumbers(store, 'role', 1)
		if (!taken.has(id)) return id
	}
}

/** Renames a role, or changes what it includes and who holds it by a condition; the program's own stay as they are. */
export function changeRole(
	store: Store,
	{ role: id, actor, now, ...words }: ByActor & RoleWords & { role: number }
): void {
	refuseUnlessSteward(store, actor)
	const old = findRole(store, id)
	if (id === EVERYONE || NAMED_BY_HAND.includes(id))
		throw new AppError('invalid', `${old.name} is part of the program and stays as it is.`)
	refuseTaken(store, words.name, id)
	const { name, about = '', includes = [], where = '' } = words
	const next: RoleEntry = {
		id,
		name: name.trim(),
		includes: includes.filter((each) => each !== id && each !== EVERYONE),
		...(about.trim() === '' ? {} : { about: about.trim() }),
		...(where.trim() === '' ? {} : { where })
	}
	const changed = store.workspace().document.roles.map((role) => (role.id === id ? next : role))
	const reached = closeRoles([id], changed)
	if (next.where !== undefined && NAMED_BY_HAND.some((each) => reached.has(each)))
		throw new AppError(
			'invalid',
			'Stewards and builders are named by hand: a role with a condition cannot include them.'
		)
	refuseDearRole(store, next)
	keepingASteward(store, () => saveRoles(store, () => changed, { what: `role ${next.name}`, actor, now }))
}

/** Who holds a role is asked with every request. One that cannot be read is refused when it is saved. */
function refuseDearRole(store: Store, { name, where }: RoleEntry): void {
	const { catalogue } = store.workspace()
	const { expr } = checkCondition(where ?? 'TRUE', { catalogue, rows: [catalogue.people], me: false })
	if (expr) refuseTooDear(store, expr, { what: `The condition of ${name}`, most: MOST_BESIDE_A_CHANGE })
}

const IN_USE = `
	SELECT (SELECT count(*) FROM role_held WHERE role = @id) + (SELECT count(*) FROM team_role WHERE role = @id)`

/** Only a role that nobody holds by name and no line speaks of goes. */
export function removeRole(store: Store, { role: id, actor, now }: ByActor & { role: number }): void {
	refuseUnlessSteward(store, actor)
	const { name } = findRole(store, id)
	if (id === EVERYONE || NAMED_BY_HAND.includes(id))
		throw new AppError('invalid', `${name} is part of the program and stays.`)
	const { lines, roles } = store.workspace()
	if (lines.some((line) => line.role === id))
		throw new AppError('invalid', `Lines of access still let ${name} do something. Take those out first.`)
	if (roles.some((role) => role.includes.includes(id)))
		throw new AppError('invalid', `Another role still includes ${name}. Change that one first.`)
	if (Number(store.prepare(IN_USE).pluck().get({ id })) > 0)
		throw new AppError('invalid', `People or teams still hold ${name}. Take it from them first.`)
	saveRoles(store, (all) => all.filter((role) => role.id !== id), { what: `role ${name} removed`, actor, now })
}

function findRole(store: Store, id: number): RoleEntry {
	const role = store.workspace().document.roles.find((each) => each.id === id)
	if (!role) throw new AppError('not_found', 'This role is not there.')
	return role
}

function refuseTaken(store: Store, name: string, id: number | undefined): void {
	if (name.trim() === '') throw new AppError('invalid', 'The role needs a name.')
	const taken = store.workspace().roles.some((role) => role.id !== id && textKey(role.name) === textKey(name.trim()))
	if (taken) throw new AppError('invalid', `There is a role called "${name.trim()}" already.`)
}

function saveRoles(
	store: Store,
	change: (roles: readonly RoleEntry[]) => readonly RoleEntry[],
	{ what, actor, now }: ByActor & { what: string }
): void {
	const { document } = store.workspace()
	saveWorkspace(store, { ...document, roles: [...change(document.roles)] }, { now, by: actor.person })
	const entry = { at: now, person: actor.person, through: 'People' as const, kind: 'change role' }
	writeHistory(store, { ...entry, table: null, row: null, body: { what } })
}
