/**
 * A button's routine: its steps up to the first that waits, goes through rows or leaves the workspace are taken at once, all or
 * none, so that whoever pressed hears of a refusal; the rest goes on after the commit.
 */
import { AppError } from '$lib/core/app-error.ts'
import { entryOfStart, tableOfStart, type Routine, type StepKind } from '$lib/core/routine/routine.ts'
import { beginStack, type Stack } from '$lib/core/routine/program.ts'
import type { Pressed } from '$lib/core/requests/screen-doings.ts'
import { getTable } from '$lib/core/model/table.ts'
import { openThrottle } from '../base/throttle.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import { readRows } from '../rows/read.ts'
import { isTry } from '../store/become-try.ts'
import type { Store } from '../store/store.ts'
import { actingOf, refuseUnlessMayAct } from './acting.ts'
import { nextKind, takeStep } from './go-on.ts'
import { findPause } from './pauses.ts'
import type { Held } from './held.ts'
import { addRun, keepRun } from './runs.ts'
import { entryOf } from './set-cell.ts'
import type { RowAt } from './work-out.ts'

export interface Press {
	readonly app: number
	readonly release: number
	readonly routine: Routine
	readonly row: string
	readonly actor: Actor
	readonly now: number
	/** What it is given by name. */
	readonly held?: Held
}

/** What is taken after the commit. */
const LATER: ReadonlySet<StepKind> = new Set<StepKind>(['send', 'report', 'document', 'ask', 'call', 'role', 'each'])

export function pressButton(store: Store, pressed: Press): Pressed {
	const { routine, actor, now } = pressed
	const { start } = routine
	const begins = tableOfStart(start)
	if (!entryOfStart(start).isPressed || begins === undefined)
		throw new AppError('invalid', 'This routine has no button.')
	// What follows from a press may only be sent, which no door would refuse.
	if (actor.lookedAtBy !== undefined && !isTry(store))
		throw new AppError('forbidden', 'This is the Lookout: it changes nothing but a copy of the data.')
	const pause = findPause(store, { app: pressed.app, routine: routine.id })
	if (pause) throw new AppError('busy', 'This is paused at present. Tell whoever looks after the app.')
	const table = getTable(store.workspace().catalogue, begins)
	const n = store.ids.fromId(table.id, pressed.row)
	// A button is pressed on a row that is seen: on another there is none, whoever it acts as.
	const seen = readRows(store, actor, { table: table.id, columns: [], row: pressed.row, limit: 1 }, now).rows.length > 0
	if (n === undefined || !seen) throw new AppError('not_found', 'This row is not there, or not for you to see.')
	const { says, wrote, set, opens } = takeAtOnce(store, pressed, { table: table.id, n })
	const isOnlyThis = wrote === 1 && set?.table === table && set.n === n
	return {
		entry: isOnlyThis ? entryOf(store, { table, n, actor, now }) : null,
		...(says === '' ? {} : { says }),
		...(opens ? { opens } : {})
	}
}

interface AtOnce {
	/** What is said to whoever pressed. */
	readonly says: string
	readonly wrote: number
	/** The row of which columns were set last, and the one that was added last. */
	readonly set?: RowAt | undefined
	readonly added?: RowAt | undefined
	readonly opens?: Pressed['opens'] | undefined
}

function takeAtOnce(store: Store, pressed: Press, on: { table: number; n: number }): AtOnce {
	const { app, release, routine, actor, now, held = {} } = pressed
	const { person } = actor
	const id = addRun(store, { app, release, routine: routine.id, person, on, path: [routine.name], held, now })
	if (id === undefined) throw new Error('Expected a press, which has no cause of its own, to begin a run')
	const started = { routine, release: { app, number: release }, by: actor, now }
	saidPlainly(routine, () => refuseUnlessMayAct(store, started))
	const inForce = {
		run: { id, app, release, person, path: [routine.name] },
		routine,
		acting: actingOf(store, started),
		presser: person,
		now
	}
	let stack: Stack = beginStack(on.n)
	let done: AtOnce = { says: '', wrote: 0 }
	for (let kind = nextKind(routine, stack); kind && !LATER.has(kind); kind = nextKind(routine, stack)) {
		const taken = saidPlainly(routine, () => takeStep(store, stack, { ...inForce, added: done.added }))
		;({ stack } = taken)
		done = {
			says: [done.says, taken.says ?? ''].filter((each) => each !== '').join(' '),
			wrote: done.wrote + taken.wrote,
			set: taken.set ?? done.set,
			added: taken.added ?? done.added,
			opens: taken.opens ?? done.opens
		}
		if (taken.until !== undefined && stack.length > 0) {
			keepRun(store, id, { state: 'waiting', dueAt: taken.until, stack })
			return done
		}
	}
	if (stack.length > 0) slowSending(actor, now)
	keepRun(
		store,
		id,
		stack.length > 0 ? { state: 'ready', dueAt: now, stack } : { state: 'done', dueAt: now, stack, endedAt: now }
	)
	return done
}

/** A role may name what whoever pressed does not see. */
function saidPlainly<T>({ acts }: Routine, work: () => T): T {
	try {
		return work()
	} catch (thrown) {
		if (!(thrown instanceof AppError) || (acts ?? undefined) === undefined) throw thrown
		throw new AppError(
			thrown.code,
			'This could not be done: what the button does was refused, and nothing was changed. Tell whoever looks after the app.'
		)
	}
}

/** More than anybody presses by hand; a script would write to somebody without end. */
const MOST_SENT = 120
const sent = openThrottle(MOST_SENT)

function slowSending({ person }: Actor, now: number): void {
	if (!sent.take(String(person), now))
		throw new AppError('busy', 'You have sent very many messages. Wait a quarter of an hour, then press again.')
}
