/**
 * The last part of bringing a file into a table that is there: its changes go through the door, step by step, so that
 * the changes of others go on between. How the steps follow one another is said in `merge-run`.
 */
import { AppError } from '$lib/core/app-error.ts'
import type { Merged, Misfit } from '$lib/core/exchange/comparison.ts'
import type { Change } from '$lib/core/query/change.ts'
import { getTable } from '$lib/core/model/table.ts'
import { changeRows } from '../rows/change.ts'
import type { ChangeContext } from '../rows/change-context.ts'
import { writeHistory } from '../history/history.ts'
import { beginOfFile } from '../routines/begin-of-file.ts'
import type { Store } from '../store/store.ts'
import { saveWorkspace } from '../structure/save.ts'
import { dropTable } from '../store/schema.ts'
import { leaveTextIndexes } from '../derived/text-index.ts'
import { nextChanges } from './next-changes.ts'
import { refusedOf } from './refused-of.ts'
import { intoOf, type Staging } from './stage-merge.ts'

const MOST_TOLD = 50
/** Rows that share a savepoint where all are one transaction anyway. */
const TOGETHER = 200
const NEXT_ENTRY = `SELECT coalesce(max(seq), 0) + 1 FROM history`

export interface Applying extends Staging {
	readonly file: string
}

/** How far it is: what became of the rows up to this staged one. */
export interface Applied extends Merged {
	readonly after: number | undefined
	readonly ended: boolean
}

export const NOTHING_APPLIED: Applied = {
	...{ added: 0, changed: 0, removed: 0, misfits: [], misfitCount: 0 },
	...{ after: undefined, ended: false }
}

export interface ApplyStep extends Applying {
	readonly soFar: Applied
	/** As many rows are a step. */
	readonly atMost: number
}

/** Rows that do not fit are named, and the step goes on. */
export function applyStep(store: Store, { soFar, atMost, ...applying }: ApplyStep): Applied {
	const { actor, now, file } = applying
	const context: ChangeContext = { actor, now, through: throughOf(file) }
	const { changes, ...further } = nextChanges(store, applying, { after: soFar.after, atMost })
	const refused = refusedOf(store, changes, ({ change }) => changeRows(store, [change], context))
	const misfits = [...refused].map(([i, { message }]): Misfit => ({ label: changes[i]?.label() ?? '', message }))
	const went = changes.filter((_change, i) => !refused.has(i))
	const count = (kind: Change['kind']) => went.filter(({ change }) => change.kind === kind).length
	return {
		...further,
		added: soFar.added + count('add'),
		changed: soFar.changed + count('change'),
		removed: soFar.removed + count('remove'),
		misfits: [...soFar.misfits, ...misfits].slice(0, MOST_TOLD),
		misfitCount: soFar.misfitCount + misfits.length
	}
}

/** The same, but nothing of it stays: whether rows fit is known before the first is in. */
export function tryStep(store: Store, step: ApplyStep): Applied {
	const touched = [...store.touched]
	store.db.exec('SAVEPOINT trial')
	try {
		leaveTextIndexes(store)
		return applyStep(store, step)
	} finally {
		store.db.exec('ROLLBACK TO trial; RELEASE trial')
		store.forget()
		store.touched.clear()
		for (const each of touched) store.touched.add(each)
	}
}

/** All of it in one transaction: all, or, where a row does not fit and `partly` is not set, none. */
export function applyMerge(store: Store, { partly, ...applying }: Applying & { partly: boolean }): Merged {
	const first = Number(store.pluck(NEXT_ENTRY))
	let soFar = NOTHING_APPLIED
	while (!soFar.ended) soFar = applyStep(store, { ...applying, soFar, atMost: TOGETHER })
	if (soFar.misfitCount > 0 && !partly) throw misfitError(soFar)
	return endApplying(store, { ...applying, soFar, first })
}

/** In the reader's words, with the rows. */
export function misfitError({ misfits, misfitCount }: Merged): AppError {
	const what = misfitCount === 1 ? 'One row does not fit.' : `${misfitCount} rows do not fit.`
	return new AppError('invalid', `${what} Nothing was brought in.`, { misfits })
}

/** Before the first of many steps. Should the program end between them, `closeBroken` finds what was begun. */
export function beginApplying(store: Store, { plan, actor, now, file }: Applying): number {
	const { table } = intoOf(plan)
	const last = store.prepare<LastMerge>(LAST).get(table)
	if (last?.kind === 'bring in begun') {
		const { name } = getTable(store.workspace().catalogue, table)
		throw new AppError('busy', `Another file is just going into ${name}. Wait until it is in.`)
	}
	const first = Number(store.pluck(NEXT_ENTRY))
	const at = { at: now, person: actor.person, through: 'Sources' as const, table, row: null }
	writeHistory(store, { ...at, kind: 'bring in begun', body: { file, first } })
	return first
}

/** `first`: all entries from it to the one that is written here are its own, by which it can be undone. */
export function endApplying(
	store: Store,
	{ soFar, first, ...applying }: Applying & { soFar: Applied; first: number }
): Merged {
	const { begun, plan, actor, now, file } = applying
	const { added, changed, removed, misfits, misfitCount } = soFar
	dropTable(store.db, begun.table)
	nameSource(store, applying)
	const at = { at: now, person: actor.person, through: 'Sources' as const, table: intoOf(plan).table, row: null }
	writeHistory(store, { ...at, kind: 'bring in again', body: { file, added, changed, removed, first } })
	beginOfFile(store, { table: intoOf(plan).table, file, added, changed, removed, actor, now })
	return { added, changed, removed, misfits, misfitCount }
}

const LAST = `
	SELECT kind, person, body ->> 'file' AS file, body ->> 'first' AS first FROM history
	WHERE table_id = ? AND row_n IS NULL AND kind IN ('bring in begun', 'bring in again')
	ORDER BY seq DESC LIMIT 1`
interface LastMerge {
	readonly kind: 'bring in begun' | 'bring in again'
	readonly person: number
	readonly file: string
	readonly first: number
}

const COUNT = `SELECT kind, count(*) FROM history WHERE seq > ? AND +table_id = ? AND through = ? GROUP BY 1`

/** At start: what was cut off between its steps stands as it is, and can be undone, or brought in again for the rest. */
export function closeBroken(store: Store, now: number): void {
	for (const table of store.workspace().catalogue.tables.keys()) {
		const last = store.prepare<LastMerge>(LAST).get(table)
		if (last?.kind !== 'bring in begun') continue
		const { person, file, first } = last
		const counted = store.prepare<[string, number]>(COUNT).raw().all(first, table, throughOf(file))
		const count = (kind: string) => counted.find(([each]) => each === kind)?.[1] ?? 0
		const body = { file, added: count('add'), changed: count('change'), removed: count('remove'), first, broken: true }
		writeHistory(store, { at: now, person, through: 'Sources', table, row: null, kind: 'bring in again', body })
	}
}

/** What the history says that a change of a file came through. */
export function throughOf(file: string): `file ${string}` {
	return `file ${file}`
}

/** The list of sources says which file the table was last filled from. */
function nameSource(store: Store, { plan, file, actor, now }: Applying): void {
	const { document } = store.workspace()
	const source = { file, ...(plan.sheet === '' ? {} : { sheet: plan.sheet }), at: now }
	const tables = document.tables.map((table) => (table.id === intoOf(plan).table ? { ...table, source } : table))
	saveWorkspace(store, { ...document, tables }, { now, by: actor.person })
}
