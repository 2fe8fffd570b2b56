/** Everybody against every table that a builder keeps: how many rows each sees, and what else they may do there. */
import type { AccessMatrix } from '$lib/core/requests/access.ts'
import { VERBS } from '$lib/core/access/types.ts'
import { describePerson } from '../rights/accounts.ts'
import { type Actor, rightsUnder } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import { openCounts, peopleListed, peopleUnlisted } from './counts.ts'

/** People by tables: how many rows of each table that the asker owns each person sees. */
export function readMatrix(store: Store, { actor, now }: { actor: Actor; now: number }): AccessMatrix {
	const { catalogue, lines } = store.workspace()
	const tables = [...catalogue.tables.values()].filter((table) => table.keepers.includes(actor.person))
	const counts = openCounts(store)
	const people = peopleListed(store).flatMap((person) => {
		const who = describePerson(store, person)
		if (!who) return []
		const rights = rightsUnder(store, person, lines, now)
		const cells = tables.map((table) => {
			const seen = counts.count(rights, table)
			// Only what is seen can be changed or removed.
			const may = VERBS.filter(
				(verb) => verb !== 'see' && (seen > 0 || verb === 'add') && rights.mayPossibly(verb, table)
			)
			return { seen, may, keeps: table.keepers.includes(person) }
		})
		return [{ person, name: who.name, roles: who.roleNames, cells }]
	})
	return { tables: tables.map(({ id, name }) => ({ id, name })), people, unlisted: peopleUnlisted(store) }
}
