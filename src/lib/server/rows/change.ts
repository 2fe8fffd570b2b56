/**
 * The one door in: every change of a builder's rows goes through `changeRows`.
 *
 * - Lines say who may: judged on the row before, and again after, inside the transaction that writes.
 * - Guards say what nobody may: required, unique, closed by a sign-off. They come after the lines and name themselves.
 * - Computed columns, history and the events that a change causes commit with it or not at all. Guards and events of
 *   several changes made together come after all of them: a request that asks for a decision has its items by then.
 * - A row that is not seen is answered like one that does not exist.
 *
 * Callers hold a write transaction with a savepoint around each call; a refusal is thrown and undoes all of it.
 */
import { AppError } from '$lib/core/app-error.ts'
import { isAlways, isNever } from '$lib/core/formula/syntax/constant.ts'
import type { Right, Rights } from '$lib/core/access/rights.ts'
import { covers, type Verb } from '$lib/core/access/types.ts'
import type { Moment } from '$lib/core/formula/evaluate/fold.ts'
import { compileCondition } from '$lib/core/formula/sql/compile.ts'
import { newContext } from '$lib/core/formula/sql/sql-context.ts'
import type { CellChange, Change, Changed, Conflict, JoinedCell } from '$lib/core/query/change.ts'
import { allOf, joinSql, param, sql, type Sql, type SqlValue } from '$lib/core/sql/sql.ts'
import { cellKey, type WireCell } from '$lib/core/query/wire.ts'
import type { StoredValue } from '$lib/core/table/storage.ts'
import { findColumn, getColumn, type Column, type Table } from '$lib/core/model/table.ts'
import { describePerson } from '../rights/accounts.ts'
import { standingOf } from '../rights/rights-of-actor.ts'
import { keepingASteward } from '../rights/stewardship.ts'
import type { Store } from '../store/store.ts'
import { isTry } from '../store/become-try.ts'
import { checkGuards, checkNotClosed } from './guards.ts'
import { writeHistory } from '../history/history.ts'
import { whoseDoing, type AddedRow, type ChangeContext } from './change-context.ts'
import { isInBin, putInBin, takeFromBin, type Cascaded } from './bin.ts'
import { readRows } from './read.ts'
import { nextRowNumber } from '../store/row-numbers.ts'
import { toStoredCells, type StoredCells } from './stored-cells.ts'
import { readStoredRow, updateStoredRow, type StoredRow } from '../store/stored-row.ts'

export interface RowEvent {
	readonly kind: 'added' | 'changed' | 'removed'
	readonly table: Table
	readonly n: number
	/** The row as it stood before, where it was there, and as it stands once all that is changed together is. */
	readonly before?: StoredRow
	readonly after?: StoredRow
}

/** Told of each change in its transaction, after all else: what it refuses is undone with the change. */
export type RowListener = (store: Store, event: RowEvent, context: ChangeContext) => void

let tell: RowListener = () => {
	throw new Error('Cannot change a row: nobody was registered to be told')
}

/** Says who is told of changes. Called where the writer is put together, since what a change causes lies above this door. */
export function tellOfChanges(listener: RowListener): void {
	tell = listener
}

/** Makes all of the changes or none. */
export function changeRows(store: Store, changes: readonly Change[], context: ChangeContext): Changed[] {
	if (context.actor.lookedAtBy !== undefined && !isTry(store))
		throw new AppError('forbidden', 'This is the Lookout: it changes nothing but a copy of the data.')
	return store.steadily(() => {
		const batch: Batch = { isSingle: changes.length === 1, added: [], guards: [], events: [] }
		// One change by itself names no row of its own batch.
		const together = batch.isSingle ? context : { ...context, added: batch.added }
		const changed = changes.map((change) => {
			const door = openDoor({ store, context: together, batch }, change.table)
			const made = makeChange(door, change)
			batch.added.push(
				change.kind === 'add' ? { table: change.table, n: store.ids.fromId(change.table, made.row) } : null
			)
			return made
		})
		for (const guard of batch.guards) guard()
		for (const event of batch.events) if (!isTakenOut(event, batch)) tell(store, settled(store, event, batch), context)
		return changed
	})
}

/** Changes that are made together. */
interface Batch {
	readonly isSingle: boolean
	/** What each added, in their order; null where it added nothing. */
	readonly added: (AddedRow | null)[]
	readonly guards: (() => void)[]
	readonly events: RowEvent[]
}

function makeChange(door: Door, change: Change): Changed {
	switch (change.kind) {
		case 'add':
			return addRow(door, change.cells)
		case 'change':
			return changeRow(door, change.row, change.cells)
		case 'remove':
			return removeRow(door, change.row)
		case 'restore':
			return restoreRow(door, change.row)
	}
}

interface Door {
	readonly store: Store
	readonly table: Table
	readonly rights: Rights
	readonly moment: Moment
	readonly context: ChangeContext
	readonly batch: Batch
}

function openDoor({ store, context, batch }: Pick<Door, 'store' | 'context' | 'batch'>, tableId: number): Door {
	const table = store.workspace().catalogue.tables.get(tableId)
	if (!table) throw notFound()
	const { rights, moment } = standingOf(store, context.actor, context.now)
	return { store, table, rights, moment, context, batch }
}

function notFound(): AppError {
	return new AppError('not_found', 'This row is not there, or not for you to see.')
}

function addRow(door: Door, cells: readonly (CellChange | JoinedCell)[]): Changed {
	const { store, table, rights, context } = door
	const given = rights.of('add', table)
	if (given.length === 0) throw new AppError('forbidden', `You may not add rows to ${table.name}.`)
	const columns = cells.map((cell) => writable(table, cell.column))
	// Before any value is looked at: what is wrong with one would name a column that is not theirs to fill.
	refuseUnless(verdict(given, columns), 'add', door)
	refuseMarked(door, undefined, columns)
	const stored = toStoredCells(store, { table, before: undefined }, cells, context)
	const n = insertRow(door, stored)
	refuseUnless(allowedBy(door, n, given, columns), 'add', door)
	settle(door, readStoredRow(store, table, n), undefined)
	return { row: store.ids.toId(table.id, n), rev: 1, conflicts: [] }
}

function changeRow(door: Door, id: string, cells: readonly CellChange[]): Changed {
	const { store, table, rights, context } = door
	const before = seenRow(door, id)
	const given = rights.of('change', table)
	checkNotClosed(store, table, before)
	const wanted = cells.map((cell) => writable(table, cell.column))
	const held = judge(door, before.n, given, 'where')
	refuseUnless(
		verdict(
			given.filter((_right, i) => held[i]),
			wanted
		),
		'change',
		door
	)
	refuseMarked(door, before.n, wanted)
	const { clear, conflicts } = splitConflicts(door, id, cells)
	if (clear.length > 0) {
		const stored = toStoredCells(store, { table, before }, clear, context)
		const after = updateRow(door, before.n, stored)
		const columns = clear.map((cell) => writable(table, cell.column))
		const still = judge(door, before.n, given, 'after')
		const both = given.filter((_right, i) => held[i] && still[i])
		refuseUnless(verdict(both, columns), 'change', door)
		settle(door, after, before)
	}
	return { row: id, rev: before.rev + (clear.length > 0 ? 1 : 0), conflicts }
}

/** `removing`: rows whose removal led here, so that rows that point to one another end. */
function removeRow(door: Door, id: string, removing: ReadonlySet<string> = new Set()): Changed {
	const { store, table, rights, context } = door
	const before = seenRow(door, id)
	checkNotClosed(store, table, before)
	refuseUnless(allowedBy(door, before.n, rights.of('remove', table), []), 'remove', door)
	const cascaded = cascade(door, before.n, removing)
	keepStewardIfPeople(door, () => putInBin(store, table, { row: before, cascaded }, context))
	writeChange(door, 'remove', before.n, `{"before":${cellsText(before)}}`)
	door.batch.events.push({ kind: 'removed', table, n: before.n, before })
	return { row: id, rev: before.rev, conflicts: [] }
}

/** Undoing a removal is adding the row again, under today's rights. */
function restoreRow(door: Door, id: string): Changed {
	const { store, table, rights } = door
	const n = store.ids.fromId(table.id, id)
	const cascaded = n === undefined ? undefined : takeFromBin(store, table, n)
	if (n === undefined || !cascaded) throw notFound()
	// First, since rows that went together may point to one another.
	bringBack(door, id, cascaded)
	const filled = readStoredRow(store, table, n)
	for (const column of table.columns) refuseIfTargetGone(store, column, filled?.stored.get(column.id) ?? null)
	const columns = table.columns.filter((column) => !column.computed && (filled?.stored.get(column.id) ?? null) !== null)
	refuseUnless(allowedBy(door, n, rights.of('add', table), columns), 'add', door)
	// Somebody who comes back has what they held.
	refuseMarked(door, n, columns)
	settle(door, readStoredRow(store, table, n), undefined)
	return { row: id, rev: (filled?.rev ?? 0) + 1, conflicts: [] }
}

/** What went with a row comes back with it, as far as it is still in the bin, or still blank. */
function bringBack(door: Door, id: string, { removed, cleared }: Cascaded): void {
	const { store } = door
	for (const [table, n] of removed)
		if (isInBin(store, table, n)) restoreRow(openDoor(door, table), store.ids.toId(table, n))
	const { tables } = store.workspace().catalogue
	for (const [table, n, column] of cleared) {
		const child = tables.get(table)
		if (!child || !findColumn(child, column) || !readStoredRow(store, child, n)) continue
		const cell = { column, value: { id }, was: null }
		changeRow(openDoor(door, table), store.ids.toId(table, n), [cell])
	}
}

function seenRow(door: Door, id: string): StoredRow {
	const { store, table } = door
	const n = store.ids.fromId(table.id, id)
	if (n === undefined) throw notFound()
	const row = readStoredRow(store, table, n)
	if (!row || !isSeen(door, n)) throw notFound()
	return row
}

function isSeen({ store, table, rights }: Door, n: number): boolean {
	if (isAlways(rights.rows(table))) return true
	const seen = compileCondition(rights.rows(table), newContext('r', rights.moment))
	const [found] = store.select(sql`SELECT 1 FROM t${table.id} AS r WHERE ${allOf([sql`r.n = ${param(n)}`, seen])}`)
	return found !== undefined
}

function writable(table: Table, id: number): Column {
	const column = findColumn(table, id)
	if (!column || column.computed) throw new AppError('forbidden', 'That column cannot be changed here.', { column: id })
	return column
}

/** For each right, whether its condition holds on the row as it now is. */
function judge(door: Door, n: number, rights: readonly Right[], part: 'where' | 'after'): boolean[] {
	if (rights.every((right) => isAlways(right[part]))) return rights.map(() => true)
	const flags = rights.map((right) => sql`(${compileCondition(right[part], newContext('r', door.moment))}) IS TRUE`)
	const [row] = door.store.select(
		sql`SELECT ${joinSql(flags, ', ')} FROM t${door.table.id} AS r WHERE r.n = ${param(n)}`
	)
	return rights.map((_right, i) => row?.[i] === 1)
}

/**
 * Changing a column of people that decides access changes somebody's rights: it takes the right to grant, and is never
 * one's own to do.
 */
function refuseMarked({ store, table, context }: Door, n: number | undefined, columns: readonly Column[]): void {
	const { catalogue, marked } = store.workspace()
	if (table.id !== catalogue.people.id) return
	const decides = columns.find((column) => marked.has(column.id))
	if (!decides) return
	const details = { column: decides.id }
	if (n === context.actor.person)
		throw new AppError(
			'forbidden',
			`${decides.name} decides what you may see, so somebody else must change it.`,
			details
		)
	// A role of a routine is nobody who could be asked about it.
	if (context.actor.role !== undefined || !describePerson(store, context.actor.person)?.isSteward)
		throw new AppError('forbidden', `${decides.name} decides what people may see: only a steward changes it.`, details)
}

function keepStewardIfPeople({ store, table }: Door, work: () => void): void {
	if (table.id === store.workspace().catalogue.people.id) keepingASteward(store, work)
	else work()
}

type Verdict = { readonly ok: true } | { readonly ok: false; readonly column: Column | undefined }

function verdict(held: readonly Right[], columns: readonly Column[]): Verdict {
	if (held.length === 0) return { ok: false, column: undefined }
	const refused = columns.find((column) => !held.some((right) => covers(right.columns, column.id)))
	return refused ? { ok: false, column: refused } : { ok: true }
}

function allowedBy(door: Door, n: number, rights: readonly Right[], columns: readonly Column[]): Verdict {
	const holds = judge(door, n, rights, 'where')
	return verdict(
		rights.filter((_right, i) => holds[i]),
		columns
	)
}

function refuseUnless(allowed: Verdict, verb: Verb, { table, rights }: Door): void {
	if (allowed.ok) return
	// A column that this person sees nowhere is not named to them.
	const named = allowed.column && !isNever(rights.cell(table, allowed.column))
	const what = allowed.column && named ? `${verb} "${allowed.column.name}" of this row` : `${verb} this row`
	const details = allowed.column ? { column: allowed.column.id } : {}
	throw new AppError('forbidden', `You may not ${what}: no line of access to ${table.name} lets you.`, details)
}

/** A cell conflicts when it no longer holds what the person saw. A cell they could not see cannot conflict. */
function splitConflicts(
	door: Door,
	id: string,
	cells: readonly CellChange[]
): { clear: CellChange[]; conflicts: Conflict[] } {
	const { store, table, context } = door
	if (cells.every((cell) => cell.was === undefined)) return { clear: [...cells], conflicts: [] }
	const page = readRows(
		store,
		context.actor,
		{ table: table.id, row: id, columns: cells.map((cell) => cell.column) },
		context.now
	)
	const now = page.rows[0]?.cells ?? {}
	const clear: CellChange[] = []
	const conflicts: Conflict[] = []
	for (const cell of cells) {
		const theirs = now[cellKey(cell.column)]
		const same = cell.was === undefined || theirs === undefined || sameCell(theirs, cell.was)
		if (same) clear.push(cell)
		else conflicts.push({ column: cell.column, theirs, yours: cell.value })
	}
	return { clear, conflicts }
}

function sameCell(a: WireCell, b: WireCell): boolean {
	if (a === null || b === null || typeof a !== 'object' || typeof b !== 'object') return a === b
	if ('id' in a && 'id' in b) return a.id === b.id
	return JSON.stringify(a) === JSON.stringify(b)
}

function insertRow({ store, table, context }: Door, cells: StoredCells): number {
	const n = nextRowNumber(store, table.id)
	const names = ['n', 'rev', 'made_by', 'made_at', 'changed_by', 'changed_at', ...cells.names]
	const person = whoseDoing(context)
	const values = [n, 1, person, context.now, person, context.now, ...cells.values]
	const marks = names.map(() => '?').join(', ')
	store.prepare(`INSERT INTO t${table.id} (${names.join(', ')}) VALUES (${marks})`).run(...values)
	return n
}

function updateRow({ store, table, context }: Door, n: number, cells: StoredCells): StoredRow | undefined {
	const names = ['changed_by', 'changed_at', ...cells.names]
	const values: SqlValue[] = [whoseDoing(context), context.now, ...cells.values]
	return updateStoredRow(store, table, n, { names, values })
}

/** What follows every addition and change: history, and once all that goes with it is made, guards and events. */
function settle(door: Door, after: StoredRow | undefined, before: StoredRow | undefined): void {
	const { store, table } = door
	if (!after) throw new Error(`Expected a row of table "${table.id}" to be there after a change`)
	const { n } = after
	if (!before || pointsElsewhere(table, before, after)) checkNotClosed(store, table, after)
	door.batch.guards.push(() => guardRow(door, after, before))
	writeChange(
		door,
		before ? 'change' : 'add',
		n,
		before ? `{"before":${cellsText(before)},"after":${cellsText(after, before)}}` : `{"after":${cellsText(after)}}`
	)
	door.batch.events.push({ kind: before ? 'changed' : 'added', table, n, after, ...(before ? { before } : {}) })
}

/** Later changes of the same batch may have touched the row. */
function settled(store: Store, event: RowEvent, { isSingle }: Batch): RowEvent {
	const after = isSingle || event.kind === 'removed' ? event.after : readStoredRow(store, event.table, event.n)
	return after ? { ...event, after } : event
}

/** A row that later changes took out again needs no guard. */
function guardRow({ store, table, rights, moment, batch }: Door, row: StoredRow, before: StoredRow | undefined): void {
	const after = batch.isSingle ? row : readStoredRow(store, table, row.n)
	if (after) checkGuards(store, { table, rights, moment, before, after })
}

/** Whether a row that was added or changed went again in the same batch: nobody is told of what did not last. */
function isTakenOut({ kind, table, n }: RowEvent, { events }: Batch): boolean {
	return kind !== 'removed' && events.some((each) => each.kind === 'removed' && each.table === table && each.n === n)
}

/** Then it may now belong to a row that is closed. */
function pointsElsewhere(table: Table, before: StoredRow, after: StoredRow): boolean {
	return table.columns.some(({ id, type }) => type === 'reference' && before.stored.get(id) !== after.stored.get(id))
}

function writeChange({ store, table, context }: Door, kind: string, n: number, body: string): void {
	const { now, through } = context
	store.touched.add(table.id)
	// A person's own row decides what they see everywhere.
	if (table.id === store.workspace().catalogue.people.id) store.touched.add('access')
	writeHistory(store, { at: now, person: whoseDoing(context), through, kind, table: table.id, row: n, body })
}

/** The cells of a row as JSON, made without an object in between; beside the row as it was, only those that differ. */
function cellsText(row: StoredRow, before?: StoredRow): string {
	let text = ''
	for (const [column, value] of row.stored)
		if (before?.stored.get(column) !== value)
			text += `${text === '' ? '' : ','}"${cellKey(column)}":${typeof value === 'number' ? value : JSON.stringify(value)}`
	return `{${text}}`
}

/**
 * What becomes of the rows that point to one that goes, as each reference says: it is refused, the reference becomes
 * blank, or they go as well, which needs the right on each. Rows that this person cannot see are only "other rows".
 */
function cascade(door: Door, n: number, removing: ReadonlySet<string>): Cascaded {
	const { store, table } = door
	const cascaded: Cascaded = { removed: [], cleared: [] }
	const { catalogue } = store.workspace()
	const further = new Set([...removing, `${table.id} ${n}`])
	for (const backReference of table.backReferences) {
		const child = catalogue.tables.get(backReference.table)
		if (!child) continue
		const { onRemoval = 'keep' } = getColumn(child, backReference.column)
		const points = sql`r.c${backReference.column} = ${param(n)}`
		const found = store.select(sql`SELECT r.n FROM t${child.id} AS r WHERE ${points} LIMIT ${param(MOST_LET_GO)}`)
		const rows = found.map(([row]) => Number(row)).filter((row) => !further.has(`${child.id} ${row}`))
		if (rows.length === 0) continue
		const own = openDoor(door, child.id)
		if (onRemoval === 'keep') throw stillUsed(own, child, points)
		if (rows.length === MOST_LET_GO)
			throw new AppError('invalid', `Too many rows of ${child.name} point to this one to change them all at once.`)
		for (const row of rows) {
			if (!isSeen(own, row)) throw new AppError('invalid', OTHERS_USE_IT)
			const id = store.ids.toId(child.id, row)
			if (onRemoval === 'remove too') {
				removeRow(own, id, further)
				cascaded.removed.push([child.id, row])
			} else {
				changeRow(own, id, [{ column: backReference.column, value: null }])
				cascaded.cleared.push([child.id, row, backReference.column])
			}
		}
	}
	return cascaded
}

const MOST_LET_GO = 10_000
const OTHERS_USE_IT = 'Other rows still use it.'

function stillUsed({ store, rights }: Door, child: Table, points: Sql): AppError {
	const seen = compileCondition(rights.rows(child), newContext('r', rights.moment))
	const [visible] = store.select(sql`SELECT 1 FROM t${child.id} AS r WHERE ${allOf([points, seen])} LIMIT 1`)
	const message = visible ? `Rows of ${child.name} still point to this one. Change them first.` : OTHERS_USE_IT
	return new AppError('invalid', message)
}

/** A row comes back only into the company that it had. */
function refuseIfTargetGone(store: Store, column: Column, stored: StoredValue): void {
	if (column.type !== 'reference' || stored === null) return
	if (store.prepare(`SELECT 1 FROM t${column.to} WHERE n = ?`).get(stored)) return
	throw new AppError('invalid', `${column.name}: the row it points to was removed. Bring that one back first.`)
}
