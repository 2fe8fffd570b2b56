/**
 * The step that calls another program: what is to be sent is kept with the run, which waits until it was taken. It is sent at
 * least once, each time under the same `Idempotency-Key`; after a day of trying, or at a no, the run is given up there.
 */
import { AppError } from '$lib/core/app-error.ts'
import type { StepOf } from '$lib/core/routine/routine.ts'
import { createHash } from 'node:crypto'
import { programByName, type SealedProgram } from '../outside/programs.ts'
import { isHeldBack } from '../queue/outgoing.ts'
import type { Store } from '../store/store.ts'
import { wakeRun } from './asks.ts'
import { findRun, keepRun } from './runs.ts'
import type { StepNow, StepResult } from './step-now.ts'
import { namedValues } from './step-values.ts'

const FIND = `SELECT id, state FROM call WHERE cause = ?`
const ADD = `
	INSERT INTO call (cause, run, program, path, body, state, due_at, ends_at)
	VALUES (@cause, @run, @program, @path, @body, 'waiting', @now, @endsAt)`
const AGAIN = `UPDATE call SET state = 'waiting', attempts = 0, body = @body, due_at = @now, ends_at = @endsAt WHERE id = @id`
const DUE = `
	SELECT c.id, c.cause, c.run, c.program, c.path, c.body, c.attempts, c.ends_at AS endsAt
	FROM call AS c WHERE c.state = 'waiting' AND c.due_at <= ? ORDER BY c.due_at, c.id LIMIT 1`
const ONE = `SELECT id, cause, run, program, path, body, attempts, ends_at AS endsAt FROM call WHERE id = ?`
const TRY = `UPDATE call SET attempts = attempts + 1, due_at = @until WHERE id = @id`
const END = `UPDATE call SET state = @state WHERE id = @id`
const LATER = `UPDATE call SET due_at = @dueAt WHERE id = @id`
const NEXT = `SELECT min(due_at) FROM call WHERE state = 'waiting'`

/** As long as a call may take, and a little more. */
const LEASE_MS = 60_000
const TRIED_MS = 86_400_000
const MOST_APART_MS = 3_600_000

interface Call {
	readonly id: number
	readonly cause: string
	readonly run: number
	readonly program: string
	readonly path: string
	readonly body: string
	readonly attempts: number
	readonly endsAt: number
}

export function callProgram(step: StepOf<'call'>, now: StepNow): StepResult {
	const { store, cause, run, now: at } = now
	const known = store.prepare<{ id: number; state: string }>(FIND).get(cause)
	const until = at + TRIED_MS
	if (known?.state === 'done') return { outcome: { kind: 'done', many: 1 }, cameTo: `taken by ${step.program}` }
	if (known?.state === 'waiting') return { outcome: { kind: 'stays' }, cameTo: '', until }
	if (!programByName(store, step.program))
		throw new AppError(
			'invalid',
			`No program is called ${step.program}. A steward adds it on the page of the workspace.`
		)
	refuseAboveCeiling(store, { program: step.program, now: at })
	const body = JSON.stringify(namedValues(step.lines, now))
	if (known) store.prepare(AGAIN).run({ id: known.id, body, now: at, endsAt: until })
	else store.prepare(ADD).run({ cause, run, program: step.program, path: step.path, body, now: at, endsAt: until })
	store.touched.add('jobs')
	return { outcome: { kind: 'stays' }, cameTo: `sent to ${step.program}`, until }
}

/** So many calls a day of one program. */
const MOST_CALLS = 10_000
const LATELY = `SELECT count(*) FROM (SELECT 1 FROM call WHERE program = ? AND ends_at > ? LIMIT ${MOST_CALLS})`

/** A call ends a day after it was begun. */
function refuseAboveCeiling(store: Store, { program, now }: { program: string; now: number }): void {
	if ((store.prepare<number>(LATELY).pluck().get(program, now) ?? 0) < MOST_CALLS) return
	const most = MOST_CALLS.toLocaleString('en-GB')
	throw new AppError(
		'busy',
		`${program} was called ${most} times within a day. Look at what is sent there, then try this again.`
	)
}

/** A call that is due, under a lease. */
export interface DueCall {
	readonly id: number
	readonly program: SealedProgram
	/** Whole. */
	readonly address: string
	readonly body: string
	/** The same at each try. */
	readonly idempotencyKey: string
}

/** None while what leaves is held back. One whose program is gone, or has no address, is given up. */
export function claimCall(store: Store, { now }: { now: number }): DueCall | null {
	if (isHeldBack(store)) return null
	const call = store.prepare<Call>(DUE).get(now)
	if (!call) return null
	const run = findRun(store, call.run)
	if (run?.state !== 'waiting' && run?.state !== 'ready') {
		store.prepare(END).run({ id: call.id, state: 'failed' })
		return null
	}
	const program = programByName(store, call.program)
	const wrong = refusalOf(call.program, program)
	if (!program || wrong !== undefined) {
		giveUp(store, call, { why: wrong ?? '', now })
		return null
	}
	store.prepare(TRY).run({ id: call.id, until: now + LEASE_MS })
	const idempotencyKey = createHash('sha256').update(call.cause).digest('base64url')
	return { id: call.id, program, address: program.address + call.path, body: call.body, idempotencyKey }
}

function refusalOf(name: string, program: SealedProgram | undefined): string | undefined {
	if (!program) return `No program is called ${name} any more. A steward adds it on the page of the workspace.`
	return program.address === '' ? `${name} only asks: a steward has given no address at which it is called.` : undefined
}

/** What became of a call: taken, refused for good, or to be tried again. */
export type CallOutcome = { readonly is: 'taken' } | { readonly is: 'refused' | 'away'; readonly why: string }

export function finishCall(
	store: Store,
	{ id, outcome, now }: { id: number; outcome: CallOutcome; now: number }
): void {
	const call = store.prepare<Call>(ONE).get(id)
	if (!call) return
	if (outcome.is === 'taken') {
		store.prepare(END).run({ id, state: 'done' })
		return wakeRun(store, { run: call.run, now })
	}
	const dueAt = now + Math.min(MOST_APART_MS, 1000 * 2 ** (call.attempts - 1))
	if (outcome.is === 'away' && dueAt < call.endsAt) {
		store.prepare(LATER).run({ id, dueAt })
		store.touched.add('jobs')
		return
	}
	giveUp(store, call, { why: outcome.why, now })
}

/** When the next one is due (epoch ms); what is held back is not. */
export function nextCallAt(store: Store): number | null {
	return isHeldBack(store) ? null : (store.pluck<number | null>(NEXT) ?? null)
}

function giveUp(store: Store, call: Call, { why, now }: { why: string; now: number }): void {
	store.prepare(END).run({ id: call.id, state: 'failed' })
	const run = findRun(store, call.run)
	if (!run || (run.state !== 'waiting' && run.state !== 'ready')) return
	keepRun(store, run.id, { state: 'given up', dueAt: now, stack: run.stack, error: why })
	store.touched.add('access')
}
