/**
 * What a builder reads of runs. Rows and people are called as that builder may know them, and a refusal's words, which may name
 * what it was about, are for who keeps the table.
 */
import { getColumn } from '$lib/core/model/table.ts'
import { standingAt } from '$lib/core/routine/program.ts'
import type { GivenUpRun, RoutineState, RunSheet, RunState, RunStep, RunSummary } from '$lib/core/requests/runs.ts'
import { findLiveApp, readRelease } from '../releases/live.ts'
import { isBuilder, refuseUnlessBuilder } from '../rights/builders.ts'
import type { Actor, ByActor } from '../rights/rights-of-actor.ts'
import { cellText } from '../rows/written-text.ts'
import { rowLabel } from '../rows/row-label.ts'
import type { Store } from '../store/store.ts'
import { keepsTables, mayReadRuns } from './may-read-runs.ts'
import { findPause } from './pauses.ts'
import { openId, sealId } from '../store/sealed-ids.ts'
import { findRun } from './runs.ts'

const COUNTS = `
	SELECT routine, release, sum(state IN ('ready', 'waiting')) AS waiting, sum(state = 'given up') AS givenUp,
		sum(state = 'done') AS done
	FROM run WHERE app = ? GROUP BY routine, release`
const CLOCKS = `SELECT routine, next_at AS nextAt FROM routine_clock WHERE app = ?`
const LIST = `
	SELECT id, app, release, routine, state, person, row_table AS "table", row_n AS "row", began_at AS beganAt,
		ended_at AS endedAt, due_at AS dueAt, error,
		(SELECT ask.person FROM ask WHERE ask.run = run.id AND ask.state = 'open') AS asked
	FROM run WHERE app = @app AND routine = @routine AND id < @before ORDER BY id DESC LIMIT @most`
const GIVEN_UP = `
	SELECT run.id, run.app, run.release, routine, state, run.person, row_table AS "table", row_n AS "row", began_at AS beganAt,
		ended_at AS endedAt, due_at AS dueAt, error, NULL AS asked, r.made_by AS maker
	FROM run JOIN release AS r ON r.app = run.app AND r.number = run.release
	WHERE state = 'given up' ORDER BY run.id DESC LIMIT 5000`
const STEPS = `
	SELECT step, row_table AS "table", row_n AS "row", came_to AS cameTo, person, at FROM run_step WHERE run = ? ORDER BY nth LIMIT ?`
const MOST_RUNS = 50
const MOST_STEPS = 1_000

/** The routines of an app as they stand: those of the live release, and those that have runs. */
export function routineStates(store: Store, { app, actor, now }: ByActor & { app: number }): RoutineState[] {
	refuseUnlessBuilder(store, actor)
	const live = findLiveApp(store, app)
	const ids = live?.document.routines.map(({ id }) => id) ?? []
	const counted = store.prepare<Counted>(COUNTS).all(app)
	const clocks = new Map(store.prepare<Clock>(CLOCKS).all(app).map(({ routine, nextAt }) => [routine, nextAt])) // prettier-ignore
	return [...new Set([...ids, ...counted.map(({ routine }) => routine)])].map((routine) => {
		const own = counted.filter((each) => each.routine === routine)
		const releases = own.length > 0 || !live ? own.map(({ release }) => release) : [live.release]
		const isHeld = releases.every((release) => mayReadRuns(store, { app, release, routine }, { actor, now }))
		const sum = (key: 'waiting' | 'givenUp' | 'done') => own.reduce((all, each) => all + each[key], 0)
		return {
			...{ routine, isLive: ids.includes(routine), nextAt: clocks.get(routine) ?? null },
			paused: findPause(store, { app, routine })?.why ?? null,
			counts: isHeld ? { waiting: sum('waiting'), givenUp: sum('givenUp'), done: sum('done') } : null
		}
	})
}

/** The newest runs of a routine, those that are this builder's to read; `before`: those that began before the run of that number. */
export function listRuns(
	store: Store,
	{ app, routine, before, actor, now }: ByActor & { app: number; routine: string; before?: string }
): RunSummary[] {
	refuseUnlessBuilder(store, actor)
	const read = summaries(store, { actor, now })
	return store
		.prepare<StoredRun>(LIST)
		.all({ app, routine, before: (before && openId(store, 'run', before)) || Number.MAX_SAFE_INTEGER, most: MOST_RUNS })
		.filter((run) => read.isHeld(run))
		.map((run) => read.summary(run))
}

/** The runs that were given up and wait with this person: who released them, or any builder where that one builds no more. */
export function runsGivenUp(store: Store, { actor, now }: ByActor): GivenUpRun[] {
	if (!isBuilder(store, actor)) return []
	const read = summaries(store, { actor, now })
	return givenUpFor(store, actor).map((run) => {
		const routine = readRelease(store, run.app, run.release).routines.find(({ id }) => id === run.routine)
		return { ...read.summary(run), app: run.app, name: routine?.name ?? 'A routine that is gone' }
	})
}

export function countGivenUp(store: Store, { actor }: Pick<ByActor, 'actor'>): number {
	return isBuilder(store, actor) ? givenUpFor(store, actor).length : 0
}

function givenUpFor(store: Store, actor: Actor): StoredRun[] {
	const all = store.prepare<StoredRun & { maker: number }>(GIVEN_UP).all()
	return all.filter(({ maker }) => maker === actor.person || !isBuilder(store, { person: maker })).slice(0, MOST_RUNS)
}

/** One run step by step; undefined where there is none in this app. */
export function readRun(
	store: Store,
	{ app, id: sealed, actor, now }: ByActor & { app: number; id: string }
): RunSheet | undefined {
	refuseUnlessBuilder(store, actor)
	const id = openId(store, 'run', sealed)
	const run = id === undefined ? undefined : findRun(store, id)
	if (id === undefined || run?.app !== app) return undefined
	const [stored] = store.prepare<StoredRun>(LIST).all({ app, routine: run.routine, before: id + 1, most: 1 })
	if (!stored) return undefined
	const routine = readRelease(store, app, run.release).routines.find((each) => each.id === run.routine)
	const role = store.workspace().roles.find((each) => each.id === routine?.acts)
	const read = summaries(store, { actor, now })
	const isHeld = read.isHeld(stored)
	const steps = isHeld ? store.prepare<StoredStep>(STEPS).all(id, MOST_STEPS) : []
	return {
		...read.summary(stored),
		...{ release: run.release, actsAs: role?.name ?? '', isHeld },
		steps: steps.map((step) => toStep(store, step, { actor, now })),
		standsAt: (isHeld && routine && standingAt(routine.steps, run.stack)?.step.id) || ''
	}
}

interface Clock {
	readonly routine: string
	readonly nextAt: number | null
}

interface Counted {
	readonly routine: string
	readonly release: number
	readonly waiting: number
	readonly givenUp: number
	readonly done: number
}

interface StoredRun {
	readonly id: number
	readonly app: number
	readonly release: number
	readonly routine: string
	readonly state: RunState
	readonly person: number | null
	readonly table: number | null
	readonly row: number | null
	readonly beganAt: number
	readonly endedAt: number | null
	readonly dueAt: number
	readonly error: string | null
	/** Whoever was asked and has not answered. */
	readonly asked: number | null
}

interface StoredStep {
	readonly step: string
	readonly table: number | null
	readonly row: number | null
	readonly cameTo: string
	readonly person: number | null
	readonly at: number
}

interface Summaries {
	isHeld(run: StoredRun): boolean
	summary(run: StoredRun): RunSummary
}

/** What one builder may know of runs, asked once for each release of a routine. */
function summaries(store: Store, by: ByActor): Summaries {
	const held = new Map<string, { readonly isHeld: boolean; readonly keeps: boolean }>()
	const heldOf = (run: StoredRun) => {
		const key = `${run.app} ${run.release} ${run.routine}`
		const known = held.get(key) ?? { isHeld: mayReadRuns(store, run, by), keeps: keepsTables(store, run, by) }
		held.set(key, known)
		return known
	}
	return {
		isHeld: (run) => heldOf(run).isHeld,
		summary: (run) => {
			const { isHeld, keeps } = heldOf(run)
			const { id, routine, state, beganAt, endedAt, person, dueAt, error, asked } = run
			return {
				...{ id: sealId(store, 'run', id), routine, state, beganAt, endedAt },
				row: isHeld ? nameOfRow(store, run, by) : '',
				by: isHeld && person !== null ? nameOfPerson(store, person, by) : '',
				waitsFor: isHeld && asked !== null ? nameOfPerson(store, asked, by) : '',
				dueAt: state === 'waiting' || state === 'ready' ? dueAt : null,
				error: error === null ? '' : keeps ? error : 'It was refused. Whoever keeps its tables reads why.'
			}
		}
	}
}

function toStep(store: Store, { step, table, row, cameTo, person, at }: StoredStep, by: ByActor): RunStep {
	return {
		...{ step, cameTo, at },
		row: nameOfRow(store, { table, row }, by),
		person: person === null ? '' : nameOfPerson(store, person, by)
	}
}

function nameOfRow(
	store: Store,
	{ table: id, row }: { table: number | null; row: number | null },
	{ actor, now }: ByActor
): string {
	const table = id === null ? undefined : store.workspace().catalogue.tables.get(id)
	return table && row !== null ? rowLabel(store, table, { person: actor.person, n: row, now }) : ''
}

function nameOfPerson(store: Store, n: number, { actor, now }: { actor: Actor; now: number }): string {
	const { people } = store.workspace().catalogue
	const name = cellText(store, people, { column: getColumn(people, people.label), n, person: actor.person, now })
	return name === '' ? 'somebody' : name
}
