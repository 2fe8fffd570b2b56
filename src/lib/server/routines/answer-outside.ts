/**
 * Asks of somebody outside: whoever has the link sees the words and the columns that are asked for, and answers once, under the
 * role that the routine acts as. Looking changes nothing: programs that read mail open links by themselves.
 */
import { AppError } from '$lib/core/app-error.ts'
import { findColumn, type Column } from '$lib/core/model/table.ts'
import type { CellChange } from '$lib/core/query/change.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import type { OutsideAsk, OutsideEntry } from '$lib/core/requests/outside-asks.ts'
import { findKind } from '$lib/core/table/kinds/all.ts'
import { showValue } from '$lib/core/table/show-value.ts'
import { readRows } from '../rows/read.ts'
import { changeRows } from '../rows/change.ts'
import type { Store } from '../store/store.ts'
import { actingOf, refuseUnlessMayAct, type Acting } from './acting.ts'
import { asksFor, type Asking } from './answer-ask.ts'
import { closeAsk, findAskByLink, wakeRun } from './asks.ts'
import { composeAs } from './compose.ts'
import { heldOf } from './held.ts'
import { findRun } from './runs.ts'

interface ByLink {
	readonly token: string
	readonly now: number
}

/** Null where the link is over: answered, ended, cancelled, or never there. */
export function readOutsideAsk(store: Store, { token, now }: ByLink): OutsideAsk | null {
	const found = findOpen(store, { token, now })
	if (!found) return null
	const { asking, acting, cells } = found
	const { ask, step, table, routine } = asking
	const { rights, moment } = acting
	if (!rights) return null
	const outer = ask.outerTable === null ? undefined : store.workspace().catalogue.tables.get(ask.outerTable)
	const composing = {
		at: { table, n: ask.row },
		outer: outer && { table: outer, n: ask.outerRow ?? 0 },
		...{ here: heldOf(store, routine, ask.run).given, sight: { rights, moment } }
	}
	return {
		workspace: store.workspace().name,
		subject: composeAs(store, step.subject, composing),
		body: composeAs(store, step.body, composing),
		columns: step.columns.flatMap((id) => {
			const column = findColumn(table, id)
			return column ? [toEntry(column, cells[cellKey(id)] ?? null)] : []
		}),
		endsAt: ask.endsAt
	}
}

export interface OutsideAnswer extends ByLink {
	/** What was typed, by the number of its column. */
	readonly typed: Readonly<Record<string, string>>
}

/** Goes in whole or not at all, by the door, as the role; then the link is over. */
export function answerOutside(store: Store, { token, typed, now }: OutsideAnswer): void {
	const found = findOpen(store, { token, now })
	if (!found) throw new AppError('not_found', 'This link is over. Ask whoever sent it.')
	const { asking, acting } = found
	const { ask, step, table, routine } = asking
	const { actor } = acting
	if (!actor) throw new AppError('forbidden', 'This cannot be answered any more. Ask whoever sent it.')
	const cells = step.columns.flatMap((id): CellChange[] => {
		const column = findColumn(table, id)
		return column ? [{ column: id, value: readTyped(store, column, typed[id] ?? '') }] : []
	})
	if (cells.every(({ value }) => value === null))
		throw new AppError('invalid', 'Nothing is filled in yet. Fill in what is asked for, then send it.')
	const change = { kind: 'change' as const, table: table.id, row: store.ids.toId(table.id, ask.row), cells }
	changeRows(store, [change], { actor, now, through: `answer to ${routine.name}` })
	closeAsk(store, { id: ask.id, state: 'answered', now })
	wakeRun(store, { run: ask.run, now })
}

interface Found {
	readonly asking: Asking
	readonly acting: Acting
	readonly cells: Readonly<Record<string, unknown>>
}

/** An ask that is open, with the row as its role sees it; undefined where that role is not given any more, or sees it no more. */
function findOpen(store: Store, { token, now }: ByLink): Found | undefined {
	const ask = findAskByLink(store, token)
	const asking = ask?.state === 'open' && ask.email !== null ? asksFor(store, ask) : undefined
	const run = ask && findRun(store, ask.run)
	if (!ask || !asking || !run || (ask.endsAt !== null && now >= ask.endsAt)) return undefined
	const { routine, table, step } = asking
	const acting = tryActing(store, { routine, release: { app: run.app, number: run.release }, now })
	if (!acting?.actor) return undefined
	const row = store.ids.toId(table.id, ask.row)
	const [seen] = readRows(store, acting.actor, { table: table.id, row, columns: [...step.columns] }, now).rows
	return seen && { asking, acting, cells: seen.cells }
}

function tryActing(store: Store, started: Omit<Parameters<typeof refuseUnlessMayAct>[1], 'by'> & { now: number }) {
	try {
		refuseUnlessMayAct(store, { ...started, by: undefined })
		return actingOf(store, { ...started, by: undefined })
	} catch (thrown) {
		if (thrown instanceof AppError) return undefined
		throw thrown
	}
}

function toEntry(column: Column, value: unknown): OutsideEntry {
	const { id, name, type, unit = '', choices = [] } = column
	// Of the types that are asked outside, cells hold plain values.
	const plain = value as string | number | boolean | null
	const isDate = type === 'date'
	return {
		...{ id, name, unit, as: AS[type] ?? 'line' },
		choices: type === 'yes/no' ? ['yes', 'no'] : choices,
		// A date as browsers want it.
		value: plain === null ? '' : isDate ? String(plain) : showValue(plain, { ...column, unit: '' })
	}
}

const AS: Readonly<Partial<Record<Column['type'], OutsideEntry['as']>>> = {
	'long text': 'lines',
	date: 'date',
	choice: 'choice',
	'yes/no': 'choice',
	decimal: 'number',
	'whole number': 'number',
	money: 'number',
	percent: 'number'
}

function readTyped(store: Store, column: Column, typed: string): string | number | boolean | null {
	const text = typed.trim()
	if (text === '') return null
	const read = findKind(column.type)?.read(text, column, store.workspace().writing)
	if (!read?.ok) throw new AppError('invalid', `${column.name}: ${read?.message ?? 'cannot be filled in here.'}`)
	return read.value
}
