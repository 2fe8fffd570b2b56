/**
 * The queue of what is still to be done. A job is added in the transaction of the change that causes it.
 *
 * Work inside the workspace is claimed, done and finished in one transaction, so a kill at any moment leaves it either
 * waiting or done. Work outside (a message that leaves) is claimed under a lease and finished only by its owner.
 */
import { z } from 'zod'
import { wholeDocumentSchema } from '$lib/core/routine/document-step.ts'
import { reportStepSchema } from '$lib/core/routine/report-step.ts'
import type { Store } from '../store/store.ts'
import { isHeldBack } from './outgoing.ts'

const number = z.number().int()
const rowAt = z.object({ table: number, n: number }).nullable()

/** What there is to do, and what each task is given. */
const PAYLOADS = {
	/** A release at a set time: of a version of the draft, after the release of a number, for whoever planned it. */
	release: z.object({
		...{ app: number, version: number, after: number, note: z.string(), tells: z.boolean(), person: number }
	}),
	/** The mail of the day of whoever is told once a day. */
	digest: z.object({ person: number }),
	/** A report or a document that is to be written for somebody, from the step that sends it and the rows around it. */
	report: z.object({
		...{
			app: number,
			routine: z.string(),
			person: number,
			cause: z.string(),
			step: z.union([reportStepSchema, wholeDocumentSchema])
		},
		...{ at: rowAt, outer: rowAt }
	}),
	/** A message that is to leave, by its number. */
	post: z.object({ message: number }),
	/** A message of which a browser is to be told. */
	push: z.object({ message: number, device: number })
}

export type Task = keyof typeof PAYLOADS
export type Payload<T extends Task> = z.output<(typeof PAYLOADS)[T]>

export interface Job<T extends Task = Task> {
	readonly id: number
	readonly task: T
	/** As JSON text, as it lies in the queue. */
	readonly payload: string
	readonly attempts: number
}

const ADD = `INSERT INTO job (run_at, task, payload) VALUES (@at, @task, @payload)`
const CLAIM = `
	UPDATE job
	SET attempts = attempts + 1, locked_by = @worker, locked_until = @until
	WHERE id = (
		SELECT id FROM job
		WHERE done_at IS NULL AND run_at <= @now AND task = @task AND attempts < max_attempts
			AND (locked_until IS NULL OR locked_until <= @now)
		ORDER BY run_at, id LIMIT 1
	)
	RETURNING id, task, payload, attempts`
const FINISH = `
	UPDATE job SET done_at = @now, locked_by = NULL, locked_until = NULL
	WHERE id = @id AND locked_by = @worker AND done_at IS NULL`
const PUT_OFF = `
	UPDATE job SET run_at = @runAt, locked_by = NULL, locked_until = NULL, last_error = @error
	WHERE id = @id AND locked_by = @worker AND done_at IS NULL`
const NEXT_DUE = `
	SELECT min(max(run_at, coalesce(locked_until, 0))) FROM job
	WHERE done_at IS NULL AND attempts < max_attempts AND (@isHeld = 0 OR task NOT IN ('post', 'push'))`

/** Puts something to be done in the queue, due at a time (epoch ms); within the transaction of what causes it. */
export function addJob<T extends Task>(store: Store, task: T, payload: Payload<T>, at: number): void {
	store.prepare(ADD).run({ task, payload: JSON.stringify(payload), at })
	store.touched.add('jobs')
}

/** What a job was given; throws where that cannot be read, which is then the job's own failure. */
export function payloadOf<T extends Task>({ task, payload }: Pick<Job<T>, 'task' | 'payload'>): Payload<T> {
	// The schema of the task gives its payload, which is lost where one of several schemas is looked up.
	return PAYLOADS[task].parse(JSON.parse(payload)) as Payload<T>
}

export interface Claim<T extends Task> {
	readonly task: T
	/** A name for whoever takes the job: the boot id, so that a lease of an earlier run is never mistaken for ours. */
	readonly worker: string
	readonly now: number
	readonly leaseMs: number
}

/** The next due job of a task, held under a lease for one worker; undefined where none is due. */
export function claimJob<T extends Task>(store: Store, { task, worker, now, leaseMs }: Claim<T>): Job<T> | undefined {
	return store.prepare<Job<T>>(CLAIM).get({ task, worker, now, until: now + leaseMs })
}

/** False if the lease was lost meanwhile: then somebody else has the job. */
export function finishJob(store: Store, { id, worker, now }: { id: number; worker: string; now: number }): boolean {
	return store.prepare(FINISH).run({ id, worker, now }).changes === 1
}

/** Tries again later: after 1, 2, 4 … seconds, at most an hour. */
export function putOffJob(store: Store, failed: { job: Job; worker: string; now: number; error: string }): void {
	const wait = Math.min(3_600_000, 1000 * 2 ** (failed.job.attempts - 1))
	store
		.prepare(PUT_OFF)
		.run({ id: failed.job.id, worker: failed.worker, runAt: failed.now + wait, error: failed.error })
}

/** When the next job is due (epoch ms); what is held back is not. */
export function nextJobAt(store: Store): number | null {
	return (
		store
			.prepare<number | null>(NEXT_DUE)
			.pluck()
			.get({ isHeld: isHeldBack(store) ? 1 : 0 }) ?? null
	)
}
