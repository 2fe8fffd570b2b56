/** Who has an app, by which roles, and giving it to somebody in one go. Having an app is holding a role that opens it. */
import type { SharedApp } from '$lib/core/requests/people.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { AppError } from '$lib/core/app-error.ts'
import { tablesOf } from '$lib/core/app/walk-app.ts'
import { liveApps, type LiveApp } from '../releases/live.ts'
import { addMessage } from '../queue/messages.ts'
import { readRows } from '../rows/read.ts'
import type { Store } from '../store/store.ts'
import { describePerson } from '../rights/accounts.ts'
import { granterOf } from '../rights/granter.ts'
import { giveRole } from './grants.ts'
import { readPersonRow, rolesOf, visitedApp } from '../rights/roles-held.ts'
import { BUILDER } from '../rights/system-roles.ts'
import { joinTeam } from './teams.ts'

/** As many as the sheet of people lists. */
const SHOWN_PEOPLE = 200

/** As far as it is theirs to know: the people whose rows they see, and the apps that they may give to somebody. */
export function readSharing(store: Store, { actor, now }: ByActor): SharedApp[] {
	const granter = granterOf(store, actor)
	if (!granter.isSteward && granter.mayPassOn.size === 0)
		throw new AppError('forbidden', 'Apps are shared by stewards, and by those who may pass a role on.')
	const { people: table } = store.workspace().catalogue
	const request = {
		table: table.id,
		columns: [],
		sort: { column: table.label, descending: false },
		limit: SHOWN_PEOPLE
	}
	const people = readRows(store, actor, request, now).rows.flatMap(({ id: row }) => {
		const person = store.ids.fromId(table.id, row)
		return person === undefined ? [] : [{ row, held: rolesOf(store, person, readPersonRow(store, person)) }]
	})
	return liveApps(store).flatMap((app) => {
		const roles = openingRoles(store, app)
		if (!granter.isSteward && !roles.some((role) => granter.mayPassOn.has(role))) return []
		const having = people.flatMap(({ row, held }) => {
			const by = roles.filter((role) => held.has(role))
			const builds = held.has(BUILDER)
			return by.length > 0 || builds ? [{ row, roles: by, builds }] : []
		})
		return [{ id: app.id, name: app.document.name, roles, people: having }]
	})
}

export interface Sharing extends ByActor {
	readonly app: number
	readonly person: number
	/** A role that opens the app, or the builders' for who is to build it too. */
	readonly role: number | null
	readonly team: number | null
	/** Whether a message goes with it, in these words. */
	readonly tells: boolean
	readonly words: string
}

/** Gives somebody an app: a role that opens it, a team, or both, with a message or without. All of it or nothing. */
export function shareApp(store: Store, { app, person, role, team, tells, words, actor, now }: Sharing): void {
	const found = liveApps(store).find((each) => each.id === app)
	const who = describePerson(store, person)
	if (!found || !who) throw new AppError('not_found', 'Choose an app that is released, and somebody who is there.')
	if (role === null && team === null)
		throw new AppError('invalid', 'Say as what they get it: choose a role, or a team that holds one.')
	if (role !== null && role !== BUILDER && !openingRoles(store, found).includes(role))
		throw new AppError(
			'invalid',
			`That role does not open ${found.document.name}: no line of it reaches a table there.`
		)
	if (role !== null) giveRole(store, { person, role, mayPassOn: false, actor, now })
	if (team !== null) joinTeam(store, { person, team, actor, now })
	if (!tells) return
	const giver = describePerson(store, actor.person)?.name ?? 'A steward'
	const own = words.trim() === '' ? '' : `\n\n${words.trim().slice(0, 2000)}`
	addMessage(store, {
		cause: `share ${app} ${person} ${now}`,
		person,
		subject: `${giver} shares ${found.document.name} with you`,
		body: `${who.name},\n\n${giver} has opened ${found.document.name} to you.${own}\n\nOpen it by this link.`,
		link: role === BUILDER ? `/bench/${app}/screens` : `/app/${app}`,
		now
	})
}

/** Everybody who holds a role that opens an app as it is released now, visitors and suspended people aside. */
export function peopleWithApp(store: Store, app: number): ReadonlySet<number> {
	const found = liveApps(store).find((each) => each.id === app)
	const roles = found ? openingRoles(store, found) : []
	const people = allPeople(store).filter((person) => {
		const held = rolesOf(store, person, readPersonRow(store, person))
		return visitedApp(store, person) === undefined && roles.some((role) => held.has(role))
	})
	return new Set(people)
}

/** Tells those who have an app since a release, and had not before. */
export function tellOfRelease(
	store: Store,
	{ app, number, before, actor, now }: ByActor & { app: number; number: number; before: ReadonlySet<number> }
): number {
	const name = liveApps(store).find((each) => each.id === app)?.document.name ?? ''
	const told = [...peopleWithApp(store, app)].filter((person) => !before.has(person) && person !== actor.person)
	for (const person of told) {
		addMessage(store, {
			cause: `release ${app} ${number} ${person}`,
			person,
			subject: `${name} is open to you`,
			body: `${describePerson(store, person)?.name ?? ''},\n\n${name} has been released, and is open to you. Open it by this link.`,
			link: `/app/${app}`,
			now
		})
	}
	return told.length
}

/** Roles whose lines let see or add something that the released app shows. */
function openingRoles(store: Store, { document }: LiveApp): number[] {
	const tables = new Set(tablesOf(document).map(({ table }) => table))
	const { lines, roles } = store.workspace()
	const opens = (role: number) =>
		lines.some(
			(line) =>
				line.role === role && tables.has(line.table) && line.verbs.some((verb) => verb === 'see' || verb === 'add')
		)
	return roles.filter(({ id }) => opens(id)).map(({ id }) => id)
}

/** Everybody, for telling them: nothing of their rows goes further. */
function allPeople(store: Store): number[] {
	const { people } = store.workspace().catalogue
	return store.prepare<number>(`SELECT n FROM t${people.id}`).pluck().all()
}
