/**
 * How screens are used: how often they were opened, and by how many. Names are told to nobody and kept nowhere: who opened one is a
 * hash with a salt that is thrown away with its week, and groups under five are told as that.
 */
import { createHash, randomBytes } from 'node:crypto'
import type { ScreenUse } from '$lib/core/requests/bench.ts'
import { addDays, toDayNumber, weekdayOf } from '$lib/core/schedule/calendar.ts'
import { localDate } from '$lib/core/schedule/zone.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { visitedApp } from '../rights/roles-held.ts'
import type { Store } from '../store/store.ts'

export interface Opening {
	readonly app: number
	readonly screen: string
	readonly person: number
	readonly times: number
}

/** Fewer people than these could be told apart by who knows the place. */
const FEWEST = 5
const WEEKS_KEPT = 8
const WEEKS_SHOWN = 4
/** All who come without an account are one. */
const VISITOR = 'visitor'

const ADD = `
	INSERT INTO screen_opening (week, app, screen, who, times) VALUES (@week, @app, @screen, @who, @times)
	ON CONFLICT DO UPDATE SET times = times + excluded.times`
const SALT = `SELECT salt FROM opening_salt WHERE week = ?`
const KEEP_SALT = `INSERT INTO opening_salt (week, salt) VALUES (?, ?)`
const DROP_SALTS = `DELETE FROM opening_salt WHERE week < ?`
const DROP_OLD = `DELETE FROM screen_opening WHERE week < ?`
const USED = `
	SELECT week, screen, sum(times) AS times, sum(CASE WHEN who = '${VISITOR}' THEN times ELSE 0 END) AS byVisitors,
		sum(who <> '${VISITOR}') AS people
	FROM screen_opening WHERE app = ? AND week >= ? GROUP BY week, screen`

/** `now`: epoch ms. */
export function noteOpenings(store: Store, { openings, now }: { openings: readonly Opening[]; now: number }): void {
	const week = weekOf(store, now)
	const salt = saltOf(store, week)
	for (const { app, screen, person, times } of openings) {
		const who = visitedApp(store, person) === undefined ? hashOf(salt, person) : VISITOR
		store.prepare(ADD).run({ week, app, screen, who, times })
	}
}

/** Week by week, the latest first; for builders. */
export function readOpenings(store: Store, { app, actor, now }: ByActor & { app: number }): ScreenUse[] {
	refuseUnlessBuilder(store, actor)
	const first = addDays(weekOf(store, now), -7 * (WEEKS_SHOWN - 1)) ?? ''
	const found = store
		.prepare<{ week: string; screen: string; times: number; byVisitors: number; people: number }>(USED)
		.all(app, first)
	return found.map(({ week, screen, times, byVisitors, people }) => {
		const isFew = people > 0 && people < FEWEST
		return { week, screen, byVisitors, people: isFew ? null : people, times: isFew ? null : times - byVisitors }
	})
}

function saltOf(store: Store, week: string): string {
	const known = store.pluck<string>(SALT, week)
	if (known !== undefined) return known
	const made = randomBytes(16).toString('hex')
	store.prepare(DROP_SALTS).run(week)
	store.prepare(DROP_OLD).run(addDays(week, -7 * WEEKS_KEPT) ?? '')
	store.prepare(KEEP_SALT).run(week, made)
	return made
}

function hashOf(salt: string, person: number): string {
	return createHash('sha256').update(`${salt} ${person}`).digest('hex').slice(0, 24)
}

/** The Monday of the week, where the workspace is. */
function weekOf(store: Store, now: number): string {
	const day = localDate(new Date(now).toISOString(), store.workspace().timeZone)
	return addDays(day, -weekdayOf(toDayNumber(day))) ?? day
}
