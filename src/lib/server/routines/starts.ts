/**
 * The routines that start with rows, read once for each release: their conditions stand ready as trees, and are judged on the
 * rows that the door holds anyhow, before and after.
 *
 * Conditions are the builder's: judged on the data as it is.
 */
import { checkCondition } from '$lib/core/formula/check/check.ts'
import { evaluate, isTrue } from '$lib/core/formula/evaluate/evaluate.ts'
import { ownColumns, readsOwnRowOnly } from '$lib/core/formula/syntax/walk.ts'
import type { Expr } from '$lib/core/model/formula.ts'
import type { Signoff } from '$lib/core/app/document.ts'
import type { Routine } from '$lib/core/routine/routine.ts'
import { isStored } from '$lib/core/table/storage.ts'
import { liveApps, type LiveApp } from '../releases/live.ts'
import { momentAt } from '../rights/rights-of-actor.ts'
import type { RowEvent } from '../rows/change.ts'
import { storeEnv, type StoredRow } from '../store/stored-row.ts'
import type { Store } from '../store/store.ts'

interface Condition {
	/** Undefined where there is none, or where it cannot be read and so never holds. */
	readonly expr: Expr | undefined
	readonly isAlways: boolean
	/** The columns of its own row that it reads, where it reads nothing else. */
	readonly reads: ReadonlySet<number> | undefined
}

export interface RowStart {
	readonly app: LiveApp
	readonly routine: Routine
	readonly when: readonly RowEvent['kind'][]
	/** Whether only a crossing starts it. */
	readonly crosses: boolean
	readonly condition: Condition
}

export interface Asking {
	readonly app: LiveApp
	readonly signoff: Signoff
	readonly condition: Condition
}

interface Starts {
	readonly routines: ReadonlyMap<number, readonly RowStart[]>
	readonly signoffs: ReadonlyMap<number, readonly Asking[]>
}

/** What live releases do with rows of a table. */
export function startsOn(store: Store, table: number): { routines: readonly RowStart[]; signoffs: readonly Asking[] } {
	const { routines, signoffs } = startsOf(store)
	return { routines: routines.get(table) ?? [], signoffs: signoffs.get(table) ?? [] }
}

/** Whether a start fits what happened to a row. `before`: as it stood, where it was there. */
export function fitsStart(store: Store, start: RowStart, event: RowEvent, now: number): boolean {
	const { condition, crosses, when } = start
	if (!when.includes(event.kind)) return false
	const { before, after } = event
	if (!crosses || !before) return holds(store, condition, after, now)
	if (condition.reads && after && !isTouched(event, condition.reads)) return false
	return holds(store, condition, after, now) && !holds(store, condition, before, now)
}

export function holds(store: Store, { expr, isAlways }: Condition, row: StoredRow | undefined, now: number): boolean {
	if (isAlways) return true
	if (!expr || !row) return false
	return isTrue(evaluate(expr, { ...momentAt(store.workspace().timeZone, now), rows: [row], ...storeEnv(store) }))
}

function isTouched({ before, after }: RowEvent, columns: ReadonlySet<number>): boolean {
	return [...columns].some((column) => before?.stored.get(column) !== after?.stored.get(column))
}

const KNOWN = new WeakMap<Store, { readonly key: string; readonly starts: Starts }>()

function startsOf(store: Store): Starts {
	const apps = liveApps(store)
	const key = `${store.workspace().version} ${apps.map(({ id, release }) => `${id}.${release}`).join(' ')}`
	const known = KNOWN.get(store)
	if (known?.key === key) return known.starts
	const starts = readStarts(store, apps)
	KNOWN.set(store, { key, starts })
	return starts
}

function readStarts(store: Store, apps: readonly LiveApp[]): Starts {
	const routines = new Map<number, RowStart[]>()
	const signoffs = new Map<number, Asking[]>()
	for (const app of apps) {
		for (const routine of app.document.routines) {
			const { start } = routine
			if (start.kind !== 'rows' && start.kind !== 'comes') continue
			const crosses = start.kind === 'comes'
			const when = (['added', 'changed'] as const).filter((each) => start.kind === 'comes' || start.when.includes(each))
			const condition = conditionOf(store, start.where, start.table)
			put(routines, start.table, { app, routine, when, crosses, condition })
		}
		for (const signoff of app.document.signoffs)
			put(signoffs, signoff.table, { app, signoff, condition: conditionOf(store, signoff.where, signoff.table) })
	}
	return { routines, signoffs }
}

function conditionOf(store: Store, where: string, id: number): Condition {
	const isAlways = where.trim() === ''
	const { catalogue } = store.workspace()
	const table = catalogue.tables.get(id)
	if (isAlways || !table) return { expr: undefined, isAlways: isAlways && table !== undefined, reads: undefined }
	const { expr } = checkCondition(where, { catalogue, rows: [table], me: false })
	const isOwn = expr !== undefined && readsOwnRowOnly(expr)
	const stored = new Set(table.columns.filter(isStored).map((column) => column.id))
	const reads = isOwn ? new Set([...ownColumns(expr)].filter((column) => stored.has(column))) : undefined
	return { expr, isAlways, reads }
}

function put<T>(map: Map<number, T[]>, key: number, value: T): void {
	map.set(key, [...(map.get(key) ?? []), value])
}
