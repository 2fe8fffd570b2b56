/** Runs as they lie in the store: begun with what causes them, kept with each step, and ended. */
import { z } from 'zod'
import { ownJson } from '$lib/core/text/own-json.ts'
import { beginStack, type Stack } from '$lib/core/routine/program.ts'
import type { RunState } from '$lib/core/requests/runs.ts'
import { stopAtCeiling } from './ceiling.ts'
import type { Held } from './held.ts'
import type { Store } from '../store/store.ts'

export interface Run {
	readonly id: number
	readonly app: number
	readonly release: number
	readonly routine: string
	/** Null for a clock's. */
	readonly person: number | null
	readonly table: number | null
	readonly row: number | null
	/** The routines that led here, by name, the first of them first and this one last. */
	readonly path: readonly string[]
	readonly state: RunState
	readonly stack: Stack
	readonly attempts: number
}

export interface NewRun {
	readonly app: number
	readonly release: number
	readonly routine: string
	readonly cause?: string
	readonly person: number | null
	readonly on: { readonly table: number; readonly n: number } | undefined
	readonly path: readonly string[]
	/** Values that it is given, by name. */
	readonly held?: Held
	readonly now: number
}

const ADD = `
	INSERT INTO run (app, release, routine, cause, person, row_table, row_n, path, held, state, due_at, stack, began_at)
	VALUES (@app, @release, @routine, @cause, @person, @table, @row, @path, @held, 'ready', @now, @stack, @now)
	ON CONFLICT (cause) DO NOTHING`
const COLUMNS = `
	id, app, release, routine, person, row_table AS "table", row_n AS "row", path, state, stack, attempts`
const DUE = `
	SELECT ${COLUMNS} FROM run
	WHERE state IN ('ready', 'waiting') AND due_at <= ? ORDER BY due_at, id LIMIT ?`
const ONE = `SELECT ${COLUMNS} FROM run WHERE id = ?`
const KEEP = `
	UPDATE run SET state = @state, due_at = @dueAt, stack = @stack, attempts = @attempts, error = @error, ended_at = @endedAt
	WHERE id = @id`
const NOTE = `
	INSERT INTO run_step (run, nth, step, row_table, row_n, came_to, person, at)
	VALUES (@run, (SELECT coalesce(max(nth), 0) + 1 FROM run_step WHERE run = @run), @step, @table, @row, @cameTo, @person, @at)`
const NEXT_DUE = `SELECT min(due_at) FROM run WHERE state IN ('ready', 'waiting')`
/** What the cause of a run begins with that somebody began out of turn. */
export const BY_HAND = 'by hand '
const LAST_BY_HAND = `
	SELECT began_at FROM run WHERE app = @app AND routine = @routine AND cause LIKE '${BY_HAND}%' ORDER BY id DESC LIMIT 1`
const FORGET = `DELETE FROM run WHERE id IN (SELECT id FROM run WHERE ended_at < ? LIMIT ?)`

/** Chains of routines that set each other off stop here. */
const LONGEST_PATH = 10
/** Of a way that goes round and round, enough to see how. */
const MOST_SAID = 4

/** Counting those that wait takes a while; nobody sees whether it is one too many or some hundred. */
const LOOKED_AT_EVERY = 500

/** Begins a run; undefined where the same cause has begun one. It goes on after the commit. */
export function addRun(
	store: Store,
	{ app, release, routine, cause, person, on, path, held = {}, now }: NewRun
): number | undefined {
	const added = store.prepare(ADD).run({
		...{ app, release, routine, cause: cause ?? null, person, path: JSON.stringify(path), now },
		held: JSON.stringify(held),
		...{ table: on?.table ?? null, row: on?.n ?? null, stack: JSON.stringify(beginStack(on?.n ?? null)) }
	})
	store.touched.add('jobs')
	if (added.changes === 0) return undefined
	const id = Number(added.lastInsertRowid)
	if (path.length > LONGEST_PATH)
		keepRun(store, id, { state: 'given up', dueAt: now, stack: [], error: sayEndless(path) })
	if (id % LOOKED_AT_EVERY === 0) stopAtCeiling(store, { app, routine, now })
	return id
}

/** `Low stock → Reorder → Low stock → …` */
function sayEndless(path: readonly string[]): string {
	const way = path.slice(0, MOST_SAID).join(' → ')
	return `${way} → …: routines set each other off ${LONGEST_PATH} times over and would never end, so this one was stopped. Make one of them start on fewer rows.`
}

/** When somebody last began a routine by hand (epoch ms); 0 for never. */
export function lastByHand(store: Store, of: { app: number; routine: string }): number {
	return store.prepare<number>(LAST_BY_HAND).pluck().get(of) ?? 0
}

/** Those that are due, the longest first. */
export function dueRuns(store: Store, { now, most }: { now: number; most: number }): Run[] {
	return store.prepare<StoredRun>(DUE).all(now, most).map(fromStored)
}

export function findRun(store: Store, id: number): Run | undefined {
	const found = store.prepare<StoredRun>(ONE).get(id)
	return found && fromStored(found)
}

export interface KeptRun {
	readonly state: RunState
	/** Epoch ms: when it goes on. */
	readonly dueAt: number
	readonly stack: Stack
	readonly attempts?: number
	/** Why it was given up, or is tried again. */
	readonly error?: string
	readonly endedAt?: number
}

export function keepRun(store: Store, id: number, { stack, attempts = 0, error, endedAt, ...kept }: KeptRun): void {
	store
		.prepare(KEEP)
		.run({ id, ...kept, stack: JSON.stringify(stack), attempts, error: error ?? null, endedAt: endedAt ?? null })
}

export interface StepNote {
	readonly step: string
	readonly on: { readonly table: number; readonly n: number } | undefined
	/** A few words that hold no value of any row. */
	readonly cameTo: string
	/** Whom it went to. */
	readonly person?: number
	readonly at: number
}

/** Writes down what a step of a run came to. */
export function noteStep(store: Store, run: number, { on, person, ...note }: StepNote): void {
	store.prepare(NOTE).run({ run, ...note, table: on?.table ?? null, row: on?.n ?? null, person: person ?? null })
}

/** When the next run goes on (epoch ms). */
export function nextRunAt(store: Store): number | null {
	return store.pluck<number | null>(NEXT_DUE) ?? null
}

const KEPT_MS = 90 * 86_400_000
const MOST_FORGOTTEN = 500

/** Ended runs are cleared after 90 days; what they did stays in the history. */
export function forgetOldRuns(store: Store, now: number): void {
	store.prepare(FORGET).run(now - KEPT_MS, MOST_FORGOTTEN)
}

type StoredRun = Omit<Run, 'stack' | 'path'> & { readonly stack: string; readonly path: string }

const stackSchema = z.array(
	z.object({
		at: z.number().int(),
		row: z.number().int().nullable(),
		held: z.boolean().optional(),
		each: z.object({ last: z.number().int(), upto: z.number().int(), done: z.number().int() }).optional()
	})
)

function fromStored({ stack, path, ...run }: StoredRun): Run {
	// As the schema has it, but for what is left out where there is none.
	return { ...run, path: ownJson<string[]>(path), stack: stackSchema.parse(JSON.parse(stack)) as Stack }
}
