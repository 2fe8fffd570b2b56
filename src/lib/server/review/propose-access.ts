/** Lines of access that a table without any could have, each with what it would come to. For its keepers. */
import type { ProposedAccess } from '$lib/core/requests/access.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { AppError } from '$lib/core/app-error.ts'
import { proposeLines } from '$lib/core/access/propose.ts'
import type { LineEntry } from '$lib/core/workspace/document.ts'
import { EVERYONE } from '../rights/system-roles.ts'
import type { Store } from '../store/store.ts'
import { getTableAsKeeper } from '../rights/table-as-keeper.ts'
import { readAccess } from './read-access.ts'

/** Lines that fit the table, each with what it would come to. */
export function proposeAccess(store: Store, { table: id, actor, now }: ByActor & { table: number }): ProposedAccess[] {
	const table = getTableAsKeeper(store, id, actor)
	return proposeLines(table, store.workspace().catalogue).map(({ says, where, asksRole }, i) => {
		const line: LineEntry = {
			id: `proposed ${i}`,
			table: id,
			role: EVERYONE,
			verbs: ['see'],
			where,
			columns: { kind: 'all' }
		}
		const proposed = { says, line, asksRole }
		if (asksRole) return proposed
		try {
			const [comesTo] = readAccess(store, { table: id, draft: [line], actor, now }).comesTo
			return comesTo ? { ...proposed, comesTo } : proposed
		} catch (error) {
			if (error instanceof AppError) return { ...proposed, refused: error.message }
			throw error
		}
	})
}
