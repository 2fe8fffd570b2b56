/**
 * Runs what a routine does. Its messages are written in the transaction that finishes its job; columns are set through
 * the door, as whoever pressed.
 */
import { AppError } from '$lib/core/app-error.ts'
import { entryOfStart, type Routine, type Step } from '$lib/core/routine/routine.ts'
import type { SendStep } from '$lib/core/routine/send-step.ts'
import type { CellChange } from '$lib/core/query/change.ts'
import type { Pressed } from '$lib/core/requests/screen-doings.ts'
import { parseMessage, showResult } from '$lib/core/routine/message-text.ts'
import { getTable, type Table } from '$lib/core/model/table.ts'
import { readRelease } from '../releases/live.ts'
import { addJob, payloadOf, type Job } from '../queue/queue.ts'
import { momentAt, standingOf, type Actor } from '../rights/rights-of-actor.ts'
import { openThrottle } from '../base/throttle.ts'
import { addMessage } from '../queue/messages.ts'
import { changeRows } from '../rows/change.ts'
import { readRows } from '../rows/read.ts'
import type { Store } from '../store/store.ts'
import { entryOf, setCell, type PressedRow } from './set-cell.ts'
import { findPerson, workOut } from './work-out.ts'

export interface Press {
	readonly app: number
	readonly release: number
	readonly routine: Routine
	readonly row: string
	readonly actor: Actor
	readonly now: number
}

/** A button's routine: sets its columns at once, in one change, and queues its messages with it. */
export function pressButton(store: Store, pressed: Press): Pressed {
	const { routine, actor, now } = pressed
	if (!entryOfStart(routine.start).isPressed) throw new AppError('invalid', 'This routine has no button.')
	const table = getTable(store.workspace().catalogue, routine.start.table)
	const n = store.ids.fromId(table.id, pressed.row)
	// A button acts as whoever pressed it: on a row that they do not see there is none.
	const seen = readRows(store, actor, { table: table.id, columns: [], row: pressed.row, limit: 1 }, now).rows.length > 0
	if (n === undefined || !seen) throw new AppError('not_found', 'This row is not there, or not for you to see.')
	const cells = routine.steps.flatMap((step) => runOf(step).atPress?.(store, step, { table, n, actor, now }) ?? [])
	const through = `routine ${routine.name}` as const
	if (cells.length > 0)
		changeRows(store, [{ kind: 'change', table: table.id, row: pressed.row, cells }], { actor, now, through, depth: 1 })
	const goesOn = routine.steps.some((step) => runOf(step).later !== undefined)
	if (goesOn) slowSending(actor, now)
	const place = { app: pressed.app, release: pressed.release, routine: routine.id, table: table.id, row: n, depth: 1 }
	if (goesOn) addJob(store, 'routine', { ...place, person: actor.person }, now)
	return { entry: cells.length > 0 ? entryOf(store, { table, n, actor, now }) : null }
}

/** What becomes of a kind of step. */
interface Run<S> {
	/** What it writes into the row, in the change that the press makes. */
	readonly atPress: ((store: Store, step: S, place: PressedRow) => CellChange) | undefined
	/** What it does once its start is committed, from the queue. */
	readonly later: ((store: Store, step: S, sending: Sending) => void) | undefined
}

const RUNS: { readonly [K in Step['kind']]: Run<Extract<Step, { kind: K }>> } = {
	set: { atPress: setCell, later: undefined },
	send: { atPress: undefined, later: sendMessage }
}

function runOf(step: Step): Run<Step> {
	// Kind by kind the record holds this; for the union the compiler cannot tell.
	return RUNS[step.kind] as unknown as Run<Step>
}

/** More than anybody presses by hand; a script would write to somebody without end. */
const MOST_SENT = 120
const sent = openThrottle(MOST_SENT)

function slowSending({ person }: Actor, now: number): void {
	if (!sent.take(String(person), now))
		throw new AppError('busy', 'You have sent very many messages. Wait a quarter of an hour, then press again.')
}

/** Writes the messages of a routine whose start has happened. The Message-ID names the job and the step. */
export function runRoutineJob(store: Store, job: Job<'routine'>, now: number): void {
	const { app, release, routine: id, table: tableId, row: n, person } = payloadOf(job)
	const routine = readRelease(store, app, release).routines.find((each) => each.id === id)
	const table = store.workspace().catalogue.tables.get(tableId)
	if (!routine || !table) return
	for (const step of routine.steps) {
		const cause = `routine ${job.id} step ${step.id}`
		runOf(step).later?.(store, step, { table, n, person, cause, now })
	}
}

interface Sending {
	readonly table: Table
	readonly n: number
	/** Whose doing started the routine; `me` in its formulas. */
	readonly person: number
	readonly cause: string
	readonly now: number
}

function sendMessage(store: Store, step: SendStep, { table, n, person, cause, now }: Sending): void {
	const doer = standingOf(store, { person }, now)
	const to = findPerson(store, step.to, { table, n, moment: doer.moment })
	if (to === undefined) return
	const [subject, body] = [step.subject, step.body].map((text) => compose(store, text, { table, n, to, now }))
	addMessage(store, { cause, person: to, subject: subject ?? '', body: body ?? '', link: undefined, now })
}

interface Composing {
	readonly table: Table
	readonly n: number
	/** Who will read it: what they may not see is left out. */
	readonly to: number
	readonly now: number
}

export function compose(store: Store, text: string, { table, n, to, now }: Composing): string {
	const { catalogue, timeZone } = store.workspace()
	const { rights } = standingOf(store, { person: to }, now)
	const moment = momentAt(timeZone, now)
	return parseMessage(text, catalogue, table)
		.parts.map((part) =>
			'text' in part
				? part.text
				: showResult(part.expr, workOut(store, part.expr, { table, n, moment, rights }), catalogue)
		)
		.join('')
}
