import { z } from 'zod'
import { forForm, parseForm } from '$lib/server/web/answer.ts'
import { getNamedActor } from '$lib/server/web/signed-in.ts'

export async function load({ locals }) {
	return { done: await locals.host.read('ownDay', { actor: getNamedActor(locals), now: locals.now }) }
}

const takeBackSchema = z.object({ entry: z.coerce.number().int() })

export const actions = {
	takeBack: ({ locals, request }) =>
		forForm({}, async () => {
			const { entry } = parseForm(Object.fromEntries(await request.formData()), takeBackSchema)
			await locals.host.write('takeBack', { entry, actor: getNamedActor(locals), now: locals.now })
			return { takenBack: true }
		})
}
