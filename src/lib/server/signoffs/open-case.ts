/**
 * Opens a sign-off on a row, in the transaction of the change that asks for it: who decides, what they are shown, and
 * the message that tells them.
 */
import type { Signoff } from '$lib/core/app/document.ts'
import { getTable, type Table } from '$lib/core/model/table.ts'
import { momentAt } from '../rights/rights-of-actor.ts'
import { describePerson } from '../rights/accounts.ts'
import { addMessage } from '../queue/messages.ts'
import { writeHistory } from '../history/history.ts'
import { findPerson } from '../routines/work-out.ts'
import type { Store } from '../store/store.ts'
import { AppError } from '$lib/core/app-error.ts'
import { sealId } from '../store/sealed-ids.ts'
import { rowLabel } from '../rows/row-label.ts'

export interface CaseAsked {
	readonly app: number
	readonly signoff: Signoff
	readonly table: Table
	readonly n: number
	/** 0 where a clock led to it. */
	readonly askedBy: number
	readonly now: number
}

const OPEN_CASE = `SELECT 1 FROM signoff_case WHERE app = ? AND table_id = ? AND row_n = ? AND state <> 'withdrawn'`
const ADD_CASE = `
	INSERT INTO signoff_case (app, signoff, table_id, row_n, asked_by, asked_at, waits_on, state)
	VALUES (@app, @signoff, @table, @row, @askedBy, @now, @waitsOn, 'waiting')`
const ADD_GRANT = `
	INSERT OR IGNORE INTO row_grant (person, table_id, row_n, column_id, case_id)
	VALUES (@person, @table, @row, @column, @case)`

/** Opens a case over a row and lets its decider see the row; one that is open already stays. */
export function openCase(store: Store, asking: CaseAsked): void {
	const { app, signoff, table, n, askedBy, now } = asking
	if (store.prepare(OPEN_CASE).get(app, table.id, n)) return
	const waitsOn = decider(store, asking)
	const stored = { app, signoff: JSON.stringify(signoff), table: table.id, row: n, askedBy, now, waitsOn }
	const id = Number(store.prepare(ADD_CASE).run(stored).lastInsertRowid)
	grant(store, asking, { id, person: waitsOn })
	writeHistory(store, {
		at: now,
		person: askedBy === 0 ? null : askedBy,
		through: { signoff: signoff.name },
		kind: 'ask',
		table: table.id,
		row: n,
		body: { case: id, waitsOn }
	})
	tell(store, asking, { id, waitsOn })
	store.touched.add('access')
}

/** Where it is read and decided. */
export function caseLink(store: Store, id: number): string {
	return `/waiting/${sealId(store, 'case', id)}`
}

function decider(store: Store, { signoff, table, n, askedBy, now }: CaseAsked): number {
	const moment = momentAt(store.workspace().timeZone, now)
	const person = findPerson(store, signoff.decider, { table, n, moment })
	if (person === undefined) {
		throw new AppError(
			'invalid',
			`${signoff.name}: nobody is named who could decide this, so it was not sent. Tell whoever looks after the app.`
		)
	}
	if (person === askedBy)
		throw new AppError('invalid', `${signoff.name}: this would wait on yourself, and nobody decides their own request.`)
	return person
}

/** The right to see what was asked about: the named columns of the row, and of the rows that belong to it. */
function grant(store: Store, { signoff, table, n }: CaseAsked, to: { id: number; person: number }): void {
	const add = (of: Table, row: number, columns: readonly number[]) => {
		for (const column of new Set([of.label, ...columns])) {
			store.prepare(ADD_GRANT).run({ person: to.person, table: of.id, row, column, case: to.id })
		}
	}
	add(table, n, signoff.columns)
	for (const child of signoff.children) {
		const of = getTable(store.workspace().catalogue, child.table)
		const rows = store.prepare<number>(`SELECT n FROM t${of.id} WHERE c${child.column} = ?`).pluck().all(n)
		for (const row of rows) add(of, row, [...child.columns, child.column])
	}
}

function tell(
	store: Store,
	{ signoff, table, n, askedBy, now }: CaseAsked,
	{ id, waitsOn }: { id: number; waitsOn: number }
): void {
	const label = rowLabel(store, table, { person: waitsOn, n, now })
	const asker = describePerson(store, askedBy)?.name ?? 'Somebody'
	addMessage(store, {
		cause: `case ${id} asked`,
		person: waitsOn,
		subject: `${signoff.name}: ${label}`,
		body: `${asker} asks you to decide ${label}. Nothing happens until you do.`,
		link: caseLink(store, id),
		now
	})
}
