import { answerSchema, type AnswerAsk } from '$lib/core/requests/asks.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { getNamedActor } from '$lib/server/web/signed-in.ts'

/** Fills in what somebody was asked for. Whether it is theirs to answer is decided where it is done. */
export function POST({ locals, request }) {
	return asJson<AnswerAsk['answers']>(async () => {
		const { ask, cells } = await readBody(request, answerSchema)
		return locals.host.write('answerAsk', { id: ask, cells, actor: getNamedActor(locals), now: locals.now })
	})
}
