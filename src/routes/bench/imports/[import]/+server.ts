import { z } from 'zod'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

const askSchema = z.discriminatedUnion('kind', [
	z.object({
		kind: z.literal('inspect'),
		sheet: z.string().max(200).optional(),
		headingRow: z.number().int().min(0).nullable().optional(),
		firstRow: z.number().int().min(0).optional(),
		overTwo: z.boolean().optional()
	}),
	/** `more`: other sheets of the file follow, so it stays here. */
	z.object({ kind: z.literal('start'), plan: z.unknown(), more: z.boolean().optional() }),
	z.object({ kind: z.literal('apply'), partly: z.boolean() }),
	z.object({ kind: z.literal('stop') })
])

/** How far it is. */
export function GET({ locals, params }) {
	return asJson(async () => locals.host.imports.state(params.import, getBuilder(locals)))
}

/** Looks at a file that was given in, begins to bring it in, puts compared rows into their table, or stops. */
export function POST({ locals, params, request }) {
	return asJson(async () => {
		const actor = getBuilder(locals)
		const asked = await readBody(request, askSchema)
		const { imports } = locals.host
		if (asked.kind === 'inspect') {
			const { kind: _kind, ...settings } = asked
			return imports.inspect(params.import, settings, actor, request.signal)
		}
		if (asked.kind === 'start') return imports.start(params.import, asked.plan, actor, asked.more ?? false)
		if (asked.kind === 'apply') return imports.apply(params.import, asked.partly, actor)
		return imports.stop(params.import, actor)
	})
}
