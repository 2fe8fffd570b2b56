/** Asks as they lie in the store: of whom, about which row, and whether they are answered. */
import { hashToken, newToken } from '../base/token.ts'
import { sealId } from '../store/sealed-ids.ts'
import type { Store } from '../store/store.ts'

export interface Ask {
	readonly id: number
	readonly run: number
	/** The step of the routine by which it is asked. */
	readonly step: string
	/** 0 for somebody outside. */
	readonly person: number
	/** Where somebody outside is asked; null for people here. */
	readonly email: string | null
	readonly table: number
	readonly row: number
	readonly outerTable: number | null
	readonly outerRow: number | null
	/** 1 where something was missing when it was asked. */
	readonly wasMissing: number
	/** Epoch ms. */
	readonly askedAt: number
	readonly remindAt: number | null
	readonly endsAt: number | null
	readonly state: 'open' | 'answered' | 'ended'
}

export interface NewAsk extends Omit<Ask, 'id' | 'state'> {
	readonly cause: string
}

const COLUMNS = `
	ask.id, ask.run, ask.step, ask.person, ask.email, ask.row_table AS "table", ask.row_n AS "row", ask.outer_table AS outerTable,
	ask.outer_n AS outerRow, ask.was_missing AS wasMissing, ask.asked_at AS askedAt, ask.remind_at AS remindAt,
	ask.ends_at AS endsAt, ask.state`
const ADD = `
	INSERT INTO ask (cause, run, step, person, email, row_table, row_n, outer_table, outer_n, was_missing, asked_at, remind_at, ends_at, state)
	VALUES (@cause, @run, @step, @person, @email, @table, @row, @outerTable, @outerRow, @wasMissing, @askedAt, @remindAt, @endsAt, 'open')`
const BY_CAUSE = `SELECT ${COLUMNS} FROM ask WHERE cause = ?`
const BY_ID = `SELECT ${COLUMNS} FROM ask WHERE id = ?`
const CLOSE = `UPDATE ask SET state = @state, answered_at = @now WHERE id = @id AND state = 'open'`
const REMIND = `UPDATE ask SET remind_at = @at WHERE id = @id`
const PASS_ON = `UPDATE ask SET person = @person, asked_at = @now, remind_at = @remindAt WHERE id = @id`
/** Of a run that was cancelled nothing is asked any more; one that was given up may be tried again. */
const OPEN_OF_PERSON = `
	SELECT ${COLUMNS} FROM ask JOIN run ON run.id = ask.run AND run.state IN ('ready', 'waiting')
	WHERE ask.person = ? AND ask.state = 'open' ORDER BY ask.ends_at IS NULL, ask.ends_at, ask.id`
const WAKE_RUN = `UPDATE run SET due_at = @now WHERE id = @run AND state = 'waiting'`
const RUNS_ON_ROW = `
	SELECT run FROM ask WHERE row_table = @table AND row_n = @n AND state = 'open'
	UNION ALL SELECT run FROM run_wait WHERE row_table = @table AND row_n = @n`

export function addAsk(store: Store, asked: NewAsk): number {
	return Number(store.prepare(ADD).run({ ...asked }).lastInsertRowid)
}

export function findAskOf(store: Store, cause: string): Ask | undefined {
	return store.prepare<Ask>(BY_CAUSE).get(cause)
}

export function findAsk(store: Store, id: number): Ask | undefined {
	return store.prepare<Ask>(BY_ID).get(id)
}

const ADD_LINK = `INSERT INTO ask_link (token_hash, ask) VALUES (@hash, @ask)`
const BY_LINK = `SELECT ask FROM ask_link WHERE token_hash = ?`

/** A further link by which somebody outside answers; its token is kept nowhere. */
export function addAskLink(store: Store, ask: number): string {
	const token = newToken()
	store.prepare(ADD_LINK).run({ hash: hashToken(token), ask })
	return `/answer/${token}`
}

export function findAskByLink(store: Store, token: string): Ask | undefined {
	const id = store.prepare<number>(BY_LINK).pluck().get(hashToken(token))
	return id === undefined ? undefined : findAsk(store, id)
}

/** What somebody is asked for, what ends soonest first. */
export function openAsksOf(store: Store, person: number): Ask[] {
	return store.prepare<Ask>(OPEN_OF_PERSON).all(person)
}

/** False where it was closed already. */
export function closeAsk(
	store: Store,
	{ id, state, now }: { id: number; state: 'answered' | 'ended'; now: number }
): boolean {
	return store.prepare(CLOSE).run({ id, state, now }).changes === 1
}

/** Says when they are reminded next (epoch ms). */
export function remindAgain(store: Store, { id, at }: { id: number; at: number }): void {
	store.prepare(REMIND).run({ id, at })
}

/** Asks somebody else in place of who is not here any more. */
export function passOn(
	store: Store,
	passed: { id: number; person: number; remindAt: number | null; now: number }
): void {
	store.prepare(PASS_ON).run({ ...passed })
}

/** The run looks at its ask again, as soon as this is committed. */
export function wakeRun(store: Store, { run, now }: { run: number; now: number }): void {
	if (store.prepare(WAKE_RUN).run({ run, now }).changes > 0) store.touched.add('jobs')
}

/** Runs that wait for something of a row look again: what they asked for may have been filled in. */
export function wakeRunsOn(store: Store, { table, n, now }: { table: number; n: number; now: number }): void {
	for (const run of store.prepare<number>(RUNS_ON_ROW).pluck().all({ table, n })) wakeRun(store, { run, now })
}

/** Where it is answered. */
export function askLink(store: Store, id: number): string {
	return `/waiting/ask/${sealId(store, 'ask', id)}`
}
