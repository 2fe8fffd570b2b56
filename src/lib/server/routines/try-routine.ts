/**
 * What a routine would have started in the last seven days, and what it would have done: nothing is written and nothing sent.
 *
 * Starts are exact, since the history holds each row before and after; what stands in other rows is as of today. What the steps
 * come to is worked out on the rows as they are now. A change of a row that the builder may not see is only counted.
 */
import { AppError } from '$lib/core/app-error.ts'
import { checkCondition } from '$lib/core/formula/check/check.ts'
import { compileCondition } from '$lib/core/formula/sql/compile.ts'
import { newContext } from '$lib/core/formula/sql/sql-context.ts'
import { evaluate, isTrue } from '$lib/core/formula/evaluate/evaluate.ts'
import type { Expr } from '$lib/core/model/formula.ts'
import { getColumn, type Table } from '$lib/core/model/table.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import { linesOf, type Routine, type Step } from '$lib/core/routine/routine.ts'
import type { TriedRoutine, TriedStart } from '$lib/core/requests/runs.ts'
import { addDays } from '$lib/core/schedule/calendar.ts'
import { instantAt, localDate } from '$lib/core/schedule/zone.ts'
import { isStored } from '$lib/core/table/storage.ts'
import { allOf, param, sql } from '$lib/core/sql/sql.ts'
import { refuseUnheld } from '../rights/held-formulas.ts'
import { refuseUnlessBuilder } from '../rights/builders.ts'
import { momentAt, standingOf, type ByActor } from '../rights/rights-of-actor.ts'
import { getTableAsKeeper } from '../rights/table-as-keeper.ts'
import { readBody, type Snapshot } from '../rows/read-history.ts'
import { rowLabel } from '../rows/row-label.ts'
import { cellText } from '../rows/written-text.ts'
import { rowFromStored, storeEnv, type StoredRow } from '../store/stored-row.ts'
import type { Store } from '../store/store.ts'
import { timesComing } from './clocks.ts'
import { findPerson, givenOf, workOut, type RowAt } from './work-out.ts'

const DAYS = 7
const MOST_READ = 20_000
const MOST_SHOWN = 50
/** Of the starts the steps are followed for so many; beyond that they are not worked out. */
const MOST_FOLLOWED = 500

const ENTRIES = `SELECT at, person, kind, table_id AS "table", row_n AS "row", body FROM history ORDER BY seq DESC`

export interface Trying extends ByActor {
	readonly routine: Routine
}

export function tryRoutine(store: Store, { routine, actor, now }: Trying): TriedRoutine {
	refuseUnlessBuilder(store, actor)
	const zone = store.workspace().timeZone
	const to = localDate(new Date(now).toISOString(), zone)
	const from = addDays(to, -DAYS) ?? to
	const none: TriedRoutine = { from, to, read: 0, isCut: false, starts: 0, shown: [], unseen: 0, steps: {}, why: '' }
	const { start } = routine
	if (start.kind === 'button') return { ...none, why: 'It starts when somebody presses. Try it in the Lookout.' }
	try {
		if (start.kind === 'clock' || start.kind === 'due') return tryClock(store, { routine, actor, now }, none)
		return tryRows(store, { routine, actor, now }, none)
	} catch (thrown) {
		if (!(thrown instanceof AppError)) throw thrown
		return { ...none, why: thrown.message }
	}
}

interface StoredEntry {
	readonly at: number
	readonly person: number | null
	readonly kind: string
	readonly table: number | null
	readonly row: number | null
	readonly body: string
}

function tryRows(store: Store, trying: Trying, none: TriedRoutine): TriedRoutine {
	const { routine, actor, now } = trying
	const { start } = routine
	if (start.kind !== 'rows' && start.kind !== 'comes') return none
	const table = getTableAsKeeper(store, start.table, actor)
	const condition = conditionOf(store, start.where, table, trying)
	const when = start.kind === 'comes' ? 'added or changed' : start.when
	const since = Date.parse(instantAt(`${none.from}T00:00:00.000`, store.workspace().timeZone))
	const env = { ...momentAt(store.workspace().timeZone, now), ...storeEnv(store) }
	const holds = (row: StoredRow | undefined) =>
		row !== undefined && (condition === undefined || isTrue(evaluate(condition, { ...env, rows: [row] })))
	let read = 0
	const shown: TriedStart[] = []
	const started: number[] = []
	let unseen = 0
	// The columns that the statement names.
	for (const entry of store.prepare<StoredEntry>(ENTRIES).iterate() as IterableIterator<StoredEntry>) {
		if (entry.at < since || read === MOST_READ) break
		read++
		if (entry.table !== table.id || entry.row === null || !(entry.kind === 'add' || entry.kind === 'change')) continue
		if (!when.includes(entry.kind === 'add' ? 'added' : 'changed')) continue
		const { before, after } = rowsOf(table, entry)
		if (!holds(after)) continue
		const starts = start.kind === 'rows' || !holds(before)
		if (starts) started.push(entry.row)
		const row = rowLabel(store, table, { person: actor.person, n: entry.row, now })
		if (!isSeen(store, table, entry.row, trying)) unseen++
		else if (shown.length < MOST_SHOWN)
			shown.push({ at: entry.at, row, by: nameOf(store, entry.person, trying), starts })
	}
	const rows = started.slice(0, MOST_FOLLOWED).map((n) => ({ table, n }))
	const steps = follow(store, trying, rows)
	return { ...none, read, isCut: read === MOST_READ, starts: started.length, shown, unseen, steps }
}

/** The row as it stood after a change and before; of one that was added there is none before. */
function rowsOf(table: Table, { row, body }: StoredEntry): { before?: StoredRow; after: StoredRow } {
	const { before, after } = readBody(body)
	const toRow = (cells: Snapshot) => {
		const stored = new Map(
			table.columns.filter(isStored).map((column) => [column.id, cells[cellKey(column.id)] ?? null])
		)
		return rowFromStored(row ?? 0, 0, stored)
	}
	return { ...(before ? { before: toRow(before) } : {}), after: toRow({ ...before, ...after }) }
}

function tryClock(store: Store, trying: Trying, none: TriedRoutine): TriedRoutine {
	const { routine, now } = trying
	const times = timesComing(store, routine, { now, days: DAYS })
	const shown = times.slice(0, MOST_SHOWN).map((at) => ({ at, row: '', by: '', starts: true }))
	const { start } = routine
	if (start.kind === 'due') return { ...none, starts: times.length, shown }
	return { ...none, starts: times.length, shown, steps: follow(store, trying, [undefined]) }
}

/** What each step would come to, over all these starts, in a few words. */
function follow(store: Store, trying: Trying, rows: readonly (RowAt | undefined)[]): Record<string, string> {
	const counts = new Map<string, Count>()
	for (const at of rows) walk(store, trying, { steps: trying.routine.steps, at, outer: undefined, counts })
	return Object.fromEntries([...counts].map(([id, count]) => [id, sayCount(count)]))
}

interface Count {
	readonly kind: Step['kind']
	readonly reached: number
	/** How often its condition held, how many rows there were, how many messages found somebody. */
	readonly came: number
}

interface Walk {
	readonly steps: readonly Step[]
	readonly at: RowAt | undefined
	readonly outer: RowAt | undefined
	readonly counts: Map<string, Count>
}

/** More rows of a set are not gone through for a try. */
const MOST_EACH = 200

function walk(store: Store, trying: Trying, { steps, at, outer, counts }: Walk): void {
	let held: boolean | undefined
	for (const step of steps) {
		const before = held
		held = undefined
		const note = (came: number) => {
			const { reached = 0, came: all = 0 } = counts.get(step.id) ?? {}
			counts.set(step.id, { kind: step.kind, reached: reached + 1, came: all + came })
		}
		const into = (row: RowAt | undefined, around: RowAt | undefined) =>
			walk(store, trying, { steps: linesOf(step), at: row, outer: around, counts })
		switch (step.kind) {
			case 'stop':
				return note(1)
			case 'if':
				held = at !== undefined && isHeld(store, trying, step.where, { at, outer })
				note(held ? 1 : 0)
				if (held) into(at, outer)
				break
			case 'else':
				note(before === false ? 1 : 0)
				if (before === false) into(at, outer)
				break
			case 'each': {
				const { rows, many } = rowsFor(store, trying, step, at)
				note(many)
				for (const row of rows) into(row, at)
				break
			}
			case 'send':
				note(recipient(store, trying, step.to, { at, outer }) === undefined ? 0 : 1)
				break
			default:
				note(1)
		}
	}
}

interface Rows {
	readonly at: RowAt | undefined
	readonly outer: RowAt | undefined
}

function sight(store: Store, { now }: Trying) {
	return { moment: momentAt(store.workspace().timeZone, now), rights: undefined }
}

function isHeld(store: Store, trying: Trying, where: string, { at, outer }: Rows): boolean {
	if (!at) return false
	const look = sight(store, trying)
	const scope = { catalogue: store.workspace().catalogue, rows: [at.table], me: true }
	const { expr } = checkCondition(where, outer ? { ...scope, given: givenOf(store, outer, look) } : scope)
	if (!expr) return false
	refuseUnheld(store, expr, { ...trying, what: 'A condition of it' })
	return isTrue(workOut(store, expr, { ...at, moment: look.moment }))
}

function recipient(store: Store, trying: Trying, to: string, { at, outer }: Rows): number | undefined {
	const look = sight(store, trying)
	return findPerson(store, to, { ...at, moment: look.moment, ...(outer ? { given: givenOf(store, outer, look) } : {}) })
}

function rowsFor(
	store: Store,
	trying: Trying,
	{ table: id, where }: Extract<Step, { kind: 'each' }>,
	outer: RowAt | undefined
): { rows: RowAt[]; many: number } {
	const table = getTableAsKeeper(store, id, trying.actor)
	const look = sight(store, trying)
	const conditions = []
	if (where.trim() !== '') {
		const scope = { catalogue: store.workspace().catalogue, rows: [table], me: true }
		const { expr } = checkCondition(where, outer ? { ...scope, given: givenOf(store, outer, look) } : scope)
		if (!expr) return { rows: [], many: 0 }
		refuseUnheld(store, expr, { ...trying, what: 'A condition of it' })
		conditions.push(compileCondition(expr, newContext('r', look.moment)))
	}
	const found = store.select(sql`SELECT r.n FROM t${table.id} AS r WHERE ${allOf(conditions)} ORDER BY r.n`)
	return { rows: found.slice(0, MOST_EACH).map(([n]) => ({ table, n: Number(n) })), many: found.length }
}

function conditionOf(store: Store, where: string, table: Table, trying: Trying): Expr | undefined {
	if (where.trim() === '') return undefined
	const { expr, issues } = checkCondition(where, { catalogue: store.workspace().catalogue, rows: [table], me: false })
	if (!expr) throw new AppError('invalid', issues[0]?.message ?? 'Its condition cannot be read.')
	refuseUnheld(store, expr, { ...trying, what: 'Its condition' })
	return expr
}

function isSeen(store: Store, table: Table, n: number, { actor, now }: Trying): boolean {
	const { rights } = standingOf(store, actor, now)
	const seen = compileCondition(rights.rows(table), newContext('r', rights.moment))
	return store.select(sql`SELECT 1 FROM t${table.id} AS r WHERE ${allOf([sql`r.n = ${param(n)}`, seen])}`).length > 0
}

function nameOf(store: Store, person: number | null, { actor, now }: Trying): string {
	if (person === null) return ''
	const { people } = store.workspace().catalogue
	return cellText(store, people, { column: getColumn(people, people.label), n: person, person: actor.person, now })
}

const SAYS: Readonly<Partial<Record<Step['kind'], (came: number) => string>>> = {
	send: (came) => `${came} ${came === 1 ? 'message' : 'messages'}`,
	each: (came) => `${came} ${came === 1 ? 'row' : 'rows'}`,
	add: (came) => `${came} ${came === 1 ? 'row' : 'rows'} added`,
	remove: (came) => `${came} ${came === 1 ? 'row' : 'rows'} removed`,
	set: (came) => `set ${came === 1 ? 'once' : `${came} times`}`
}

function sayCount({ kind, reached, came }: Count): string {
	if (kind === 'send' && came < reached) return `${came} of ${reached} name somebody`
	return SAYS[kind]?.(came) ?? (came === reached ? `${reached}` : `${came} of ${reached}`)
}
