/** Works the queue off: what happens inside the workspace in one transaction each, what leaves it under a lease. */
import { runReleaseJob } from '../apps/timed-release.ts'
import { runDigestJob } from '../queue/digest.ts'
import { dropDevice, findDevice, type Device } from '../queue/devices.ts'
import { findUnread } from '../queue/notices.ts'
import { sealId } from '../store/sealed-ids.ts'
import { isHeldBack } from '../queue/outgoing.ts'
import { nextCallAt } from '../routines/call-program.ts'
import { nextClockAt } from '../routines/clocks.ts'
import { nextRunAt } from '../routines/runs.ts'
import type { MadeReport } from '../routines/made-report.ts'
import { writeHistory } from '../history/history.ts'
import { addMessage, markSent, readMessage, type Message, type MessageFile } from '../queue/messages.ts'
import { describePerson } from '../rights/accounts.ts'
import { inSavepoint } from '../store/in-savepoint.ts'
import type { Store } from '../store/store.ts'
import { claimJob, finishJob, nextJobAt, payloadOf, putOffJob, type Job, type Payload } from '../queue/queue.ts'

const INSIDE_LEASE_MS = 1
const POST_LEASE_MS = 60_000
/** As long as a file of very many rows takes, on a slow machine. */
const REPORT_LEASE_MS = 300_000

/** Runs the next job that stays inside; false if none is due. Called within a transaction that also finishes it. */
export function runInsideJob(store: Store, { worker, now }: { worker: string; now: number }): boolean {
	const claim = { worker, now, leaseMs: INSIDE_LEASE_MS }
	const release = claimJob(store, { ...claim, task: 'release' })
	if (release) return runInside(store, release, claim, () => runReleaseJob(store, release, now))
	const digest = claimJob(store, { ...claim, task: 'digest' })
	return digest !== undefined && runInside(store, digest, claim, () => runDigestJob(store, digest, now))
}

function runInside(
	store: Store,
	job: Job,
	{ worker, now }: { worker: string; now: number },
	work: () => void
): boolean {
	const done = inSavepoint(store, work)
	if ('thrown' in done) putOffJob(store, { job, worker, now, error: String(done.thrown) })
	else finishJob(store, { id: job.id, worker, now })
	return true
}

export interface Posting {
	readonly job: Job<'post'>
	readonly message: Message
	readonly id: number
	readonly to: { readonly name: string; readonly email: string }
}

/** Takes the next message that is to leave, under a lease; none while what leaves is held back. */
export function claimPosting(store: Store, { worker, now }: { worker: string; now: number }): Posting | null {
	if (isHeldBack(store)) return null
	const job = claimJob(store, { task: 'post', worker, now, leaseMs: POST_LEASE_MS })
	if (!job) return null
	const { message: id } = payloadOf(job)
	const message = readMessage(store, id)
	const to = message && recipientOf(store, message)
	if (!message || !to) {
		// Whoever it was for has left: there is nobody to send it to.
		finishJob(store, { id: job.id, worker, now })
		return null
	}
	return { job, message, id, to }
}

function recipientOf(store: Store, { person, toName, toEmail }: Message): Posting['to'] | undefined {
	if (toEmail !== null) return { name: toName ?? '', email: toEmail }
	return describePerson(store, person)
}

/** Marks a message as sent, unless another worker has taken the job meanwhile. */
export function finishPosting(
	store: Store,
	{ job, id, worker, now }: { job: number; id: number; worker: string; now: number }
): void {
	if (finishJob(store, { id: job, worker, now })) markSent(store, id, now)
}

/** Tries again later what was to leave; after the last time it waits for a person. */
export function putOffPosting(store: Store, failed: { job: Job; worker: string; now: number; error: string }): void {
	putOffJob(store, failed)
}

export interface DuePush {
	readonly job: Job<'push'>
	readonly device: Device
	readonly notice: { readonly id: string; readonly subject: string }
}

/** Takes the next message of which a browser is to be told; one that was read meanwhile is told to nobody. */
export function claimPush(store: Store, { worker, now }: { worker: string; now: number }): DuePush | null {
	if (isHeldBack(store)) return null
	for (;;) {
		const job = claimJob(store, { task: 'push', worker, now, leaseMs: POST_LEASE_MS })
		if (!job) return null
		const { message, device: id } = payloadOf(job)
		const notice = findUnread(store, message)
		const device = notice && findDevice(store, { id, person: notice.person, now })
		if (notice && device)
			return { job, device, notice: { id: sealId(store, 'notice', message), subject: notice.subject } }
		finishJob(store, { id: job.id, worker, now })
	}
}

export interface Pushed {
	readonly job: Job
	readonly device: number
	readonly outcome: 'sent' | 'gone' | 'away'
	readonly worker: string
	readonly now: number
}

export function finishPush(store: Store, { job, device, outcome, worker, now }: Pushed): void {
	if (outcome === 'away') return putOffJob(store, { job, worker, now, error: 'The push service was away.' })
	finishJob(store, { id: job.id, worker, now })
	if (outcome === 'gone') dropDevice(store, device)
}

export interface ReportToWrite {
	readonly job: Job<'report'>
	readonly report: Payload<'report'>
}

/** Takes the next report that is to be written, under a lease. */
export function claimReport(store: Store, { worker, now }: { worker: string; now: number }): ReportToWrite | null {
	const job = claimJob(store, { task: 'report', worker, now, leaseMs: REPORT_LEASE_MS })
	if (!job) return null
	// One that cannot be read is its own failure: those behind it are written all the same.
	const read = inSavepoint(store, () => payloadOf(job))
	if (!('thrown' in read)) return { job, report: read.value }
	putOffJob(store, { job, worker, now, error: String(read.thrown) })
	return null
}

export interface WrittenReport extends ReportToWrite {
	readonly worker: string
	readonly now: number
	/** Null where there is nothing for whoever was to get it. */
	readonly made: MadeReport | null
	readonly file: MessageFile | null
}

/** Puts a report on its reader's page and into the post, and into the Logbook as what it is: rows that leave. */
export function finishReport(store: Store, { job, report, worker, now, made, file }: WrittenReport): void {
	if (!finishJob(store, { id: job.id, worker, now }) || !made) return
	const { person, cause, routine } = report
	const { subject, body, link, shown, table, rows, what } = made
	const message = { cause, person, subject, body, link: link ?? undefined, now }
	addMessage(store, { ...message, ...(shown ? { report: shown } : {}), file: file ?? undefined })
	const format = file ? `a message and ${file.name}` : 'a message'
	const entry = { at: now, person, through: `routine ${routine}` as const, kind: 'export', table, row: null }
	writeHistory(store, { ...entry, body: { what, format, rows } })
}

export interface QueueState {
	/** When what was begun goes on next (epoch ms); null where nothing is left to do. */
	readonly nextAt: number | null
	/** When a clock starts something next. */
	readonly clockAt: number | null
}

export function queueState(store: Store): QueueState {
	const due = [nextJobAt(store), nextRunAt(store), nextCallAt(store)].filter((at) => at !== null)
	return { nextAt: due.length === 0 ? null : Math.min(...due), clockAt: nextClockAt(store) }
}
