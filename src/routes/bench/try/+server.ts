import { z } from 'zod'
import { asJson, readBody } from '$lib/server/answer.ts'
import { getBuilder } from '$lib/server/signed-in.ts'

const trySchema = z.object({
	kind: z.enum(['condition', 'formula']),
	table: z.number().int(),
	text: z.string().max(10_000),
	me: z.boolean()
})

const SHOWN_PEOPLE = 3

/** What a formula that is being written comes to. */
export function POST({ locals, request }) {
	return asJson(async () => {
		const actor = getBuilder(locals)
		const { host, now } = locals
		const { kind, table, text, me } = await readBody(request, trySchema)
		if (kind === 'formula') return host.read('tryFormula', { table, text, actor, now })
		// A few people of different roles, to compare with.
		const everybody = await host.read('people', undefined)
		const roles = new Set<string>()
		const people = everybody.filter((person) => {
			const role = person.roles[0]
			if (!role || roles.has(role) || role === 'Builders' || role === 'Stewards') return false
			roles.add(role)
			return true
		})
		return host.read('tryCondition', {
			table,
			text,
			me,
			people: people.slice(0, SHOWN_PEOPLE).map((each) => each.person),
			actor,
			now
		})
	})
}
