/** Where another program asks for a routine: its request is known by its signature alone. Problems are said as RFC 9457 has it. */
import { json } from '@sveltejs/kit'
import { AppError } from '$lib/core/app-error.ts'
import { readSignatureInputs } from '$lib/core/signing/signature-base.ts'
import { openThrottle } from '$lib/server/base/throttle.ts'
import { unseal } from '$lib/server/base/seal.ts'
import { verifyRequest } from '$lib/server/outside/sign.ts'

const MOST_BYTES = 64 * 1024
/** Wrong signatures from one address, and requests of one program, in a quarter of an hour. */
const wrong = openThrottle(60)
const asked = openThrottle(9_000)

export async function POST({ request, params, locals, url }) {
	if (wrong.isSlowed(locals.from, locals.now)) return problem(429, 'Too many requests with a wrong signature. Wait a quarter of an hour.') // prettier-ignore
	if (!request.headers.get('content-type')?.startsWith('application/json')) return problem(415, 'JSON was expected.')
	const body = Buffer.from(await request.arrayBuffer())
	if (body.length > MOST_BYTES) return problem(413, 'A request holds at most 64 kB.')
	const headers = Object.fromEntries(request.headers)
	const [input] = readSignatureInputs(headers['signature-input'] ?? '') ?? []
	const found = await locals.host.read('programByKey', { keyId: input?.keyId ?? '' })
	const key = found && { id: found.keyId, secret: unseal(locals.host.key, 'program', found.sealedSecret), program: found } // prettier-ignore
	const read = { method: 'POST', url: url.href, headers, body }
	const verified = verifyRequest(read, (id) => (key?.id === id ? key : undefined), locals.now)
	if ('why' in verified) {
		wrong.take(locals.from, locals.now)
		return problem(401, verified.why)
	}
	const { id, name } = verified.by.program
	if (!asked.take(String(id), locals.now))
		return problem(429, 'Very many requests came. Ask again in a quarter of an hour.')
	const app = Number(params.app)
	const work = { app, routine: params.routine, program: { id, name }, now: locals.now }
	try {
		const idempotencyKey = headers['idempotency-key'] ?? ''
		const run = await locals.host.write('takeRequest', { ...work, idempotencyKey, body: body.toString('utf8') })
		return json({ run }, { status: 202 })
	} catch (thrown) {
		if (thrown instanceof AppError) return problem(STATUS[thrown.code] ?? 422, thrown.message)
		throw thrown
	}
}

const STATUS: Partial<Record<AppError['code'], number>> = { not_found: 404, conflict: 409, busy: 429 }

function problem(status: number, detail: string): Response {
	return json({ status, detail }, { status, headers: { 'content-type': 'application/problem+json' } })
}
