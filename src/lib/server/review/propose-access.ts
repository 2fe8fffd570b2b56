/** Lines of access that a table without any could have, each with what it would come to. For its keepers. */
import type { ProposedAccess } from '$lib/core/requests/access.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { AppError } from '$lib/core/app-error.ts'
import { proposeLines } from '$lib/core/access/propose.ts'
import { nameKey } from '$lib/core/text/key.ts'
import { lineSchema, type LineEntry } from '$lib/core/workspace/document.ts'
import { EVERYONE } from '../rights/system-roles.ts'
import type { Store } from '../store/store.ts'
import { getTableAsKeeper } from '../rights/table-as-keeper.ts'
import { readAccess } from './read-access.ts'

/** Lines that came with the table in a bundle, and such as fit it, each with what it would come to. */
export function proposeAccess(store: Store, { table: id, actor, now }: ByActor & { table: number }): ProposedAccess[] {
	const table = getTableAsKeeper(store, id, actor)
	const fitting = proposeLines(table, store.workspace().catalogue).map(({ says, where, asksRole }) => ({
		...{ says, asksRole },
		line: { table: id, role: EVERYONE, verbs: ['see'], where, columns: { kind: 'all' } } satisfies Omit<LineEntry, 'id'>
	}))
	return [...cameAlong(store, id), ...fitting].map(({ says, asksRole, line: unnamed }, i) => {
		const line: LineEntry = { ...unnamed, id: `proposed ${i}` }
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

const CAME_ALONG = `SELECT role_name, body FROM proposed_line WHERE table_id = ? ORDER BY position`

function cameAlong(store: Store, table: number): { says: string; asksRole: boolean; line: Omit<LineEntry, 'id'> }[] {
	const { roles } = store.workspace()
	const rows = store.prepare<{ role_name: string; body: string }>(CAME_ALONG).all(table)
	return rows.map(({ role_name: name, body }, i) => {
		const role = roles.find((each) => nameKey(each.name) === nameKey(name))
		const { id: _id, ...line } = lineSchema.parse(JSON.parse(body))
		return {
			says: `Came with the table: ${i + 1}${role ? '' : `, for ${name || 'a role'}, which is not here`}`,
			asksRole: role === undefined,
			line: { ...line, role: role?.id ?? line.role }
		}
	})
}
