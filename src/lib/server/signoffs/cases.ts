/**
 * Reads and decides sign-off cases. Whoever asked and whoever it waits on may read a case; for anybody else it does not
 * exist. A decision carries the fingerprint of what was shown, so that nobody decides what they have not seen.
 */
import type { CaseOfRow, CaseLists, CaseSheet, CaseSummary } from '$lib/core/requests/cases.ts'
import { createHash } from 'node:crypto'
import { AppError } from '$lib/core/app-error.ts'
import { signoffSchema, type Signoff } from '$lib/core/app/document.ts'
import { movesFor, step, type CaseState, type Move } from '$lib/core/signoff/moves.ts'
import { findColumn, getTable } from '$lib/core/model/table.ts'
import { describePerson } from '../rights/accounts.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import { addMessage } from '../queue/messages.ts'
import { readNoticesTo } from '../queue/notices.ts'
import { describeColumns } from '../rows/describe-columns.ts'
import { writeHistory } from '../history/history.ts'
import { readRows } from '../rows/read.ts'
import type { Store } from '../store/store.ts'
import { openId, sealId } from '../store/sealed-ids.ts'
import { beginDecided } from './begin-decided.ts'
import { caseLink } from './open-case.ts'
import { rowLabel } from '../rows/row-label.ts'

interface StoredCase {
	readonly id: number
	readonly app: number
	readonly signoff: string
	readonly table_id: number
	readonly row_n: number
	readonly asked_by: number
	readonly asked_at: number
	readonly waits_on: number
	readonly state: CaseState
	readonly decided_at: number | null
	readonly comment: string
}

const COLUMNS = `id, app, signoff, table_id, row_n, asked_by, asked_at, waits_on, state, decided_at, comment`
const WAITING = `SELECT ${COLUMNS} FROM signoff_case WHERE waits_on = ? AND state = 'waiting' ORDER BY asked_at, id`
const DECIDED = `SELECT ${COLUMNS} FROM signoff_case WHERE waits_on = ? AND state <> 'waiting' ORDER BY decided_at DESC, id DESC LIMIT 200`
const ASKED = `SELECT ${COLUMNS} FROM signoff_case WHERE asked_by = ? ORDER BY asked_at DESC, id DESC LIMIT 200`
const READ = `SELECT ${COLUMNS} FROM signoff_case WHERE id = ?`
const OF_ROW = `SELECT ${COLUMNS} FROM signoff_case WHERE table_id = ? AND row_n = ? ORDER BY id DESC LIMIT 1`
const DECIDE = `
	UPDATE signoff_case SET state = @state, decided_at = @now, comment = @comment
	WHERE id = @id AND state = 'waiting'`

/** What waits on a person, what they decided, and what they asked for. */
export function listCases(store: Store, { actor, now }: { actor: Actor; now: number }): CaseLists {
	const list = (query: string) =>
		store
			.prepare<StoredCase>(query)
			.all(actor.person)
			.map((each) => summarize(store, each, actor, now))
	return { waiting: list(WAITING), decided: list(DECIDED), asked: list(ASKED) }
}

export function countWaiting(store: Store, actor: Actor): number {
	return store.prepare(WAITING).all(actor.person).length
}

/** With the row as this person sees it; `not_found` for a case that is not theirs. */
export function readCase(store: Store, { id, actor, now }: { id: string; actor: Actor; now: number }): CaseSheet {
	const found = getCase(store, id, actor)
	const signoff = signoffOf(found)
	const { catalogue } = store.workspace()
	const table = getTable(catalogue, found.table_id)
	const page = readShown(store, { found, signoff, actor, now })
	const who = { decides: found.waits_on === actor.person, asked: found.asked_by === actor.person }
	return {
		...summarize(store, found, actor, now),
		decider: nameOf(store, found.waits_on),
		comment: found.comment,
		columns: describeColumns(table, page.own.columns),
		row: page.own.rows[0] ?? null,
		children: page.children.map(({ table: child, page: rows }) => ({
			name: child.name,
			columns: describeColumns(child, rows.columns),
			rows: rows.rows
		})),
		moves: movesFor(found.state, who),
		fingerprint: fingerprintOf(page),
		events: eventsOf(store, found)
	}
}

export interface Decision {
	readonly id: string
	readonly move: Move
	readonly comment: string
	readonly fingerprint: string
	readonly actor: Actor
	readonly now: number
}

/** `conflict` where the case is decided, or the row is not what was shown. */
export function decideCase(store: Store, { id, move, comment, fingerprint, actor, now }: Decision): void {
	if (actor.lookedAtBy !== undefined) throw new AppError('forbidden', 'This is the Lookout: nothing is decided in it.')
	const found = getCase(store, id, actor)
	const who = { decides: found.waits_on === actor.person, asked: found.asked_by === actor.person }
	const state = movesFor(found.state, who).includes(move) ? step(found.state, move) : undefined
	if (state === undefined)
		throw new AppError(
			'conflict',
			`This has been ${found.state === 'waiting' ? 'kept for somebody else' : found.state} already.`
		)
	const signoff = signoffOf(found)
	const shown = fingerprintOf(readShown(store, { found, signoff, actor, now }))
	if (move !== 'withdraw' && shown !== fingerprint) {
		throw new AppError('conflict', 'What you were shown has changed since. Look at it again, then decide.')
	}
	if (store.prepare(DECIDE).run({ id: found.id, state, now, comment }).changes !== 1) {
		throw new AppError('conflict', 'This has been decided meanwhile.')
	}
	const body = { case: found.id, comment, fingerprint: shown }
	writeHistory(store, {
		at: now,
		person: actor.person,
		through: { signoff: signoff.name },
		kind: state,
		table: found.table_id,
		row: found.row_n,
		body
	})
	readNoticesTo(store, { link: caseLink(store, found.id), person: actor.person, now })
	tellOutcome(store, found, { state, comment, actor, now })
	beginDecided(store, { app: found.app, table: found.table_id, n: found.row_n, state, actor, now })
	store.touched.add(found.table_id)
	store.touched.add('access')
}

/** The last case of a row, for whoever sees the row: its state; the comment only for those concerned. */
export function caseOfRow(store: Store, at: { table: number; n: number; actor: Actor }): CaseOfRow | null {
	const found = store.prepare<StoredCase>(OF_ROW).get(at.table, at.n)
	if (!found || found.state === 'withdrawn') return null
	// Looking as somebody shows their rows, never what was said to them.
	const concerned = at.actor.lookedAtBy === undefined && [found.asked_by, found.waits_on].includes(at.actor.person)
	return {
		state: found.state,
		name: signoffOf(found).name,
		decider: nameOf(store, found.waits_on),
		decidedAt: found.decided_at,
		comment: concerned ? found.comment : '',
		link: concerned ? caseLink(store, found.id) : null
	}
}

function getCase(store: Store, id: string, actor: Actor): StoredCase {
	const n = openId(store, 'case', id)
	const found = n === undefined ? undefined : store.prepare<StoredCase>(READ).get(n)
	if (!found || (found.asked_by !== actor.person && found.waits_on !== actor.person)) {
		throw new AppError('not_found', 'This request is not there, or not for you to see.')
	}
	return found
}

function signoffOf(found: StoredCase): Signoff {
	return signoffSchema.parse(JSON.parse(found.signoff))
}

interface Showing {
	readonly found: StoredCase
	readonly signoff: Signoff
	readonly actor: Actor
	readonly now: number
}

/** The row and what belongs to it, as this person may see them. */
function readShown(store: Store, { found, signoff, actor, now }: Showing) {
	const { catalogue } = store.workspace()
	const table = getTable(catalogue, found.table_id)
	const row = store.ids.toId(table.id, found.row_n)
	const columns = [...new Set([table.label, ...signoff.columns])]
	const own = readRows(store, actor, { table: table.id, row, columns }, now)
	// What has been taken out of the workspace since the asking is no longer shown; the case stays.
	const children = signoff.children.flatMap((child) => {
		const of = catalogue.tables.get(child.table)
		if (!of || !findColumn(of, child.column)) return []
		const pointing = { column: child.column, to: row }
		const asked = { table: of.id, columns: child.columns, pointing, limit: 500 }
		return [{ table: of, page: readRows(store, actor, asked, now) }]
	})
	return { own, children }
}

function fingerprintOf(shown: ReturnType<typeof readShown>): string {
	const cells = [shown.own.rows, ...shown.children.map((child) => child.page.rows)].map((rows) =>
		rows.map((row) => [row.id, row.cells])
	)
	return createHash('sha256').update(JSON.stringify(cells)).digest('hex')
}

function summarize(store: Store, found: StoredCase, actor: Actor, now: number): CaseSummary {
	const table = getTable(store.workspace().catalogue, found.table_id)
	return {
		id: sealId(store, 'case', found.id),
		name: signoffOf(found).name,
		label: rowLabel(store, table, { person: actor.person, n: found.row_n, now }),
		askedBy: nameOf(store, found.asked_by),
		askedAt: found.asked_at,
		state: found.state,
		decidedAt: found.decided_at
	}
}

function eventsOf(store: Store, found: StoredCase): CaseSheet['events'] {
	const asked = { at: found.asked_at, who: nameOf(store, found.asked_by), what: 'asked for a decision', comment: '' }
	if (found.decided_at === null) return [asked]
	const by = found.state === 'withdrawn' ? found.asked_by : found.waits_on
	const what = found.state === 'withdrawn' ? 'withdrew it' : found.state === 'approved' ? 'approved it' : 'declined it'
	return [asked, { at: found.decided_at, who: nameOf(store, by), what, comment: found.comment }]
}

interface Outcome {
	readonly state: CaseState
	readonly comment: string
	readonly actor: Actor
	readonly now: number
}

function tellOutcome(store: Store, found: StoredCase, { state, comment, actor, now }: Outcome): void {
	const to = state === 'withdrawn' ? found.waits_on : found.asked_by
	const table = getTable(store.workspace().catalogue, found.table_id)
	const label = rowLabel(store, table, { person: to, n: found.row_n, now })
	const said = comment.trim() === '' ? '' : `\n\n“${comment.trim()}”`
	const body = `${nameOf(store, actor.person)} has ${state} ${label}.${said}`
	const link = caseLink(store, found.id)
	addMessage(store, { cause: `case ${found.id} ${state}`, person: to, subject: `${label}: ${state}`, body, link, now })
}

function nameOf(store: Store, person: number): string {
	return describePerson(store, person)?.name ?? 'Somebody who has left'
}
