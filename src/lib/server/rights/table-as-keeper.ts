import { AppError } from '$lib/core/app-error.ts'
import type { Table } from '$lib/core/model/table.ts'
import type { Actor } from './rights-of-actor.ts'
import type { Store } from '../store/store.ts'

/** Only who keeps a table may change what it is made of and who may see it; for others it is not there. */
export function getTableAsKeeper(store: Store, id: number, actor: Actor): Table {
	const table = store.workspace().catalogue.tables.get(id)
	if (!table?.keepers.includes(actor.person) || actor.lookedAtBy !== undefined) {
		throw new AppError('not_found', 'This table is not there, or is kept by somebody else.')
	}
	return table
}
