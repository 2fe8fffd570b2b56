/** Messages and asks for an address that belongs to nobody here, composed as the role that the routine acts as reads the row. */
import { AppError } from '$lib/core/app-error.ts'
import { check } from '$lib/core/formula/check/check.ts'
import { writeHistory } from '../history/history.ts'
import { addMessage } from '../queue/messages.ts'
import { scopeOf } from './conditions.ts'
import { composeAs } from './compose.ts'
import type { Store } from '../store/store.ts'
import type { StepNow } from './step-now.ts'
import { workOut } from './work-out.ts'

const ADDRESS = /^[^\s@<>,;"]+@[^\s@<>,;"]+\.[^\s@<>,;"]+$/

interface MayLeave {
	readonly to: string
	readonly outside?: string | null | undefined
}

/** The address that a formula comes to, where the step may go outside and a role acts; the data are read as they are, as for a person. */
export function addressOutside({ to, outside }: MayLeave, now: StepNow): string | undefined {
	const { store, at, acting } = now
	if (!outside || acting.actor?.role === undefined) return undefined
	const { expr } = check(to, scopeOf(now))
	if (expr?.type.kind !== 'text') return undefined
	const value = workOut(store, expr, { ...at, moment: acting.moment })
	const email = typeof value === 'string' ? value.trim() : ''
	return ADDRESS.test(email) ? email : undefined
}

export interface Letter {
	readonly email: string
	readonly subject: string
	readonly body: string
	readonly cause: string
	/** A path of ours. */
	readonly link?: string
}

/** By mail alone; the Logbook says to which address something left, and by which routine. */
export function sendOutside(now: StepNow, { email, subject, body, cause, link }: Letter): void {
	const { store, routine, at, by } = now
	refuseAboveCeiling(store, { email, now: now.now })
	addMessage(store, {
		...{ cause, person: 0, to: { name: '', email }, link, now: now.now },
		...{ subject: wordsOutside(subject, now), body: wordsOutside(body, now) }
	})
	const on = { table: at?.table.id ?? null, row: at?.n ?? null }
	const entry = { at: now.now, person: by, through: `routine ${routine}` as const, kind: 'write outside', ...on }
	writeHistory(store, { ...entry, body: { to: email } })
}

/** So many letters a day to one address; more is no use to anybody, and might be somebody's mistake. */
const MOST_LETTERS = 100
const LATELY = `SELECT count(*) FROM (SELECT 1 FROM message WHERE to_email = ? AND made_at > ? LIMIT ${MOST_LETTERS})`

function refuseAboveCeiling(store: Store, { email, now }: { email: string; now: number }): void {
	if (
		(store
			.prepare<number>(LATELY)
			.pluck()
			.get(email, now - 86_400_000) ?? 0) < MOST_LETTERS
	)
		return
	throw new AppError(
		'busy',
		`A hundred letters went to ${email} within a day. Look at what is sent there, then try this again.`
	)
}

export function wordsOutside(text: string, { store, at, outer, held, acting }: StepNow): string {
	const { rights, moment } = acting
	if (!rights) throw new AppError('forbidden', 'It writes outside, and acts as no role whose sight that would have.')
	return composeAs(store, text, { at, outer, here: held.given, sight: { rights, moment } })
}
