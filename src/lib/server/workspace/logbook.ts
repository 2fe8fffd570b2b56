/** The Logbook: who did what, when, through what. Without cell values, which belong to the rows' own history. */
import { describePerson } from '../people/accounts.ts'
import type { Actor } from '../people/rights-of-actor.ts'
import type { Store } from '../store.ts'

export interface LogEntry {
	readonly seq: number
	readonly at: number
	readonly who: string
	readonly through: string
	readonly kind: string
	readonly table: string
	readonly seal: string
}

const LAST = `SELECT seq, at, person, through, kind, table_id AS tableId, seal FROM history ORDER BY seq DESC LIMIT 200`

/** All of it for stewards; others read what they did themselves, and what happened to tables that they keep. */
export function listLogbook(store: Store, { actor }: { actor: Actor }): LogEntry[] {
	const { catalogue } = store.workspace()
	const steward = describePerson(store, actor.person)?.isSteward ?? false
	const rows = store.prepare(LAST).all() as {
		seq: number
		at: number
		person: number | null
		through: string
		kind: string
		tableId: number | null
		seal: string
	}[]
	return rows.flatMap(({ person, tableId, ...row }) => {
		const table = tableId === null ? undefined : catalogue.tables.get(tableId)
		if (!steward && person !== actor.person && !table?.keepers.includes(actor.person)) return []
		const who = person === null ? 'Tin Shed' : (describePerson(store, person)?.name ?? '')
		return [{ ...row, who, table: table?.name ?? '' }]
	})
}
