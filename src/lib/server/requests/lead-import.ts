/** What is done with a file that was given in, kind by kind. */
import type { ImportRequests, importRequestSchema } from '$lib/core/requests/imports.ts'
import type { Imports } from '../imports/imports.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import type { Handlers } from './handlers.ts'

interface Context {
	readonly imports: Imports
	readonly id: string
	readonly actor: Actor
	/** Ends when whoever asked has gone. */
	readonly signal: AbortSignal
}

export const OF_IMPORT: Handlers<typeof importRequestSchema, ImportRequests, Context> = {
	inspect: ({ kind: _kind, ...settings }, { imports, id, actor, signal }) =>
		imports.inspect(id, settings, actor, signal),
	start: ({ plan, more = false }, { imports, id, actor }) => imports.start(id, plan, actor, more),
	apply: async ({ partly }, { imports, id, actor }) => imports.apply(id, partly, actor),
	stop: async (_asked, { imports, id, actor }) => imports.stop(id, actor)
}
