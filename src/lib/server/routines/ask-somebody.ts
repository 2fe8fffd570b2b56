/**
 * The step that asks somebody: done again whenever its run is looked at, until there is an answer, or the time for one is over.
 *
 * Whoever is asked answers under their own rights: they are asked only for what they may change, on a row that they see.
 */
import { AppError } from '$lib/core/app-error.ts'
import type { StepOf } from '$lib/core/routine/routine.ts'
import { getColumn } from '$lib/core/model/table.ts'
import { addMessage } from '../queue/messages.ts'
import { readPersonRow, rolesOf } from '../rights/roles-held.ts'
import { readRows } from '../rows/read.ts'
import { readStoredRow } from '../store/stored-row.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import { addressOutside, sendOutside } from './outside.ts'
import { addAsk, addAskLink, askLink, closeAsk, findAskOf, passOn, remindAgain, type Ask } from './asks.ts'
import { composeFor } from './compose.ts'
import { recipientOf, rowOf, type StepNow, type StepResult } from './step-now.ts'
import { waitUntil } from './wait-until.ts'

type AskStep = StepOf<'ask'>

/** It is looked at once a day at least: whoever was asked may have left. */
const LOOKED_AT_MS = 86_400_000

export function askSomebody(step: AskStep, now: StepNow): StepResult {
	const ask = findAskOf(now.store, now.cause)
	if (!ask) return begin(step, now)
	if (ask.state === 'answered') return { outcome: { kind: 'held', held: true }, cameTo: 'answered', person: ask.person }
	if (isFilledIn(step, ask, now)) {
		closeAsk(now.store, { id: ask.id, state: 'answered', now: now.now })
		return { outcome: { kind: 'held', held: true }, cameTo: 'filled in' }
	}
	if (ask.endsAt !== null && now.now >= ask.endsAt) {
		closeAsk(now.store, { id: ask.id, state: 'ended', now: now.now })
		return { outcome: { kind: 'held', held: false }, cameTo: 'not answered in time', person: ask.person }
	}
	if (ask.email === null && !isHere(now, ask.person)) return passedOn(step, ask, now)
	return reminded(step, ask, now)
}

function begin(step: AskStep, now: StepNow): StepResult {
	const { store, run, cause, outer, now: at } = now
	const named = recipientOf(step, now)
	const email = named === undefined ? (addressOutside(step, now) ?? null) : null
	if (email !== null) refuseUnlessMayFill(step, now, now.acting.actor)
	const person = email === null ? refuseUnlessCanAnswer(step, now, named) : 0
	const { table, n } = rowOf(now)
	const remindAt = step.remind ? waitUntil(store, step.remind, at) : null
	const endsAt = step.ends ? waitUntil(store, step.ends, at) : null
	const id = addAsk(store, {
		...{ cause, run, step: step.id, person, email, table: table.id, row: n, askedAt: at, remindAt, endsAt },
		...{ outerTable: outer?.table.id ?? null, outerRow: outer?.n ?? null },
		wasMissing: isAllThere(step, now) ? 0 : 1
	})
	tell(step, now, { id, person, email, cause })
	store.touched.add('access')
	const asked = email === null ? { cameTo: 'asked', person } : { cameTo: 'asked outside' }
	return { outcome: { kind: 'stays' }, ...asked, until: nextLook({ remindAt, endsAt }, at) }
}

function reminded(step: AskStep, ask: Ask, now: StepNow): StepResult {
	const { store, now: at, cause } = now
	const stays = { outcome: { kind: 'stays' }, cameTo: '' } as const
	if (!step.remind || ask.remindAt === null || at < ask.remindAt) return { ...stays, until: nextLook(ask, at) }
	const remindAt = waitUntil(store, step.remind, at)
	remindAgain(store, { id: ask.id, at: remindAt })
	tell(step, now, { ...ask, cause: `${cause} reminded ${ask.remindAt}`, isAgain: true })
	const whom = ask.email === null ? { person: ask.person } : {}
	return { ...stays, cameTo: 'reminded', ...whom, until: nextLook({ ...ask, remindAt }, at) }
}

/** Whoever was asked has left, or does nothing here any more: whoever stands there now is asked instead. */
function passedOn(step: AskStep, ask: Ask, now: StepNow): StepResult {
	const { store, now: at, cause } = now
	const named = recipientOf(step, now)
	if (named === ask.person)
		throw new AppError(
			'invalid',
			'Whoever was asked is not here any more. Name somebody else in the row, and try again.'
		)
	const person = refuseUnlessCanAnswer(step, now, named)
	const remindAt = step.remind ? waitUntil(store, step.remind, at) : null
	passOn(store, { id: ask.id, person, remindAt, now: at })
	tell(step, now, { id: ask.id, person, email: null, cause: `${cause} to ${person}` })
	store.touched.add('access')
	return { outcome: { kind: 'stays' }, cameTo: 'asked', person, until: nextLook({ ...ask, remindAt }, at) }
}

function tell(
	step: AskStep,
	now: StepNow,
	{
		id,
		person,
		email,
		cause,
		isAgain = false
	}: Pick<Ask, 'id' | 'person' | 'email'> & { cause: string; isAgain?: boolean }
): void {
	const { store } = now
	if (email !== null) {
		const subject = isAgain ? `Reminder: ${step.subject}` : step.subject
		return sendOutside(now, { email, subject, body: step.body, cause, link: addAskLink(store, id) })
	}
	const words = (text: string) => composeFor(store, text, { ...now, here: now.held.given, to: person })
	const [subject, body] = [words(step.subject), words(step.body)]
	const called = isAgain ? `Reminder: ${subject}` : subject
	addMessage(store, { cause, person, subject: called, body, link: askLink(store, id), now: now.now })
}

function refuseUnlessCanAnswer(step: AskStep, now: StepNow, person: number | undefined): number {
	if (person === undefined) throw new AppError('invalid', 'Nobody is named whom it could ask.')
	if (!isHere(now, person)) throw new AppError('invalid', 'Whoever it would ask is not here any more.')
	refuseUnlessMayFill(step, now, { person })
	return person
}

/** They see the row, and may change what is asked; of somebody outside, the role that the routine acts as. */
function refuseUnlessMayFill({ columns }: AskStep, now: StepNow, actor: Actor | undefined): void {
	const { store } = now
	const { table, n } = rowOf(now)
	const row = store.ids.toId(table.id, n)
	const asked = { table: table.id, row, columns: [...columns], offers: true }
	const may = new Set((actor && readRows(store, actor, asked, now.now).rows[0]?.may?.change) ?? [])
	const missing = columns.find((column) => !may.has(column))
	if (missing === undefined) return
	throw new AppError(
		'invalid',
		`Whoever it would ask may not change ${getColumn(table, missing).name} of this row, and could not answer. Give them a line for that, or ask for something else.`
	)
}

function isHere({ store }: StepNow, person: number): boolean {
	return rolesOf(store, person, readPersonRow(store, person)).size > 0
}

/** Somebody filled it in elsewhere, where something was missing before. */
function isFilledIn(step: AskStep, { wasMissing }: Ask, now: StepNow): boolean {
	return wasMissing === 1 && isAllThere(step, now)
}

function isAllThere({ columns }: AskStep, now: StepNow): boolean {
	const { table, n } = rowOf(now)
	const row = readStoredRow(now.store, table, n)
	return columns.every((column) => (row?.stored.get(column) ?? null) !== null)
}

function nextLook({ remindAt, endsAt }: Pick<Ask, 'remindAt' | 'endsAt'>, now: number): number {
	return Math.min(remindAt ?? Infinity, endsAt ?? Infinity, now + LOOKED_AT_MS)
}
