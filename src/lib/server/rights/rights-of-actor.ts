/**
 * Who is asking, and what they may do now: read in the same snapshot as the rows.
 */
import { rightsOf, withinVisibilityOf, type Reader, type Rights } from '$lib/core/access/rights.ts'
import { closeRoles, type Line } from '$lib/core/access/types.ts'
import type { Moment } from '$lib/core/formula/evaluate/fold.ts'
import type { Table } from '$lib/core/model/table.ts'
import type { Store } from '../store/store.ts'
import { rememberHeld } from './access-epoch.ts'
import { readPersonRow, rolesOf } from './roles-held.ts'
import { asShownTo } from './shown-me.ts'

export interface Actor {
	/** The number of the person's row. */
	readonly person: number
	/** Of a routine that acts as a role: the role, under which alone it acts; the person is whose doing it was, or 0. */
	readonly role?: number
	/** Set when a keeper looks as this person; then nothing is saved. */
	readonly lookedAtBy?: number
}

/** Who asks or acts, and when. */
export interface ByActor {
	readonly actor: Actor
	/** Epoch ms. */
	readonly now: number
}

export interface Standing {
	readonly rights: Rights
	readonly moment: Moment
	readonly roles: ReadonlySet<number>
	readonly person: number
}

const OWN_ZONE = `SELECT time_zone FROM person_setting WHERE person = ?`
const GRANTED_TABLES = `SELECT DISTINCT table_id FROM row_grant WHERE person = ?`

/** `now`: epoch ms. */
export function standingOf(store: Store, actor: Actor, now: number): Standing {
	if (actor.role !== undefined) return roleStanding(store, actor.role, now)
	const own = ownStanding(store, actor.person, now)
	if (actor.lookedAtBy === undefined) return own
	const looker = actor.lookedAtBy
	const keeps = (table: Table) => table.keepers.includes(looker)
	const lookers = ownStanding(store, looker, now).rights
	// Lines were folded with what is true of the person; what is written for them to be tried is not told more than the looker.
	const moment = own.moment.me ? { ...own.moment, me: asShownTo(store, lookers, own.moment.me) } : own.moment
	return { ...own, moment, rights: { ...withinVisibilityOf(own.rights, lookers, keeps), moment } }
}

function ownStanding(store: Store, person: number, now: number): Standing {
	const { lines } = store.workspace()
	return standingUnder(store, lines, { person, now, granted: heldBy(store, person).granted })
}

/** The lines of a role, with those it includes, and nobody who looks: `me` is blank, nothing is granted, nothing kept. */
function roleStanding(store: Store, role: number, now: number): Standing {
	const { lines, roles: all, timeZone } = store.workspace()
	const roles = closeRoles([role], all)
	const moment = momentAt(timeZone, now)
	const reader: Reader = { person: 0, roles, grants: NO_GRANTS, keeps: () => false }
	return { rights: rightsOf(reader, lines, moment), moment, roles, person: 0 }
}

/** What some lines alone come to for somebody, without what was asked of them. For keepers, who see every row anyhow. */
export function rightsUnder(store: Store, person: number, lines: readonly Line[], now: number): Rights {
	return standingUnder(store, lines, { person, now, granted: NO_GRANTS }).rights
}

const NO_GRANTS: ReadonlySet<number> = new Set()

function standingUnder(
	store: Store,
	lines: readonly Line[],
	{ person, now, granted }: { person: number; now: number; granted: ReadonlySet<number> }
): Standing {
	const { me, roles, zone } = heldBy(store, person)
	const moment: Moment = { ...momentAt(zone ?? store.workspace().timeZone, now), ...(me ? { me } : {}) }
	const reader: Reader = {
		person,
		roles,
		grants: roles.size > 0 ? granted : NO_GRANTS,
		keeps: (table) => roles.size > 0 && table.keepers.includes(person)
	}
	return { rights: rightsOf(reader, lines, moment), moment, roles, person }
}

/** What somebody holds, whatever the moment. */
const heldBy = rememberHeld((store, person) => {
	const me = readPersonRow(store, person)
	return {
		me,
		roles: rolesOf(store, person, me),
		granted: new Set(store.prepare<number>(GRANTED_TABLES).pluck().all(person)),
		zone: store.prepare<string>(OWN_ZONE).pluck().get(person)
	}
})

/** Somebody's own date, which may differ from the workspace's, and the instant. */
export function momentOf(store: Store, person: number, now: number): { today: string; now: string } {
	return momentAt(heldBy(store, person).zone ?? store.workspace().timeZone, now)
}

/** The workspace's date and the instant, for one request. */
export function momentAt(timeZone: string, now: number): { today: string; now: string } {
	const last = LAST_MOMENTS.get(timeZone)
	if (last?.at === now) return last.moment
	const minute = Math.floor(now / 60_000)
	const today = last?.minute === minute ? last.moment.today : dateIn(timeZone, now)
	const moment = { today, now: new Date(now).toISOString() }
	LAST_MOMENTS.set(timeZone, { at: now, minute, moment })
	return moment
}

/** Working a date out takes longer than reading a row, and it is asked with each; no zone turns within a minute. */
const LAST_MOMENTS = new Map<string, { at: number; minute: number; moment: { today: string; now: string } }>()

function dateIn(timeZone: string, now: number): string {
	const format = new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' })
	return format.format(now)
}
