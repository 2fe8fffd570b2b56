import { peopleRequestSchema } from '$lib/core/requests/people.ts'
import { doWithPeople } from '$lib/server/requests/do-with-people.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { getNamed } from '$lib/server/web/signed-in.ts'

export function POST({ locals, request }) {
	return asJson(async () => {
		const asked = await readBody(request, peopleRequestSchema)
		const { person, isSteward } = getNamed(locals)
		return doWithPeople(asked, { site: locals.host, by: { actor: { person }, now: locals.now }, isSteward })
	})
}
