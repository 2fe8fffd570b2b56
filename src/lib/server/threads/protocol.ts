/** What travels between the main thread and the threads that hold connections. */
import { AppError, type ErrorCode } from '$lib/core/app-error.ts'
import type { WantedOrder } from '../store/store.ts'

export interface Ask {
	readonly id: number
	readonly name: string
	readonly args: unknown
}

export type Answer =
	/** `json`: the result as text, so that the main thread can hand it on without making objects. */
	| { readonly id: number; readonly ok: true; readonly json: string }
	| {
			readonly id: number
			readonly ok: false
			readonly code: ErrorCode | 'bug'
			readonly message: string
			readonly details: unknown
	  }

/** What a commit changed of what people see. */
export interface ChangeNotice {
	/** Tables whose rows changed. */
	readonly tables: readonly number[]
	/** Lines, roles or structure changed: everything may look different. */
	readonly access: boolean
	/** Apps whose drafts were written on. */
	readonly drafts: readonly number[]
	/** People who were told something, by number. */
	readonly told: readonly number[]
	/** Work was queued. */
	readonly jobs: boolean
	/** Sessions ended: whoever is still listening asks whether theirs did. */
	readonly sessions: boolean
}

/** Sent by the writer after a commit. */
export interface Changed {
	readonly changed: ChangeNotice
}

/** Sent by a reader that was asked for rows in orders which no index served. */
export interface Lacking {
	readonly wanted: readonly WantedOrder[]
}

export interface ThreadData {
	readonly file: string
	/** The workspace's key, as hex. */
	readonly key: string
}

export function toAnswer(id: number, error: unknown): Answer {
	if (error instanceof AppError)
		return { id, ok: false, code: error.code, message: error.message, details: error.details }
	const wrong = sayOfDisk(error)
	if (wrong !== undefined) {
		console.error(error)
		return { id, ok: false, code: 'busy', message: wrong, details: {} }
	}
	// Our own mistake: the detail goes to the log, never to the page.
	console.error(error)
	return { id, ok: false, code: 'bug', message: 'Something went wrong on our side. Nothing was changed.', details: {} }
}

/** Nobody's mistake who asks: told so that what was typed is kept and whoever can mend it is told. */
function sayOfDisk(error: unknown): string | undefined {
	const code = error instanceof Error && 'code' in error ? String(error.code) : ''
	if (/^SQLITE_FULL/.test(code))
		return 'The server’s disk is full, so this was not saved. Tell whoever runs the workspace; nothing was changed.'
	if (/^SQLITE_(READONLY|IOERR|CANTOPEN|CORRUPT)/.test(code))
		return 'The server cannot write to its disk, so this was not saved. Tell whoever runs the workspace; nothing was changed.'
	return undefined
}

/** What a thread refused, as it was thrown there. */
export function toError(answer: Answer & { ok: false }): Error {
	if (answer.code === 'bug') return new Error(answer.message)
	// Made of an AppError's own on the other side.
	return new AppError(answer.code, answer.message, (answer.details ?? {}) as Record<string, unknown>)
}
