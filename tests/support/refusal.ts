import { AppError } from '$lib/core/app-error.ts'

/** The refusal that some work ends in; anything else it does is a fault of the test or the program. */
export function refusal(work: () => unknown): AppError {
	try {
		work()
	} catch (error) {
		if (error instanceof AppError) return error
		throw error
	}
	throw new Error('Expected a refusal, got none')
}
