/** Turns what a use case says into what the web says, once for all routes. */
import { error, isHttpError, json } from '@sveltejs/kit'
import type { z } from 'zod'
import { AppError, type ErrorCode } from '$lib/core/app-error.ts'

const STATUS: Readonly<Record<ErrorCode, number>> = {
	not_found: 404,
	forbidden: 403,
	conflict: 409,
	invalid: 422,
	busy: 429,
	signed_out: 401
}

/** For a page: a refusal becomes the page that says so. */
export async function forPage<T>(work: () => Promise<T>): Promise<T> {
	try {
		return await work()
	} catch (thrown) {
		if (thrown instanceof AppError) error(STATUS[thrown.code], thrown.message)
		throw thrown
	}
}

/** For a script of ours: the result, or the refusal with its code and details, so that what was typed can be kept. */
export async function asJson<T>(work: () => T | Promise<T>): Promise<Response> {
	try {
		return json((await work()) ?? null)
	} catch (thrown) {
		if (isHttpError(thrown, STATUS.busy))
			return json({ code: 'busy', message: thrown.body.message, details: {} }, { status: STATUS.busy })
		if (!(thrown instanceof AppError)) throw thrown
		const { code, message, details } = thrown
		return json({ code, message, details }, { status: STATUS[code] })
	}
}

/** The body of a request, checked; anything else is refused before it reaches a use case. */
export async function readBody<T>(request: Request, schema: z.ZodType<T>): Promise<T> {
	if (!request.headers.get('content-type')?.startsWith('application/json')) error(415, 'JSON was expected.')
	const parsed = schema.safeParse(await request.json().catch(() => undefined))
	if (!parsed.success) throw new AppError('invalid', parsed.error.issues[0]?.message ?? 'This request cannot be read.')
	return parsed.data
}
