/**
 * The routines that start with rows, read once for each release: their conditions stand ready as trees, and are judged on the
 * rows that the door holds anyhow, before and after.
 *
 * Conditions are the builder's: judged on the data as it is.
 */
import { checkCondition } from '$lib/core/formula/check/check.ts'
import { evaluate, isTrue, type Env } from '$lib/core/formula/evaluate/evaluate.ts'
import { ownColumns, readsOwnRowOnly } from '$lib/core/formula/syntax/walk.ts'
import type { Expr } from '$lib/core/model/formula.ts'
import type { Signoff } from '$lib/core/app/document.ts'
import type { DecidedStart } from '$lib/core/routine/decided-start.ts'
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
	readonly table: number
	readonly when: readonly RowEvent['kind'][]
	/** Whether only a crossing starts it. */
	readonly crosses: boolean
	/** Whether rows of a file that is brought in start it too. */
	readonly ofFiles: boolean
	readonly condition: Condition
}

export interface LiveStart extends RowStart {
	readonly app: LiveApp
	readonly routine: Routine
}

export interface Asking {
	readonly app: LiveApp
	readonly signoff: Signoff
	readonly condition: Condition
}

/** A routine that starts with a decision of its app. */
export interface DecidedStarting {
	readonly app: LiveApp
	readonly routine: Routine
	readonly as: DecidedStart['as']
	readonly condition: Condition
}

interface Starts {
	readonly routines: ReadonlyMap<number, readonly LiveStart[]>
	readonly signoffs: ReadonlyMap<number, readonly Asking[]>
	readonly decided: ReadonlyMap<number, readonly DecidedStarting[]>
	/** By the table into which a file is brought. */
	readonly files: ReadonlyMap<number, readonly Pick<LiveStart, 'app' | 'routine'>[]>
}

/** What live releases do with rows of a table. */
export function startsOn(store: Store, table: number): { routines: readonly LiveStart[]; signoffs: readonly Asking[] } {
	const { routines, signoffs } = startsOf(store)
	return { routines: routines.get(table) ?? [], signoffs: signoffs.get(table) ?? [] }
}

/** What live releases start when something was decided of a row. */
export function decidedStartsOn(store: Store, table: number): readonly DecidedStarting[] {
	return startsOf(store).decided.get(table) ?? []
}

/** What live releases start when a file was brought into a table. */
export function fileStartsOn(store: Store, table: number): readonly Pick<LiveStart, 'app' | 'routine'>[] {
	return startsOf(store).files.get(table) ?? []
}

/** What happened to a row, made ready once for all that asks about it. */
export interface Happened {
	readonly kind: RowEvent['kind']
	readonly after: Env | undefined
	/** As it stood, where it was there. */
	readonly before: Env | undefined
	/** The columns of the store in which something else stands now. */
	readonly changed: ReadonlySet<number>
}

export function happened(store: Store, { kind, before, after }: RowEvent, now: number): Happened {
	const around = { ...momentAt(store.workspace().timeZone, now), ...storeEnv(store) }
	const of = (row: StoredRow | undefined) => row && { ...around, rows: [row] }
	const changed = new Set<number>()
	if (before && after)
		for (const [column, value] of after.stored) if (before.stored.get(column) !== value) changed.add(column)
	return { kind, after: of(after), before: of(before), changed }
}

/** Whether a start fits what happened to a row. */
export function fitsStart({ condition, crosses, when }: RowStart, { kind, after, before, changed }: Happened): boolean {
	if (!when.includes(kind)) return false
	// Of a row that is gone there is only how it stood.
	if (kind === 'removed') return holds(condition, before)
	if (!crosses || !before) return holds(condition, after)
	if (condition.reads && !reads(condition.reads, changed)) return false
	return holds(condition, after) && !holds(condition, before)
}

export function holds({ expr, isAlways }: Condition, env: Env | undefined): boolean {
	if (isAlways) return true
	return expr !== undefined && env !== undefined && isTrue(evaluate(expr, env))
}

function reads(columns: ReadonlySet<number>, changed: ReadonlySet<number>): boolean {
	for (const column of columns) if (changed.has(column)) return true
	return false
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
	const routines = new Map<number, LiveStart[]>()
	const signoffs = new Map<number, Asking[]>()
	const decided = new Map<number, DecidedStarting[]>()
	const files = new Map<number, Pick<LiveStart, 'app' | 'routine'>[]>()
	for (const app of apps) {
		for (const routine of app.document.routines) {
			const start = startOf(store, routine)
			if (start) put(routines, start.table, { ...start, app, routine })
			if (routine.start.kind === 'file') put(files, routine.start.into, { app, routine })
			if (routine.start.kind !== 'decided') continue
			const { table, as, where } = routine.start
			put(decided, table, { app, routine, as, condition: conditionOf(store, where, table) })
		}
		for (const signoff of app.document.signoffs)
			put(signoffs, signoff.table, { app, signoff, condition: conditionOf(store, signoff.where, signoff.table) })
	}
	return { routines, signoffs, decided, files }
}

const KINDS = ['added', 'changed', 'removed'] as const

/** How a routine starts with rows; undefined where it starts otherwise. */
export function startOf(store: Store, { start }: Routine): RowStart | undefined {
	if (start.kind !== 'rows' && start.kind !== 'comes') return undefined
	const { table, where } = start
	const when = KINDS.filter((each) => (start.kind === 'comes' ? each !== 'removed' : start.when.includes(each)))
	const ofFiles = !start.but
	return { table, when, ofFiles, crosses: start.kind === 'comes', condition: conditionOf(store, where, table) }
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
