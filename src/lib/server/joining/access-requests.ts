/** The doorstep: people who wait to be let in, and those who may let them. */
import type { AccessRequest } from '$lib/core/requests/joining.ts'
import { AppError } from '$lib/core/app-error.ts'
import { addMessage } from '../queue/messages.ts'
import type { Store } from '../store/store.ts'
import { describePerson } from '../rights/accounts.ts'
import { giveRole } from '../people/grants.ts'
import { granterOf } from '../rights/granter.ts'
import { BUILDER, EVERYONE, STEWARD } from '../rights/system-roles.ts'
import type { Actor, ByActor } from '../rights/rights-of-actor.ts'
import { readPersonRow, rolesOf } from '../rights/roles-held.ts'
import { appName, findWay, grantBy, holdsWhatGives, note, waysOf, type WayIn } from './ways-in.ts'

/** How far somebody has come at an app's door. */
export type AtDoor =
	| { readonly state: 'outside' }
	| { readonly state: 'waiting'; readonly words: string; readonly since: number }
	| { readonly state: 'let in' | 'turned away' }

const ADD = `
	INSERT INTO knock (app, way, person, answer, state, at) VALUES (@app, @way, @person, @answer, 'waiting', @now)
	ON CONFLICT DO NOTHING`
const LAST = `SELECT state, at, way FROM knock WHERE app = @app AND person = @person ORDER BY id DESC LIMIT 1`
const WAITING = `
	SELECT id, app, way, person, answer, role, begun_by AS begunBy, released_by AS releasedBy, at
	FROM knock WHERE state = 'waiting' ORDER BY at`
const WAITS_AT = `SELECT app FROM knock WHERE person = ? AND state = 'waiting' ORDER BY at`
const DECIDE = `
	UPDATE knock SET state = @state, decided_at = @now, decided_by = @by WHERE id = @id AND state = 'waiting'
	RETURNING app, way, person`
/** Whoever might let somebody in, by name or through a team; who really may is asked of each. */
const MIGHT_LET_IN = `
	SELECT person FROM role_held WHERE role = @steward OR (role = @role AND may_pass_on = 1)
	UNION SELECT m.person FROM team_role AS r JOIN team_member AS m ON m.team = r.team WHERE r.role = @steward`

/** Given by name alone. */
const SYSTEM_ROLES: ReadonlySet<number> = new Set([EVERYONE, BUILDER, STEWARD])

interface StoredAccessRequest {
	readonly id: number
	readonly app: number
	readonly way: number | null
	readonly person: number
	readonly answer: string
	/** What a routine asks for, who set it off and who released it: neither decides. Null where somebody waits at a door. */
	readonly role: number | null
	readonly begunBy: number | null
	readonly releasedBy: number | null
	readonly at: number
}

interface WaitingAccessRequest extends Omit<StoredAccessRequest, 'way'> {
	/** Undefined for who asked for the app itself, or whose way was shut since. */
	readonly way: WayIn | undefined
}

/** Somebody waits from now on, unless they have what is given there; those who may let in are told. */
export function requestAccess(
	store: Store,
	way: WayIn,
	{ person, answer, now }: { person: number; answer: string; now: number }
): void {
	if (holdsWhatGives(store, way, person)) return
	const { changes, lastInsertRowid } = store.prepare(ADD).run({ app: way.app, way: way.id, person, answer, now })
	if (changes === 0) return
	const [title, name] = [appName(store, way.app), describePerson(store, person)?.name ?? '']
	note(store, { actor: { person }, now }, 'wait on the doorstep', title)
	for (const keeper of mightLetIn(store, way.role)) {
		if (!accessRequestsFor(store, { person: keeper }).some(({ id }) => id === Number(lastInsertRowid))) continue
		addMessage(store, {
			cause: `knock ${lastInsertRowid} ${keeper}`,
			person: keeper,
			subject: `${name} asks to come into ${title}`,
			body: `${name} waits on the doorstep of ${title}.${answer === '' ? '' : `\n\n${way.asks}\n${answer}`}\n\nLet them in or turn them away here.`,
			link: '/waiting',
			now
		})
	}
}

/** Stewards, and those who may pass the role on that a way gives; by number. */
export function mightLetIn(store: Store, role: number | null): number[] {
	return store
		.prepare<number>(MIGHT_LET_IN)
		.pluck()
		.all({ steward: STEWARD, role: role ?? 0 })
}

/** Those whom this person may let in. */
export function listAccessRequests(store: Store, { actor }: { actor: Actor }): AccessRequest[] {
	return accessRequestsFor(store, actor).map(({ id, app, person, answer, role: named, at, way }) => {
		const who = describePerson(store, person)
		const { roles } = store.workspace()
		const given = named ?? way?.role
		const isSaid = way !== undefined || named !== null
		const gives = isSaid ? (roles.find((role) => role.id === given)?.name ?? 'a team') : null
		const chosen = isSaid
			? []
			: roles.filter((role) => !SYSTEM_ROLES.has(role.id)).map(({ id, name }) => ({ id, name }))
		const asks = named === null ? (way?.asks ?? '') : 'A routine asks for it:'
		const asked = { asks, answer, gives, roles: chosen, at }
		return { id, app: appName(store, app), name: who?.name ?? '', email: who?.email ?? '', ...asked }
	})
}

export function countAccessRequests(store: Store, actor: Actor): number {
	return accessRequestsFor(store, actor).length
}

/**
 * Lets somebody in who waits at an app's door, or turns them away; `not_found` where it is not this person's to decide.
 */
export function decideAccessRequest(
	store: Store,
	{ id, letIn, role, actor, now }: ByActor & { id: number; letIn: boolean; role?: number | undefined }
): void {
	const asked = accessRequestsFor(store, actor).find((each) => each.id === id)
	if (!asked) throw new AppError('not_found', 'Nobody waits there any more, or it is not yours to let them in.')
	const given = asked.role ?? role
	if (letIn && !asked.way && given === undefined)
		throw new AppError('invalid', 'Choose the role that they are to hold.')
	const state = letIn ? 'let in' : 'turned away'
	const decided = store.prepare(DECIDE).get({ id, state, now, by: actor.person }) as
		// The columns that the statement names.
		{ app: number; way: number | null; person: number } | undefined
	if (!decided) throw new AppError('not_found', 'Nobody waits there any more.')
	const title = appName(store, decided.app)
	const { person } = decided
	if (letIn && asked.way) grantBy(store, asked.way, { person, actor, now })
	else if (letIn && given !== undefined) giveRole(store, { person, role: given, mayPassOn: false, actor, now })
	const name = describePerson(store, decided.person)?.name ?? ''
	note(store, { actor, now }, state, `${title}, ${name}`)
	if (asked.role !== null) return tellOfRole(store, { id, person, role: asked.role, isGiven: letIn, now })
	addMessage(store, {
		cause: `knock ${id} ${state}`,
		person: decided.person,
		subject: letIn ? `${title} is open to you` : `${title} is not open to you`,
		body: letIn
			? `${name},\n\nyou were let into ${title}. Open it by this link.`
			: `${name},\n\nwhoever looks after ${title} did not let you in. Ask them, if you think that you should be.`,
		link: letIn ? `/app/${decided.app}` : undefined,
		now
	})
}

/** Of a role that a routine asked for they learn once they have it; that it was refused is nothing that they asked for. */
function tellOfRole(
	store: Store,
	{ id, person, role, isGiven, now }: { id: number; person: number; role: number; isGiven: boolean; now: number }
): void {
	if (!isGiven) return
	const called = store.workspace().roles.find((each) => each.id === role)?.name ?? ''
	const [subject, body] = [`You are ${called} now`, `You were given the role ${called}.`]
	addMessage(store, { cause: `knock ${id} given`, person, subject, body, link: '/', now })
}

/** Whoever has what a way gives is in, however they came by it: a steward may have given it by hand. */
export function standingAtDoor(store: Store, { app, person }: { app: number; person: number }): AtDoor {
	if (waysOf(store, app).some((way) => holdsWhatGives(store, way, person))) return { state: 'let in' }
	const last = store.prepare<{ state: string; at: number; way: number | null }>(LAST).get({ app, person })
	if (last?.state === 'turned away') return { state: 'turned away' }
	const way = last?.way ? findWay(store, last.way) : undefined
	return last?.state === 'waiting' && way
		? { state: 'waiting', words: way.words, since: last.at }
		: { state: 'outside' }
}

/** The apps at whose doors somebody waits. */
export function waitsAt(store: Store, { person }: { person: number }): { app: number; name: string }[] {
	const apps = store.prepare<number>(WAITS_AT).pluck().all(person)
	return apps
		.filter((app) => standingAtDoor(store, { app, person }).state === 'waiting')
		.map((app) => ({ app, name: appName(store, app) }))
}

/** Stewards let anybody in, others those whom they may give the role that waits; nobody themselves. */
function accessRequestsFor(store: Store, actor: Actor): WaitingAccessRequest[] {
	const me = readPersonRow(store, actor.person)
	if (!me || rolesOf(store, actor.person, me).size === 0) return []
	const granter = granterOf(store, actor)
	return store
		.prepare<StoredAccessRequest>(WAITING)
		.all()
		.flatMap(({ way: id, ...waiting }): WaitingAccessRequest[] => {
			const way = id === null ? undefined : findWay(store, id)
			if (waiting.person === actor.person || (way && holdsWhatGives(store, way, waiting.person))) return []
			// Nobody decides on what they set off themselves, or what they have released.
			if (waiting.begunBy === actor.person || waiting.releasedBy === actor.person) return []
			const role = waiting.role ?? way?.role ?? null
			const mayPassOn = role !== null && granter.mayPassOn.has(role)
			return granter.isSteward || mayPassOn ? [{ ...waiting, way }] : []
		})
}
