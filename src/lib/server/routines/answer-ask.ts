/**
 * What somebody is asked for, as they may see it, and their answer: it goes in by the door, under their own rights, in the
 * transaction that wakes the run. For anybody else an ask does not exist.
 */
import { AppError } from '$lib/core/app-error.ts'
import { getTable, type Table } from '$lib/core/model/table.ts'
import type { CellChange, Changed } from '$lib/core/query/change.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import type { AskSheet, AskSummary } from '$lib/core/requests/asks.ts'
import type { Routine, StepOf } from '$lib/core/routine/routine.ts'
import { placedSteps } from '$lib/core/routine/step-tree.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { changeRows } from '../rows/change.ts'
import { readNoticesTo } from '../queue/notices.ts'
import { describeColumns } from '../rows/describe-columns.ts'
import { readRows } from '../rows/read.ts'
import { rowLabel } from '../rows/row-label.ts'
import { inSavepoint } from '../store/in-savepoint.ts'
import type { Store } from '../store/store.ts'
import { openId, sealId } from '../store/sealed-ids.ts'
import { askLink, closeAsk, findAsk, openAsksOf, wakeRun, type Ask } from './asks.ts'
import { composeFor } from './compose.ts'
import { findRoutine } from './go-on.ts'
import { heldOf } from './held.ts'
import { findRun } from './runs.ts'
import type { RowAt } from './work-out.ts'

/** What ends soonest first. */
export function listAsks(store: Store, by: ByActor): AskSummary[] {
	return asksSeen(store, by).map((asking) => summarize(store, asking, by))
}

export function countAsks(store: Store, by: ByActor): number {
	return asksSeen(store, by).length
}

/** Of rows that they may not see any more nothing is asked. */
function asksSeen(store: Store, by: ByActor): Asking[] {
	return openAsksOf(store, by.actor.person).flatMap((ask) => {
		const asking = asksFor(store, ask)
		return asking && rowSeen(store, asking, by) ? [asking] : []
	})
}

/** With the row as they see it, and what of it they may fill in; `not_found` for an ask that is not theirs, or over. */
export function readAsk(store: Store, { id, actor, now }: ByActor & { id: string }): AskSheet {
	const asking = getAsk(store, { id, actor, now })
	const { table, step } = asking
	const shown = table.columns.map((column) => column.id)
	const page = readRows(store, actor, { table: table.id, row: rowId(store, asking), columns: shown, offers: true }, now)
	const [row] = page.rows
	if (!row) throw notThere()
	const may = new Set(row.may?.change ?? [])
	const columns = describeColumns(table, page.columns)
	return {
		...summarize(store, asking, { actor, now }),
		body: words(store, asking, { text: step.body, to: actor.person, now }),
		row,
		table: table.id,
		// By its label the row is called anyhow.
		columns: columns.filter(({ id: column }) => column !== table.label && !step.columns.includes(column)),
		asked: step.columns.flatMap((id) => columns.filter((column) => column.id === id && may.has(id)))
	}
}

export interface Answer extends ByActor {
	readonly id: string
	readonly cells: readonly CellChange[]
}

/** All of it goes in, or nothing: where somebody else was faster with a cell, the ask stays open for the whole answer. */
export function answerAsk(store: Store, answer: Answer): Changed {
	const { id, cells, actor, now } = answer
	if (actor.lookedAtBy !== undefined) throw new AppError('forbidden', 'This is the Lookout: nothing is answered in it.')
	const asking = getAsk(store, { id, actor, now })
	const { ask, step } = asking
	const other = cells.find(({ column }) => !step.columns.includes(column))
	if (other) throw new AppError('invalid', 'That was not asked for.', { column: other.column })
	const done = inSavepoint(store, () => putIn(store, asking, answer))
	if ('thrown' in done) {
		if (done.thrown instanceof Clash) return done.thrown.changed
		throw done.thrown
	}
	closeAsk(store, { id: ask.id, state: 'answered', now })
	readNoticesTo(store, { link: askLink(store, ask.id), person: actor.person, now })
	wakeRun(store, { run: ask.run, now })
	store.touched.add('access')
	return done.value
}

/** What is clear would be an answer by itself, and the rest would come too late. */
class Clash extends Error {
	readonly changed: Changed

	constructor(changed: Changed) {
		super('Expected nobody else to have changed what was seen')
		this.changed = changed
	}
}

function putIn(store: Store, asking: Asking, { cells, actor, now }: Answer): Changed {
	const { step, table, routine } = asking
	const row = rowId(store, asking)
	const unchanged: Changed = { row, rev: 0, conflicts: [] }
	const change = { kind: 'change' as const, table: table.id, row, cells }
	const context = { actor, now, through: `answer to ${routine.name}` as const }
	const [changed = unchanged] = cells.length === 0 ? [] : changeRows(store, [change], context)
	if (changed.conflicts.length > 0) throw new Clash(changed)
	const [filled] = readRows(store, actor, { table: table.id, row, columns: [...step.columns] }, now).rows
	if (step.columns.every((column) => (filled?.cells[cellKey(column)] ?? null) === null))
		throw new AppError('invalid', 'Nothing is filled in yet. Fill in what is asked for, then send it.')
	return changed
}

/** An ask with what it asks, as the routine was when its run began. */
export interface Asking {
	readonly ask: Ask
	readonly routine: Routine
	readonly step: StepOf<'ask'>
	readonly table: Table
}

export function asksFor(store: Store, ask: Ask): Asking | undefined {
	const run = findRun(store, ask.run)
	const routine = run && (run.state === 'ready' || run.state === 'waiting') ? findRoutine(store, run) : undefined
	const step = routine && placedSteps(routine).find((each) => each.step.id === ask.step)?.step
	const table = store.workspace().catalogue.tables.get(ask.table)
	if (!run || !routine || step?.kind !== 'ask' || !table) return undefined
	return { ask, routine, step, table }
}

function getAsk(store: Store, { id, actor, now }: ByActor & { id: string }): Asking {
	const n = openId(store, 'ask', id)
	const ask = n === undefined ? undefined : findAsk(store, n)
	if (ask?.person !== actor.person) throw notThere()
	if (ask.state !== 'open') throw new AppError('conflict', 'This has been answered already, or is not asked any more.')
	const asking = asksFor(store, ask)
	if (!asking || !rowSeen(store, asking, { actor, now })) throw notThere()
	return asking
}

function notThere(): AppError {
	return new AppError('not_found', 'This is not there, or not for you to see.')
}

function rowId(store: Store, { table, ask }: Asking): string {
	return store.ids.toId(table.id, ask.row)
}

function rowSeen(store: Store, asking: Asking, { actor, now }: ByActor): boolean {
	const asked = { table: asking.table.id, row: rowId(store, asking), columns: [] }
	return readRows(store, actor, asked, now).rows.length > 0
}

function summarize(store: Store, asking: Asking, { actor, now }: ByActor): AskSummary {
	const { ask, table, step } = asking
	return {
		id: sealId(store, 'ask', ask.id),
		subject: words(store, asking, { text: step.subject, to: actor.person, now }),
		label: rowLabel(store, table, { person: actor.person, n: ask.row, now }),
		askedAt: ask.askedAt,
		endsAt: ask.endsAt
	}
}

function words(
	store: Store,
	{ ask, table, routine }: Asking,
	{ text, to, now }: { text: string; to: number; now: number }
): string {
	const outer = ask.outerTable === null ? undefined : getTable(store.workspace().catalogue, ask.outerTable)
	const around: RowAt | undefined = outer && { table: outer, n: ask.outerRow ?? 0 }
	const here = heldOf(store, routine, ask.run).given
	return composeFor(store, text, { at: { table, n: ask.row }, outer: around, here, to, now })
}
