/**
 * Starts by the clock: of routines whose days come again, and of those that go by a date of a row. Each keeps when it comes next;
 * its fire and its next time are one commit, and each fire has a cause of its own, so that none comes twice.
 */
import { checkCondition } from '$lib/core/formula/check/check.ts'
import { compileCondition, compileValue } from '$lib/core/formula/sql/compile.ts'
import { newContext } from '$lib/core/formula/sql/sql-context.ts'
import { fold } from '$lib/core/formula/evaluate/fold.ts'
import { columnType } from '$lib/core/formula/check/column-type.ts'
import type { Expr } from '$lib/core/model/formula.ts'
import { findColumn, type Table } from '$lib/core/model/table.ts'
import type { DueStart } from '$lib/core/routine/due-start.ts'
import type { Routine } from '$lib/core/routine/routine.ts'
import { addDays } from '$lib/core/schedule/calendar.ts'
import { nextOccurrence } from '$lib/core/schedule/occurrences.ts'
import { parseRecurrence } from '$lib/core/schedule/recurrence-words.ts'
import { EVERY_DAY, type Recurrence } from '$lib/core/schedule/recurrence.ts'
import { minutesOf } from '$lib/core/schedule/time-of-day.ts'
import { localDate } from '$lib/core/schedule/zone.ts'
import { allOf, param, sql } from '$lib/core/sql/sql.ts'
import { findLiveApp } from '../releases/live.ts'
import { momentAt } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import type { WorkingTime } from '$lib/core/schedule/working-time.ts'
import { workingTimeOf } from './working-time-of.ts'
import { isPaused } from './pauses.ts'
import { addRun } from './runs.ts'

const FORGET = `DELETE FROM routine_clock WHERE app = @app AND routine NOT IN (SELECT value FROM json_each(@kept))`
const FIND = `SELECT rule, since FROM routine_clock WHERE app = @app AND routine = @routine`
const SET = `
	INSERT INTO routine_clock (app, routine, rule, since, next_at) VALUES (@app, @routine, @rule, @since, @next)
	ON CONFLICT (app, routine) DO UPDATE SET rule = excluded.rule, since = excluded.since, next_at = excluded.next_at`
const DUE = `
	SELECT app, routine, since, next_at AS at, last_at AS last FROM routine_clock
	WHERE next_at IS NOT NULL AND next_at <= ? ORDER BY next_at LIMIT 20`
const FIRED = `UPDATE routine_clock SET next_at = @next, last_at = @now WHERE app = @app AND routine = @routine`
const NEXT = `SELECT min(next_at) FROM routine_clock WHERE next_at IS NOT NULL`
const ALL = `SELECT DISTINCT app FROM routine_clock`

/** A month of missed mornings; whoever wants more of them wants them together. */
const MOST_MISSED = 31
/** What came this long ago or less was not missed. */
const ON_TIME_MS = 10 * 60_000

interface Clocked {
	readonly rule: Recurrence
	/** Minutes after midnight. */
	readonly minutes: number
	readonly missed: 'once for all' | 'each' | 'not at all'
}

/** Sets the clocks of an app as its live release has them. What it had already counts on from where it began. */
export function setClocks(store: Store, { app, now }: { app: number; now: number }): void {
	const routines = (findLiveApp(store, app)?.document.routines ?? []).filter((each) => clockedBy(each) !== undefined)
	store.prepare(FORGET).run({ app, kept: JSON.stringify(routines.map(({ id }) => id)) })
	const { timeZone } = store.workspace()
	for (const routine of routines) {
		const clocked = clockedBy(routine)
		if (!clocked) continue
		const of = { app, routine: routine.id }
		const rule = JSON.stringify(routine.start)
		const known = store.prepare<{ rule: string; since: string }>(FIND).get(of)
		if (known?.rule === rule) continue
		const since = localDate(new Date(now).toISOString(), timeZone)
		store.prepare(SET).run({ ...of, rule, since, next: nextOf(clocked, countedFrom(store, since), now) ?? null })
	}
	store.touched.add('jobs')
}

/** The clocks of all apps anew, when the workspace goes by another zone. */
export function resetClocks(store: Store, now: number): void {
	for (const app of store.prepare<number>(ALL).pluck().all()) {
		store.prepare(`UPDATE routine_clock SET rule = '' WHERE app = ?`).run(app)
		setClocks(store, { app, now })
	}
}

/** Begins the runs of clocks that are due; false if none is. Called within a transaction. */
export function fireClocks(store: Store, { now }: { now: number }): boolean {
	const due = store.prepare<DueClock>(DUE).all(now)
	for (const clock of due) fire(store, clock, now)
	return due.length > 0
}

/** When the next clock is due (epoch ms). */
export function nextClockAt(store: Store): number | null {
	return store.pluck<number | null>(NEXT) ?? null
}

interface DueClock {
	readonly app: number
	readonly routine: string
	readonly since: string
	readonly at: number
	readonly last: number | null
}

function fire(store: Store, clock: DueClock, now: number): void {
	const { app, routine: id, since, at } = clock
	const live = findLiveApp(store, app)
	const routine = live?.document.routines.find((each) => each.id === id)
	const clocked = routine && clockedBy(routine)
	const counted = countedFrom(store, since)
	const next = clocked ? nextOf(clocked, counted, now) : undefined
	store.prepare(FIRED).run({ app, routine: id, next: next ?? null, now })
	if (!live || !routine || !clocked || isPaused(store, { app, routine: id })) return
	const started = { app, release: live.release, routine: id, person: null, path: [routine.name], now }
	if (routine.start.kind === 'due') return beginDue(store, { ...clock, start: routine.start }, started)
	for (const instant of timesToFire(clocked, counted, { at, now }))
		addRun(store, { ...started, on: undefined, cause: `clock ${app} ${id} ${new Date(instant).toISOString()}` })
}

/** The times at which a routine comes in the next days, were it released now. */
export function timesComing(store: Store, routine: Routine, { now, days }: { now: number; days: number }): number[] {
	const clocked = clockedBy(routine)
	if (!clocked) return []
	const counted = countedFrom(store, localDate(new Date(now).toISOString(), store.workspace().timeZone))
	const times: number[] = []
	let next = nextOf(clocked, counted, now)
	for (; next !== undefined && next <= now + days * 86_400_000; next = nextOf(clocked, counted, next)) times.push(next)
	return times
}

type Started = Omit<Parameters<typeof addRun>[1], 'on' | 'cause'>

/** One for all that were missed, each of them, or only what comes on time. */
function timesToFire(clocked: Clocked, counted: Counted, { at, now }: { at: number; now: number }): number[] {
	if (clocked.missed === 'not at all') return now - at <= ON_TIME_MS ? [at] : []
	if (clocked.missed === 'once for all') return [at]
	const times = [at]
	for (
		let next = nextOf(clocked, counted, at);
		next !== undefined && next <= now;
		next = nextOf(clocked, counted, next)
	) {
		times.push(next)
		if (times.length === MOST_MISSED) break
	}
	return times
}

/** A run for each row whose date has come near since the last look; one row and date begin one run, however often it is looked. */
function beginDue(store: Store, { app, routine, start, last }: DueClock & { start: DueStart }, started: Started): void {
	const table = store.workspace().catalogue.tables.get(start.table)
	if (!table) return
	const { timeZone } = store.workspace()
	const dayOf = (at: number) => localDate(new Date(at).toISOString(), timeZone)
	const ahead = start.side === 'before' ? start.many : -start.many
	const upto = addDays(dayOf(started.now), ahead)
	// The first look is for that day alone: what is past then has been dealt with otherwise.
	const from = last === null ? upto : addDays(addDays(dayOf(last), ahead) ?? '', 1)
	if (upto === undefined || from === undefined) return
	for (const { n, date } of rowsDue(store, { table, start, from, upto, now: started.now }))
		addRun(store, { ...started, on: { table: table.id, n }, cause: `due ${app} ${routine} ${n} ${date}` })
}

function rowsDue(
	store: Store,
	{ table, start, from, upto, now }: { table: Table; start: DueStart; from: string; upto: string; now: number }
): { n: number; date: string }[] {
	const { catalogue, timeZone } = store.workspace()
	const column = findColumn(table, start.column)
	if (!column) return []
	const of: Expr = { kind: 'this', level: 0, type: { kind: 'row', table } }
	const field: Expr = { kind: 'field', of, table, column, type: columnType(catalogue, column) }
	const moment = momentAt(timeZone, now)
	const date = compileValue(fold(field, moment), newContext('r', moment))
	// A moment is stored as an instant: it is due by its first ten signs, its day in UTC.
	const conditions = [sql`${date} >= ${param(from)}`, sql`${date} < ${param(`${upto}~`)}`]
	if (start.where.trim() !== '') {
		const { expr } = checkCondition(start.where, { catalogue, rows: [table], me: false })
		if (!expr) return []
		conditions.push(compileCondition(fold(expr, moment), newContext('r', moment)))
	}
	const found = store.select(sql`SELECT r.n, ${date} FROM t${table.id} AS r WHERE ${allOf(conditions)} ORDER BY r.n`)
	return found.map(([n, value]) => ({ n: Number(n), date: String(value).slice(0, 10) }))
}

function clockedBy({ start }: Routine): Clocked | undefined {
	if (start.kind === 'due') return { rule: EVERY_DAY, minutes: minutesOf(start.at) ?? 0, missed: 'once for all' }
	if (start.kind !== 'clock') return undefined
	const read = parseRecurrence(start.days)
	return 'rule' in read ? { rule: read.rule, minutes: minutesOf(start.at) ?? 0, missed: start.missed } : undefined
}

/** Where a rule is counted from, and the days on which people work. */
interface Counted {
	readonly since: string
	readonly zone: string
	readonly working: WorkingTime
}

function countedFrom(store: Store, since: string): Counted {
	return { since, zone: store.workspace().timeZone, working: workingTimeOf(store) }
}

function nextOf(
	{ rule, minutes }: Clocked,
	{ since, zone, working: { week, holidays } }: Counted,
	after: number
): number | undefined {
	return nextOccurrence(rule, { date: since, minutes, zone, week, holidays }, after)
}
