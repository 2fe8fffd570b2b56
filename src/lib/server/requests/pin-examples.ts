/** Examples of who must, or must not, see a row: kept with a table, or taken off. */
import type { Examples, exampleSchema } from '$lib/core/requests/access.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import type { Threads } from '../threads/threads.ts'
import type { Handlers } from './handlers.ts'

interface Context {
	readonly threads: Threads
	readonly of: ByActor & { readonly table: number }
}

export const EXAMPLES: Handlers<typeof exampleSchema, Examples, Context> = {
	pin: ({ person, row, sees }, { threads, of }) => threads.write('pinExample', { ...of, person, row, sees }),
	unpin: ({ person, row }, { threads, of }) => threads.write('unpinExample', { ...of, person, row })
}
