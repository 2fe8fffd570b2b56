import { z } from 'zod'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { rowIdSchema } from '$lib/server/web/cell-schema.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

const table = z.number().int()
const trySchema = z.union([
	z.object({ kind: z.enum(['condition', 'formula']), table, text: z.string().max(10_000), me: z.boolean() }),
	z.object({ kind: z.literal('why'), table, person: z.number().int(), row: rowIdSchema })
])

const SHOWN_PEOPLE = 3

/** What a formula that is being written comes to, or why somebody sees a row. */
export function POST({ locals, request }) {
	return asJson(async () => {
		const actor = getBuilder(locals)
		const { host, now } = locals
		const asked = await readBody(request, trySchema)
		if (asked.kind === 'why') return host.read('explainAccess', { ...asked, actor, now })
		const { kind, table, text, me } = asked
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
