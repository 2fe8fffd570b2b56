/** The people, teams and roles of the workspace, for those who look after them or may pass a role on. */
import type { HeldRole, PeopleSheet, ShownPerson, ShownRole } from '$lib/core/requests/people.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { AppError } from '$lib/core/app-error.ts'
import { mayGrant } from '$lib/core/access/granting.ts'
import type { WireRow } from '$lib/core/query/wire.ts'
import { describeColumns } from '../rows/describe-columns.ts'
import { readRows } from '../rows/read.ts'
import type { Store } from '../store/store.ts'
import { describePerson } from '../rights/accounts.ts'
import { granterOf } from '../rights/granter.ts'
import { fittingRoles, readPersonRow } from '../rights/roles-held.ts'
import { NAMED_BY_HAND } from '../rights/stewardship.ts'
import { EVERYONE } from '../rights/system-roles.ts'

const SHOWN = 200
const DIRECT = `SELECT role, may_pass_on AS passOn FROM role_held WHERE person = ? ORDER BY role`
const BY_TEAM = `
	SELECT r.role, t.name FROM team_member AS m JOIN team AS t ON t.id = m.team JOIN team_role AS r ON r.team = t.id
	WHERE m.person = ? ORDER BY t.name_key`
const TEAMS_OF = `SELECT team FROM team_member WHERE person = ?`
const STATE = `
	SELECT (SELECT 1 FROM suspended WHERE person = @person) AS suspended,
		(SELECT 1 FROM account WHERE person = @person UNION SELECT 1 FROM identity WHERE person = @person) AS account,
		(SELECT max(at) FROM (
			SELECT last_in AS at FROM account WHERE person = @person
			UNION SELECT last_in FROM identity WHERE person = @person)) AS lastIn,
		(SELECT 1 FROM second_factor WHERE person = @person AND confirmed_at IS NOT NULL) AS factor,
		(SELECT 1 FROM pass WHERE person = @person AND kind = 'invitation' AND used_at IS NULL AND expires_at > @now LIMIT 1)
			AS invited`
interface StoredState {
	readonly suspended: 1 | null
	readonly account: 1 | null
	/** Epoch ms. */
	readonly lastIn: number | null
	readonly factor: 1 | null
	readonly invited: 1 | null
}
const TEAMS = `SELECT id, name FROM team ORDER BY name_key`
const TEAM_ROLES = `SELECT role FROM team_role WHERE team = ? ORDER BY role`
const TEAM_MEMBERS = `SELECT person FROM team_member WHERE team = ?`
const HOLDERS = `
	SELECT count(*) FROM (
		SELECT person FROM role_held WHERE role = @role
		UNION SELECT m.person FROM team_role AS r JOIN team_member AS m ON m.team = r.team WHERE r.role = @role)`

/** `starts`: only people whose name begins so. */
export function readPeople(store: Store, { actor, now, starts = '' }: ByActor & { starts?: string }): PeopleSheet {
	const { catalogue, marked } = store.workspace()
	const granter = granterOf(store, actor)
	const who = describePerson(store, actor.person)
	if (!granter.isSteward && granter.mayPassOn.size === 0 && !who?.isBuilder)
		throw new AppError(
			'forbidden',
			'People and roles are looked after by stewards, and by those who may pass a role on.'
		)
	const { people } = catalogue
	const sort = { column: people.label, descending: false }
	const request = { table: people.id, sort, limit: SHOWN, labelStarts: starts, offers: true }
	const page = readRows(store, actor, request, now)
	return {
		table: people.id,
		label: people.label,
		columns: describeColumns(people, page.columns).filter((column) => !column.condition),
		asMe: granter.isSteward
			? people.columns
					.filter((column) => !column.condition)
					.map(({ id, name, openAsMe = false }) => ({ id, name, open: openAsMe }))
			: [],
		marked: [...marked],
		people: page.rows.map((row) => describe(store, row, { actor, now })),
		more: page.next !== null,
		roles: rolesFor(store, { actor, now }),
		teams: teamsFor(store),
		isSteward: granter.isSteward
	}
}

function describe(store: Store, row: WireRow, { actor, now }: ByActor): ShownPerson {
	const { people } = store.workspace().catalogue
	const person = store.ids.fromId(people.id, row.id) ?? 0
	const found = store.prepare<StoredState>(STATE).get({ person, now })
	const state = found?.suspended ? 'suspended' : found?.account ? 'active' : found?.invited ? 'invited' : 'not invited'
	const teams = store.prepare<number>(TEAMS_OF).pluck().all(person)
	return {
		row,
		state,
		roles: rolesHeldBy(store, person),
		teams,
		lastIn: found?.lastIn ?? null,
		isMe: person === actor.person,
		hasFactor: found?.factor === 1,
		keepsPeople: describePerson(store, person)?.isBuilder === true ? people.keepers.includes(person) : null
	}
}

function rolesHeldBy(store: Store, person: number): HeldRole[] {
	const direct = store.prepare<{ role: number; passOn: number }>(DIRECT).all(person)
	const byTeam = store.prepare<{ role: number; name: string }>(BY_TEAM).all(person)
	const row = readPersonRow(store, person)
	return [
		...direct.map(({ role, passOn }) => ({ role, mayPassOn: passOn === 1 })),
		...byTeam.map(({ role, name }) => ({ role, through: name, mayPassOn: false })),
		...(row ? fittingRoles(store, row) : []).map((role) => ({ role, through: 'its condition', mayPassOn: false }))
	]
}

function rolesFor(store: Store, { actor }: ByActor): ShownRole[] {
	const { document, lines } = store.workspace()
	const granter = granterOf(store, actor)
	return document.roles
		.filter((role) => role.id !== EVERYONE)
		.map(({ id, name, about = '', includes, where = '' }) => ({
			id,
			name,
			about,
			includes,
			where,
			holders: Number(store.prepare(HOLDERS).pluck().get({ role: id })),
			lines: lines.filter((line) => line.role === id).length,
			fixed: NAMED_BY_HAND.includes(id),
			mayGrant: mayGrant(granter, { id, name }, -1).ok
		}))
}

function teamsFor(store: Store): PeopleSheet['teams'] {
	const { people } = store.workspace().catalogue
	return store
		.prepare<{ id: number; name: string }>(TEAMS)
		.all()
		.map((team) => ({
			...team,
			members: store
				.prepare<number>(TEAM_MEMBERS)
				.pluck()
				.all(team.id)
				.map((n) => store.ids.toId(people.id, n)),
			roles: store.prepare<number>(TEAM_ROLES).pluck().all(team.id)
		}))
}
