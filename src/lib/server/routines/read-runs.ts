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
import { findPause } from './pauses.ts'
import { findRun } from './runs.ts'

const COUNTS = `
	SELECT routine, sum(state IN ('ready', 'waiting')) AS waiting, sum(state = 'given up') AS givenUp, sum(state = 'done') AS done
	FROM run WHERE app = ? GROUP BY routine`
const CLOCKS = `SELECT routine, next_at AS nextAt FROM routine_clock WHERE app = ?`
const LIST = `
	SELECT id, routine, state, person, row_table AS "table", row_n AS "row", began_at AS beganAt, ended_at AS endedAt,
		due_at AS dueAt, error
	FROM run WHERE app = @app AND routine = @routine AND id < @before ORDER BY id DESC LIMIT @most`
const GIVEN_UP = `
	SELECT run.id, run.app, run.release, routine, state, run.person, row_table AS "table", row_n AS "row", began_at AS beganAt,
		ended_at AS endedAt, due_at AS dueAt, error, r.made_by AS maker
	FROM run JOIN release AS r ON r.app = run.app AND r.number = run.release
	WHERE state = 'given up' ORDER BY run.id DESC LIMIT ?`
const STEPS = `
	SELECT step, row_table AS "table", row_n AS "row", came_to AS cameTo, person, at FROM run_step WHERE run = ? ORDER BY nth LIMIT ?`
const MOST_RUNS = 50
const MOST_STEPS = 1_000

/** The routines of an app as they stand: those of the live release, and those that have runs. */
export function routineStates(store: Store, { app, actor }: ByActor & { app: number }): RoutineState[] {
	refuseUnlessBuilder(store, actor)
	const live = new Set(findLiveApp(store, app)?.document.routines.map(({ id }) => id))
	const counts = new Map(
		store
			.prepare<Counted>(COUNTS)
			.all(app)
			.map((each) => [each.routine, each])
	)
	const clocks = new Map(
		store.prepare<{ routine: string; nextAt: number | null }>(CLOCKS).all(app).map((each) => [each.routine, each.nextAt]) // prettier-ignore
	)
	return [...new Set([...live, ...counts.keys()])].map((routine) => {
		const { waiting = 0, givenUp = 0, done = 0 } = counts.get(routine) ?? {}
		const paused = findPause(store, { app, routine })?.why ?? null
		return { routine, isLive: live.has(routine), paused, nextAt: clocks.get(routine) ?? null, waiting, givenUp, done }
	})
}

/** The newest runs of a routine; `before`: those that began before the run of that number. */
export function listRuns(
	store: Store,
	{
		app,
		routine,
		before = Number.MAX_SAFE_INTEGER,
		actor,
		now
	}: ByActor & { app: number; routine: string; before?: number }
): RunSummary[] {
	refuseUnlessBuilder(store, actor)
	return store
		.prepare<StoredRun>(LIST)
		.all({ app, routine, before, most: MOST_RUNS })
		.map((run) => toSummary(store, run, { actor, now }))
}

/** The runs that were given up and wait with this person: who released them, or any builder where that one builds no more. */
export function runsGivenUp(store: Store, { actor, now }: ByActor): GivenUpRun[] {
	if (!isBuilder(store, actor)) return []
	return givenUpFor(store, actor).map((run) => {
		const routine = readRelease(store, run.app, run.release).routines.find(({ id }) => id === run.routine)
		return { ...toSummary(store, run, { actor, now }), app: run.app, name: routine?.name ?? 'A routine that is gone' }
	})
}

export function countGivenUp(store: Store, { actor }: Pick<ByActor, 'actor'>): number {
	return isBuilder(store, actor) ? givenUpFor(store, actor).length : 0
}

function givenUpFor(store: Store, actor: Actor): (StoredRun & { app: number; release: number })[] {
	const all = store.prepare<StoredRun & { app: number; release: number; maker: number }>(GIVEN_UP).all(MOST_RUNS)
	return all.filter(({ maker }) => maker === actor.person || !isBuilder(store, { person: maker }))
}

/** One run step by step; undefined where there is none in this app. */
export function readRun(
	store: Store,
	{ app, id, actor, now }: ByActor & { app: number; id: number }
): RunSheet | undefined {
	refuseUnlessBuilder(store, actor)
	const run = findRun(store, id)
	if (run?.app !== app) return undefined
	const [stored] = store.prepare<StoredRun>(LIST).all({ app, routine: run.routine, before: id + 1, most: 1 })
	if (!stored) return undefined
	const routine = readRelease(store, app, run.release).routines.find((each) => each.id === run.routine)
	const role = store.workspace().roles.find((each) => each.id === routine?.acts)
	const steps = store.prepare<StoredStep>(STEPS).all(id, MOST_STEPS)
	return {
		...toSummary(store, stored, { actor, now }),
		release: run.release,
		actsAs: role?.name ?? '',
		steps: steps.map((step) => toStep(store, step, { actor, now })),
		standsAt: (routine && standingAt(routine.steps, run.stack)?.step.id) ?? ''
	}
}

interface Counted {
	readonly routine: string
	readonly waiting: number
	readonly givenUp: number
	readonly done: number
}

interface StoredRun {
	readonly id: number
	readonly routine: string
	readonly state: RunState
	readonly person: number | null
	readonly table: number | null
	readonly row: number | null
	readonly beganAt: number
	readonly endedAt: number | null
	readonly dueAt: number
	readonly error: string | null
}

interface StoredStep {
	readonly step: string
	readonly table: number | null
	readonly row: number | null
	readonly cameTo: string
	readonly person: number | null
	readonly at: number
}

function toSummary(store: Store, { person, table, row, error, dueAt, ...run }: StoredRun, by: ByActor): RunSummary {
	const keeps =
		table === null || (store.workspace().catalogue.tables.get(table)?.keepers.includes(by.actor.person) ?? false)
	return {
		...{ id: run.id, routine: run.routine, state: run.state, beganAt: run.beganAt, endedAt: run.endedAt },
		row: nameOfRow(store, { table, row }, by),
		by: person === null ? '' : nameOfPerson(store, person, by),
		dueAt: run.state === 'waiting' || run.state === 'ready' ? dueAt : null,
		error: error === null ? '' : keeps ? error : 'It was refused. Whoever keeps the table reads why.'
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
