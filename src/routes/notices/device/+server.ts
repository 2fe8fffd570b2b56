/** This browser is told while it is closed, or no more. */
import { z } from 'zod'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { getNamed } from '$lib/server/web/signed-in.ts'

const key = z.string().regex(/^[\w-]{16,100}$/)
const endpoint = z.url().max(1_000)
const deviceSchema = z.object({ endpoint, p256dh: key, auth: key })

export async function POST({ locals, request }) {
	const { person } = getNamed(locals)
	const agent = (request.headers.get('user-agent') ?? '').slice(0, 200)
	return asJson(async () => {
		const device = await readBody(request, deviceSchema)
		await locals.host.write('addDevice', { ...device, person, session: locals.sessionHash, agent, now: locals.now })
	})
}

export async function DELETE({ locals, request }) {
	const { person } = getNamed(locals)
	return asJson(async () => {
		const device = await readBody(request, z.object({ endpoint }))
		await locals.host.write('removeDevice', { ...device, person })
	})
}
