/**
 * Ways into an app beside being named: an address at a domain, an invitation code, a pass phrase, the doorstep, or open
 * to visitors. Stewards open and close them; each puts whoever comes in into one role or team, on the steward's behalf,
 * so that a way whose steward is one no more lets nobody in.
 */
import type { ShownWay, WayKind } from '$lib/core/requests/joining.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { AppError } from '$lib/core/app-error.ts'
import { textKey } from '$lib/core/text/key.ts'
import { writeHistory } from '../history/history.ts'
import type { Store } from '../store/store.ts'
import { describePerson } from '../rights/accounts.ts'
import { giveRole } from '../people/grants.ts'
import { readPersonRow, rolesOf } from '../rights/roles-held.ts'
import { NAMED_BY_HAND, refuseUnlessSteward } from '../rights/stewardship.ts'
import { EVERYONE } from '../rights/system-roles.ts'
import { joinTeam } from '../people/teams.ts'
import { closeToVisitors, openToVisitors } from './visitors.ts'

export interface WayIn extends Omit<ShownWay, 'appName' | 'gives' | 'openedBy'> {
	/** The domain or the code; of a phrase its hash, which stays on the server. */
	readonly word: string
	readonly by: number
}

export type NewWay = Pick<WayIn, 'app' | 'kind' | 'word' | 'role' | 'team' | 'usesLeft' | 'endsAt' | 'asks' | 'words'>

const COLUMNS = `id, app, kind, word, role, team, uses_left AS usesLeft, ends_at AS endsAt, asks, words, made_by AS by`
const OF_APP = `SELECT ${COLUMNS} FROM way_in WHERE app = ? ORDER BY id`
const ALL = `SELECT ${COLUMNS} FROM way_in ORDER BY app, id`
const FIND = `SELECT ${COLUMNS} FROM way_in WHERE id = ?`
const ADD = `
	INSERT INTO way_in (app, kind, word, role, team, uses_left, ends_at, asks, words, made_at, made_by)
	VALUES (@app, @kind, @word, @role, @team, @usesLeft, @endsAt, @asks, @words, @now, @by)`
const CLOSE = `DELETE FROM way_in WHERE id = ?`
const USE = `UPDATE way_in SET uses_left = uses_left - 1 WHERE id = ? AND uses_left > 0`
const IS_MEMBER = `SELECT 1 FROM team_member WHERE team = ? AND person = ?`
/** Who waited by a way that is closed stands outside again, and may take another. */
const SEND_OFF = `DELETE FROM knock WHERE way = ? AND state = 'waiting'`
const APP_NAME = `SELECT name FROM app WHERE id = ? AND live_release IS NOT NULL`
const TEAM_NAME = `SELECT name FROM team WHERE id = ?`

/** Gives the number of the new way in; refuses what is open already or would let anybody in. */
export function addWay(store: Store, { actor, now, ...way }: NewWay & ByActor): number {
	refuseUnlessSteward(store, actor)
	const app = appName(store, way.app)
	refuseUnfit(store, way)
	const word = way.kind === 'domain' ? way.word.trim().toLowerCase().replace(/^@/, '') : way.word.trim()
	const others = waysOf(store, way.app)
	if (way.kind === 'code' && others.some((each) => each.kind === 'code' && sameCode(each.word, word)))
		throw new AppError('invalid', 'This app has a way in with that code already. Choose another.')
	if (ONLY_ONE.has(way.kind) && others.some((each) => each.kind === way.kind))
		throw new AppError('invalid', 'This app has that way in already. Close it first, to open it differently.')
	const added = store.prepare(ADD).run({ ...way, word, now, by: actor.person })
	if (way.kind === 'visitors' && way.role !== null)
		openToVisitors(store, { app: way.app, name: app, role: way.role, actor, now })
	note(store, { actor, now }, 'open a way in', `${app}, ${way.kind}`)
	return Number(added.lastInsertRowid)
}

/** One doorstep, one phrase, one role for visitors; codes and domains as many as are wanted. */
const ONLY_ONE: ReadonlySet<WayKind> = new Set(['phrase', 'doorstep', 'visitors'])

/** Closes a way in; who came as a visitor by it goes, and so do those who still wait there. */
export function closeWay(store: Store, { way: id, actor, now }: ByActor & { way: number }): void {
	refuseUnlessSteward(store, actor)
	const way = findWay(store, id)
	if (!way) throw new AppError('not_found', 'This way in is closed already.')
	if (way.kind === 'visitors') closeToVisitors(store, { app: way.app, actor, now })
	store.prepare(SEND_OFF).run(id)
	store.prepare(CLOSE).run(id)
	note(store, { actor, now }, 'close a way in', `${appName(store, way.app)}, ${way.kind}`)
}

/** All ways in, for stewards. */
export function listWays(store: Store, { actor }: ByActor): ShownWay[] {
	refuseUnlessSteward(store, actor)
	return store
		.prepare<WayIn>(ALL)
		.all()
		.map(({ by, ...way }) => ({
			...way,
			word: way.kind === 'phrase' ? '' : way.word,
			appName: appName(store, way.app),
			gives: givenBy(store, way),
			openedBy: describePerson(store, by)?.name ?? ''
		}))
}

export function waysOf(store: Store, app: number): WayIn[] {
	return store.prepare<WayIn>(OF_APP).all(app)
}

export function findWay(store: Store, id: number): WayIn | undefined {
	return store.prepare<WayIn>(FIND).get(id)
}

/** Somebody comes in by a way. Uses of it are counted down; it gives its role or team once. */
export function letInBy(store: Store, way: WayIn, { person, now }: { person: number; now: number }): void {
	const over = isOver(way, now)
	if (over !== undefined) throw new AppError('invalid', over)
	if (way.usesLeft !== null && store.prepare(USE).run(way.id).changes === 0) throw new AppError('invalid', USED_UP)
	if (!describePerson(store, way.by)?.isSteward)
		throw new AppError('forbidden', 'This way in is no longer open. Ask whoever looks after the workspace.')
	grantBy(store, way, { person, actor: { person: way.by }, now })
	note(store, { actor: { person }, now }, 'come in', `${appName(store, way.app)}, ${way.kind}`)
}

/** What a way gives, given by somebody: for the doorstep whoever lets in, else the steward who opened it. */
export function grantBy(store: Store, way: WayIn, { person, actor, now }: ByActor & { person: number }): void {
	// What somebody holds already stays as it is, with the right to pass it on.
	if (holdsWhatGives(store, way, person)) return
	if (way.role !== null) giveRole(store, { person, role: way.role, mayPassOn: false, actor, now })
	else if (way.team !== null) joinTeam(store, { person, team: way.team, actor, now })
}

/** Whether somebody has the role or is in the team that a way leads to, by name or otherwise. */
export function holdsWhatGives(store: Store, { role, team }: WayIn, person: number): boolean {
	if (team !== null) return store.prepare(IS_MEMBER).get(team, person) !== undefined
	return role !== null && rolesOf(store, person, readPersonRow(store, person)).has(role)
}

export const USED_UP = 'This code has been used as often as it may be. Ask for another.'

/** Why a way lets nobody in any more, in one sentence. */
export function isOver({ usesLeft, endsAt }: WayIn, now: number): string | undefined {
	if (endsAt !== null && endsAt <= now) return 'This code’s time is over. Ask for another.'
	return usesLeft === 0 ? USED_UP : undefined
}

export function sameCode(a: string, b: string): boolean {
	const plain = (code: string) => textKey(code).replace(/[\s-]+/g, '')
	return plain(a) === plain(b)
}

/** Of an app that is released; undefined for any other. */
export function findAppName(store: Store, app: number): string | undefined {
	return store.prepare<string>(APP_NAME).pluck().get(app)
}

export function appName(store: Store, app: number): string {
	const name = findAppName(store, app)
	if (name === undefined) throw new AppError('not_found', 'This app is not there, or is not released yet.')
	return name
}

function givenBy(store: Store, { role, team }: Pick<WayIn, 'role' | 'team'>): string {
	if (team !== null) return `the team ${String(store.prepare(TEAM_NAME).pluck().get(team) ?? '')}`
	return store.workspace().roles.find((each) => each.id === role)?.name ?? 'a role that is gone'
}

const DOMAIN = /^@?[a-z0-9-]+(\.[a-z0-9-]+)+$/i

function refuseUnfit(store: Store, { kind, word, role, team, usesLeft, endsAt }: NewWay): void {
	const wrong = (message: string) => new AppError('invalid', message)
	if ((role === null) === (team === null)) throw wrong('Say which role, or which team, this way puts people into.')
	if (role !== null) {
		const found = store.workspace().roles.some((each) => each.id === role)
		if (!found || role === EVERYONE) throw wrong('That role is not there.')
		if (NAMED_BY_HAND.includes(role)) throw wrong('Builders and stewards are named by hand: no way in leads there.')
	}
	if (team !== null && store.prepare(TEAM_NAME).get(team) === undefined) throw wrong('That team is not there.')
	if (kind === 'visitors' && role === null) throw wrong('Visitors hold a role of their own, not a team.')
	if (kind === 'domain' && !DOMAIN.test(word.trim())) throw wrong('A domain is written like varrow.example.')
	if (kind === 'code' && word.replace(/[\s-]/g, '').length < 6)
		throw wrong('A code needs six letters or digits at least.')
	if (kind !== 'code' && (usesLeft !== null || endsAt !== null))
		throw wrong('Only a code has a limit and an end. Close the other ways when they are no longer wanted.')
}

export function note(store: Store, { actor, now }: ByActor, kind: string, name: string): void {
	const entry = { at: now, person: actor.person, through: 'Ways in' as const, kind, table: null, row: null }
	writeHistory(store, { ...entry, body: { name } })
	store.touched.add('access')
}
