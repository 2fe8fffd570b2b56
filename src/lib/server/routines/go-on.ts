/** Takes the next step of a run: on which row, as whom, and where it stands afterwards. */
import { AppError } from '$lib/core/app-error.ts'
import { after, standingAt, type Stack, type Standing } from '$lib/core/routine/program.ts'
import { tableOfStart, type Routine, type StepKind } from '$lib/core/routine/routine.ts'
import { readRelease } from '../releases/live.ts'
import type { Store } from '../store/store.ts'
import type { Acting } from './acting.ts'
import { heldOf, holdValue } from './held.ts'
import { doStep } from './run-steps.ts'
import type { StepResult } from './step-now.ts'
import { noteStep, type Run } from './runs.ts'
import { isInBin } from '../rows/bin.ts'
import type { RowAt } from './work-out.ts'

/** A run with what it runs. */
export interface InForce {
	readonly run: Pick<Run, 'id' | 'app' | 'release' | 'person' | 'path'>
	readonly routine: Routine
	readonly acting: Acting
	/** Of a press: who is there to be told something. */
	readonly presser?: number
	/** Of a press: the row that it added last. */
	readonly added?: RowAt | undefined
	/** Epoch ms. */
	readonly now: number
}

export interface Taken {
	readonly stack: Stack
	/** When it goes on, where that is later (epoch ms). */
	readonly until?: number
	readonly says?: string
	/** How many changes it made. */
	readonly wrote: number
	/** The row of which it set columns, and the one that it added. */
	readonly set?: RowAt
	readonly added?: RowAt
	readonly opens?: StepResult['opens']
}

/** Rows of a set after which single steps are not written down any more: the run says how many there were. */
const MOST_NOTED = 50

/** The routine as it was released when the run began. */
export function findRoutine(
	store: Store,
	{ app, release, routine }: Pick<Run, 'app' | 'release' | 'routine'>
): Routine | undefined {
	return readRelease(store, app, release).routines.find(({ id }) => id === routine)
}

/** The kind of the step that comes next; undefined at the end. */
export function nextKind({ steps }: Routine, stack: Stack): StepKind | undefined {
	return standingAt(steps, stack)?.step.kind
}

/** Does the step that comes next and writes down what it came to. A refusal is thrown; called within a savepoint. */
export function takeStep(store: Store, stack: Stack, { run, routine, acting, presser, added, now }: InForce): Taken {
	const standing = standingAt(routine.steps, stack)
	if (!standing) return { stack: [], wrote: 0 }
	const { step, frame, following } = standing
	const [at, outer] = rowsAt(store, routine, standing)
	const note = ({ cameTo, person }: Pick<StepResult, 'cameTo' | 'person'>) => {
		if (cameTo === '' || stack.some(({ each }) => (each?.done ?? 0) > MOST_NOTED)) return
		const on = at && { table: at.table.id, n: at.n }
		noteStep(store, run.id, { step: step.id, on, cameTo, at: now, ...(person === undefined ? {} : { person }) })
	}
	if (at && !(at.isRemoved ? isInBin(store, at.table.id, at.n) : isThere(store, at))) {
		note({ cameTo: 'the row is gone' })
		// Of a set the other rows go on.
		return { stack: stack.length > 1 && standing.through ? skipRow(routine, stack) : [], wrote: 0 }
	}
	const cause = `run ${run.id} ${step.id} ${stack.map(({ row }) => row ?? '').join('.')}`
	const { id, app, release, person: by, path } = run
	const result = doStep(step, {
		...{ store, acting, at, outer, frame, following, cause, path, now, held: heldOf(store, routine, id) },
		...{ routine: routine.name, presser, added, run: id, app, release, by }
	})
	note(result)
	if (result.keeps) holdValue(store, id, result.keeps)
	const { until, says, wrote = 0 } = result
	return {
		stack: after(routine.steps, stack, result.outcome),
		wrote,
		...(step.kind === 'set' && at ? { set: at } : {}),
		...(until === undefined ? {} : { until }),
		...(says === undefined ? {} : { says }),
		...(result.added ? { added: result.added } : {}),
		...(result.opens ? { opens: result.opens } : {})
	}
}

/** The row at hand, and the one around it. */
export function rowsAt(store: Store, { start }: Routine, standing: Standing): [RowAt | undefined, RowAt | undefined] {
	const begins = tableOfStart(start)
	const inner = standing.through?.table ?? begins
	const around = standing.through ? (standing.outerThrough?.table ?? begins) : undefined
	const startsRemoved = start.kind === 'rows' && start.when === 'removed'
	const of = (id: number | undefined, n: number | null) => {
		const at = rowAt(store, id, n)
		return at && startsRemoved && id === begins && !isThere(store, at) ? { ...at, isRemoved: true } : at
	}
	return [of(inner, standing.frame.row), of(around, standing.outer)]
}

function rowAt(store: Store, id: number | undefined, n: number | null): RowAt | undefined {
	if (id === undefined || n === null) return undefined
	const table = store.workspace().catalogue.tables.get(id)
	if (!table) throw new AppError('invalid', 'The table of its rows is gone.')
	return { table, n }
}

function isThere(store: Store, { table, n }: RowAt): boolean {
	return store.prepare(`SELECT 1 FROM t${table.id} WHERE n = ?`).get(n) !== undefined
}

/** To the next row of the set that is gone through. */
function skipRow({ steps }: Routine, stack: Stack): Stack {
	const holders = stack.slice(0, -1)
	const at = holders.findLastIndex((_frame, i) => standingAt(steps, stack.slice(0, i + 1))?.step.kind === 'each')
	return stack.slice(0, at + 1)
}
