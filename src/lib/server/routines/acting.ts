/**
 * As whom a routine acts: as whoever pressed, under their rights of this moment; as a role of its own; or as nobody, on the
 * data as it is, where it writes nothing.
 *
 * Whoever released a routine with a role must be able to give that role, at each run: else it stops, and does nothing more.
 */
import { AppError } from '$lib/core/app-error.ts'
import { mayGrant } from '$lib/core/access/granting.ts'
import type { Rights } from '$lib/core/access/rights.ts'
import type { Moment } from '$lib/core/formula/evaluate/fold.ts'
import { entryOfStart, type Routine } from '$lib/core/routine/routine.ts'
import { granterOf } from '../rights/granter.ts'
import { momentAt, standingOf, type Actor } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'

export interface Acting {
	/** Who acts on rows; nobody where it writes nothing. */
	readonly actor: Actor | undefined
	/** Whose sight its conditions have; the data as it is, where there is none. */
	readonly rights: Rights | undefined
	readonly moment: Moment
}

export interface Started {
	readonly routine: Routine
	readonly release: { readonly app: number; readonly number: number }
	/** Whose doing started it; nobody's, for a clock. */
	readonly by: Actor | undefined
	readonly now: number
}

const RELEASED_BY = `SELECT made_by FROM release WHERE app = ? AND number = ?`
/** Of whoever it is that nobody is. */
const NOBODY = 0

/** Throws where whoever pressed may do nothing any more; a role that may not be put to work is asked for apart. */
export function actingOf(store: Store, { routine, by, now }: Omit<Started, 'release'>): Acting {
	const role = routine.acts ?? undefined
	if (role !== undefined) return actingAs(store, { ...(by ?? { person: NOBODY }), role }, now)
	if (!by || !entryOfStart(routine.start).isPressed)
		return { actor: undefined, rights: undefined, moment: momentAt(store.workspace().timeZone, now) }
	// Conditions would read as not holding, and what follows "Otherwise" would be done.
	if (standingOf(store, by, now).roles.size === 0)
		throw new AppError('forbidden', 'Whoever pressed may do nothing here any more.')
	return actingAs(store, by, now)
}

/** Throws unless whoever released a routine may give the role that it acts as; in the Lookout, whoever looks. */
export function refuseUnlessMayAct(store: Store, { routine, release, by }: Omit<Started, 'now'>): void {
	const role = routine.acts ?? undefined
	if (role === undefined) return
	const maker = by?.lookedAtBy ?? store.prepare<number>(RELEASED_BY).pluck().get(release.app, release.number)
	refuseUnlessGives(store, maker, role)
}

/** A role may be put to work by who may give it; `maker`: the number of their row. */
export function refuseUnlessGives(store: Store, maker: number | undefined, id: number): void {
	const role = store.workspace().roles.find((each) => each.id === id)
	if (!role) throw new AppError('invalid', 'The role that it acts as is gone.')
	const gives = maker !== undefined && mayGrant(granterOf(store, { person: maker }), role, NOBODY).ok
	if (!gives)
		throw new AppError(
			'forbidden',
			`It acts as ${role.name}, which whoever released it may not give. Somebody who may must release it under their own name.`
		)
}

function actingAs(store: Store, actor: Actor, now: number): Acting {
	const { rights, moment } = standingOf(store, actor, now)
	return { actor, rights, moment }
}
