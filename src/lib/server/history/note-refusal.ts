/**
 * Writes down that somebody asked for what no line and no role lets them do: who, when, where, and what they were told.
 * Whoever asks again and again for rows that are not theirs to see, or for values that unseen rows have, is slowed: each
 * answer alone tells nothing, many of them would be guessing.
 */
import { AppError } from '$lib/core/app-error.ts'
import { openThrottle } from '../base/throttle.ts'
import { writeHistory } from './history.ts'
import type { Store } from '../store/store.ts'
import type { Through } from './through.ts'

/** Somebody who tries without end is known after so many times in a quarter of an hour; the Logbook is not theirs to fill. */
const MOST = 20
const throttle = openThrottle(MOST)

/** Far more than pages that were open too long come to. */
const MOST_MISSES = 60
const misses = openThrottle(MOST_MISSES)

/** Before anything is looked at: whoever is slowed learns nothing more by asking. */
export function refuseGuessing(args: unknown): void {
	const asked = readAsked(args)
	if (asked && misses.isSlowed(String(asked.person), asked.now))
		throw new AppError(
			'busy',
			'You asked for too many rows that are not there, or not for you to see. Load the page again in a quarter of an hour.'
		)
}

/** `args`: what the write was asked with. What was not refused for want of a right is passed over. */
export function noteRefusal(store: Store, args: unknown, error: unknown): void {
	if (!(error instanceof AppError)) return
	const asked = readAsked(args)
	if (!asked) return
	const { person, now, table, through } = asked
	const key = String(person)
	const isUnseen = error.details['unseen'] === true
	if (error.code === 'not_found' || isUnseen) misses.take(key, now)
	if ((error.code !== 'forbidden' && !isUnseen) || !throttle.take(key, now)) return
	writeHistory(store, { at: now, person, through, kind: 'refused', table, row: null, body: { what: error.message } })
}

interface Asked {
	readonly person: number
	readonly now: number
	readonly table: number | null
	readonly through: Through
}

/** Writes name who asks, and when, in one of two ways: of their own, or as the context of changes. */
function readAsked(args: unknown): Asked | undefined {
	if (!isRecord(args)) return undefined
	const context = isRecord(args['context']) ? args['context'] : args
	const { actor, now, through = 'Bench' } = context
	if (!isRecord(actor) || typeof actor['person'] !== 'number' || typeof now !== 'number') return undefined
	// The Lookout tries things out as somebody else; that is no doing of theirs.
	if (actor['lookedAtBy'] !== undefined) return undefined
	const [change] = Array.isArray(args['changes']) ? (args['changes'] as unknown[]) : []
	const table = isRecord(change) ? change['table'] : args['table']
	// Of whoever called, who is typed; read here as any write's arguments are.
	return { person: actor['person'], now, table: typeof table === 'number' ? table : null, through: through as Through }
}

function isRecord(value: unknown): value is Record<string, unknown> {
	return typeof value === 'object' && value !== null
}
