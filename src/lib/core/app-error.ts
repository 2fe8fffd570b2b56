export type ErrorCode = 'not_found' | 'forbidden' | 'conflict' | 'invalid' | 'busy' | 'signed_out'

/** A refusal the caller could have expected, said in the reader's words. Anything else that is thrown is a bug. */
export class AppError extends Error {
	override readonly name = 'AppError'
	readonly code: ErrorCode
	readonly details: Readonly<Record<string, unknown>>

	constructor(code: ErrorCode, message: string, details: Readonly<Record<string, unknown>> = {}) {
		super(message)
		this.code = code
		this.details = details
	}
}
