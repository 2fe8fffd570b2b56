/** What a formula that is being written comes to, or why somebody sees a row. */
import type { Tries, trySchema } from '$lib/core/requests/formulas.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import type { Threads } from '../threads/threads.ts'
import type { Handlers } from './handlers.ts'

interface Context {
	readonly threads: Threads
	readonly by: ByActor
}

export const TRIES: Handlers<typeof trySchema, Tries, Context> = {
	condition: async ({ table, text, me, around, here }, { threads, by }) =>
		threads.read('tryCondition', { table, text, me, around, here, people: await chooseFew(threads), ...by }),
	formula: ({ table, text, around, here }, { threads, by }) =>
		threads.read('tryFormula', { table, text, around, here, ...by }),
	why: (asked, { threads, by }) => threads.read('explainAccess', { ...asked, ...by })
}

const MOST = 3

/** A few people of different roles, to compare with. */
async function chooseFew(threads: Threads): Promise<number[]> {
	const roles = new Set(['Builders', 'Stewards'])
	const chosen = (await threads.read('people', undefined)).filter(({ roles: [first] }) => {
		if (first === undefined || roles.has(first)) return false
		roles.add(first)
		return true
	})
	return chosen.slice(0, MOST).map(({ person }) => person)
}
