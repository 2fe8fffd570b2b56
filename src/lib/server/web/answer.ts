/** Turns what a use case says into what the web says, once for all routes. */
import { error, fail, isHttpError, json, type ActionFailure } from '@sveltejs/kit'
import type { z } from 'zod'
import { AppError, type ErrorCode } from '$lib/core/app-error.ts'
import type { MessageFile } from '../queue/messages.ts'
import type { ByteRange } from '../files/file-store.ts'
import { isPicture } from '$lib/core/capture/attachment.ts'

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

/**
 * For a form that was sent: what the work gives, or its refusal beside what is kept of what was typed.
 *
 *     forForm({ email }, () => …)  →  fail(422, { email, message: 'This address and password do not go together.' })
 */
export async function forForm<T, K extends object>(
	kept: K,
	work: () => Promise<T>
): Promise<T | ActionFailure<K & { message: string }>> {
	try {
		return await work()
	} catch (thrown) {
		if (thrown instanceof AppError) return fail(STATUS[thrown.code], { ...kept, message: thrown.message })
		throw thrown
	}
}

/** What a form holds, checked; refused with what is wrong with the first entry, or with the words given. */
export function parseForm<T>(form: Readonly<Record<string, unknown>>, schema: z.ZodType<T>, words?: string): T {
	const parsed = schema.safeParse(form)
	if (!parsed.success) throw new AppError('invalid', words ?? parsed.error.issues[0]?.message ?? '')
	return parsed.data
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

/** A picture or a film of an app: kept by the browser, which asks each time whether it still may. */
export function asAppFile(
	body: BodyInit,
	{ type, size, sign, range }: { type: string; size: number; sign: string; range: ByteRange | undefined }
): Response {
	const length = range ? range.end - range.start + 1 : size
	return new Response(body, {
		status: range ? 206 : 200,
		headers: {
			'content-type': type,
			'content-length': String(length),
			'accept-ranges': 'bytes',
			...(range ? { 'content-range': `bytes ${range.start}-${range.end}/${size}` } : {}),
			etag: sign,
			'cache-control': 'private, no-cache',
			'content-security-policy': "default-src 'none'; sandbox"
		}
	})
}

/** A file that came with a message: only ever saved. 404 where there is none for whoever asks. */
export function asMessageFile(file: MessageFile | null): Response {
	if (!file) error(404, 'This is not there, or not for you to see.')
	return new Response(Buffer.from(file.base64, 'base64'), {
		headers: {
			'content-type': file.mediaType,
			'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(file.name)}`,
			'content-security-policy': "default-src 'none'; sandbox",
			'cache-control': 'no-store'
		}
	})
}

/** A file that somebody gave in. A picture is drawn in its place; anything else is only ever saved, whatever it says it is. */
export function asGivenFile(
	body: BodyInit,
	{ name, type, size }: { readonly name: string; readonly type: string; readonly size: number }
): Response {
	const isDrawn = isPicture(type)
	return new Response(body, {
		headers: {
			'content-type': isDrawn ? type : 'application/octet-stream',
			'content-length': String(size),
			'content-disposition': `${isDrawn ? 'inline' : 'attachment'}; filename*=UTF-8''${encodeURIComponent(name)}`,
			'content-security-policy': "default-src 'none'; sandbox"
		}
	})
}
