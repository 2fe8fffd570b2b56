/** What is done for a request of each kind: none can be forgotten, and each gives what its page expects. */
import type { z } from 'zod'
import type { Pair } from '$lib/core/requests/pair.ts'

export type Handlers<Schema extends z.ZodType<{ kind: string }>, Pairs, Context> = {
	readonly [K in z.output<Schema>['kind']]: (
		asked: Extract<z.output<Schema>, { kind: K }>,
		context: Context
	) => Promise<Extract<Pairs, Pair<{ readonly kind: K }, unknown>>['answers']>
}

/** Does what is asked by the handler of its kind. */
export function handle<Asked extends { kind: string }, Context, Answer>(
	handlers: {
		readonly [K in Asked['kind']]: (asked: Extract<Asked, { kind: K }>, context: Context) => Promise<Answer>
	},
	asked: Asked,
	context: Context
): Promise<Answer> {
	// The handler that is found by a kind takes what is of that kind, which the compiler cannot follow through a union.
	const handler = handlers[asked.kind as Asked['kind']] as (asked: Asked, context: Context) => Promise<Answer>
	return handler(asked, context)
}
