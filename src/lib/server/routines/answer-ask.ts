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
import type { Store } from '../store/store.ts'
import { askLink, fromAskId, toAskId } from './ask-ids.ts'
import { closeAsk, findAsk, openAsksOf, wakeRun, type Ask } from './asks.ts'
import { composeFor } from './compose.ts'
import { findRoutine } from './go-on.ts'
import { findRun } from './runs.ts'
import type { RowAt } from './work-out.ts'

/** Of rows that they may not see any more nothing is asked. */
export function listAsks(store: Store, { actor, now }: ByActor): AskSummary[] {
	return openAsksOf(store, actor.person).flatMap((ask) => {
		const asking = asksFor(store, ask)
		return asking && rowSeen(store, asking, { actor, now }) ? [summarize(store, asking, { actor, now })] : []
	})
}

export function countAsks(store: Store, by: ByActor): number {
	return listAsks(store, by).length
}

/** With the row as they see it, and what of it they may fill in; `not_found` for an ask that is not theirs, or over. */
export function readAsk(store: Store, { id, actor, now }: ByActor & { id: string }): AskSheet {
	const asking = getAsk(store, { id, actor, now })
	const { table, step } = asking
	const shown = [...new Set([table.label, ...table.columns.map((column) => column.id)])]
	const page = readRows(store, actor, { table: table.id, row: rowId(store, asking), columns: shown, offers: true }, now)
	const [row] = page.rows
	if (!row) throw notThere()
	const may = new Set(row.may?.change ?? [])
	const columns = describeColumns(table, page.columns)
	return {
		...summarize(store, asking, { actor, now }),
		body: words(store, asking, { text: step.body, to: actor.person, now }),
		row,
		columns: columns.filter(({ id: column }) => !step.columns.includes(column)),
		asked: step.columns.flatMap((id) => columns.filter((column) => column.id === id && may.has(id)))
	}
}

export interface Answer extends ByActor {
	readonly id: string
	readonly cells: readonly CellChange[]
}

/** Where somebody else was faster with a cell, what is clear goes in and the ask stays open. */
export function answerAsk(store: Store, { id, cells, actor, now }: Answer): Changed {
	if (actor.lookedAtBy !== undefined) throw new AppError('forbidden', 'This is the Lookout: nothing is answered in it.')
	const asking = getAsk(store, { id, actor, now })
	const { ask, step, table, routine } = asking
	const other = cells.find(({ column }) => !step.columns.includes(column))
	if (other) throw new AppError('invalid', 'That was not asked for.', { column: other.column })
	const row = rowId(store, asking)
	const through = `answer to ${routine.name}` as const
	const unchanged: Changed = { row, rev: 0, conflicts: [] }
	const [changed = unchanged] =
		cells.length === 0
			? [unchanged]
			: changeRows(store, [{ kind: 'change', table: table.id, row, cells }], { actor, now, through })
	if (changed.conflicts.length > 0) return changed
	const [filled] = readRows(store, actor, { table: table.id, row, columns: [...step.columns] }, now).rows
	if (!step.columns.some((column) => (filled?.cells[cellKey(column)] ?? null) !== null))
		throw new AppError('invalid', 'Nothing is filled in yet. Fill in what is asked for, then send it.')
	closeAsk(store, { id: ask.id, state: 'answered', now })
	readNoticesTo(store, { link: askLink(store, ask.id), person: actor.person, now })
	wakeRun(store, { run: ask.run, now })
	store.touched.add('access')
	return changed
}

/** An ask with what it asks, as the routine was when its run began. */
interface Asking {
	readonly ask: Ask
	readonly routine: Routine
	readonly step: StepOf<'ask'>
	readonly table: Table
}

function asksFor(store: Store, ask: Ask): Asking | undefined {
	const run = findRun(store, ask.run)
	const routine = run && (run.state === 'ready' || run.state === 'waiting') ? findRoutine(store, run) : undefined
	const step = routine && placedSteps(routine).find((each) => each.step.id === ask.step)?.step
	const table = store.workspace().catalogue.tables.get(ask.table)
	if (!run || !routine || step?.kind !== 'ask' || !table) return undefined
	return { ask, routine, step, table }
}

function getAsk(store: Store, { id, actor, now }: ByActor & { id: string }): Asking {
	const n = fromAskId(store, id)
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
		id: toAskId(store, ask.id),
		subject: words(store, asking, { text: step.subject, to: actor.person, now }),
		label: rowLabel(store, table, { person: actor.person, n: ask.row, now }),
		askedAt: ask.askedAt,
		endsAt: ask.endsAt
	}
}

function words(
	store: Store,
	{ ask, table }: Asking,
	{ text, to, now }: { text: string; to: number; now: number }
): string {
	const outer = ask.outerTable === null ? undefined : getTable(store.workspace().catalogue, ask.outerTable)
	const around: RowAt | undefined = outer && { table: outer, n: ask.outerRow ?? 0 }
	return composeFor(store, text, { at: { table, n: ask.row }, outer: around, to, now })
}
