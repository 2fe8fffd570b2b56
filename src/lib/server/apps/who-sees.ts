/** Who sees something of a draft, table by table: so that the Lookout begins with people who do, and says why others do not. */
import type { WhoSees } from '$lib/core/requests/access.ts'
import { isNever } from '$lib/core/formula/syntax/constant.ts'
import { tablesOf } from '$lib/core/app/walk-app.ts'
import { standingOf, type Actor } from '../rights/rights-of-actor.ts'
import { countUnder } from '../rows/resolve.ts'
import type { Store } from '../store/store.ts'
import { peopleListed } from '../review/counts.ts'
import { readDraft } from './apps.ts'

/** For each person what of a draft's tables they see, counted within what the builder may know. */
export function whoSees(store: Store, { app, actor, now }: { app: number; actor: Actor; now: number }): WhoSees {
	const known = store.workspace().catalogue.tables
	const shown = [...new Set(tablesOf(readDraft(store, app).document).map(({ table }) => table))]
	const tables = shown.flatMap((id) => known.get(id) ?? [])
	const people = peopleListed(store).map((person) => {
		const { rights } = standingOf(store, { person, lookedAtBy: actor.person }, now)
		const seen = tables.filter(
			(table) =>
				rights.mayPossibly('add', table) ||
				(!isNever(rights.rows(table)) && countUnder(store, rights, { table, where: [], limit: 1 }) > 0)
		)
		return { person, tables: seen.map(({ id }) => id) }
	})
	return {
		tables: tables.map(({ id, name, keepers }) => ({ id, name, owned: keepers.includes(actor.person) })),
		people
	}
}
