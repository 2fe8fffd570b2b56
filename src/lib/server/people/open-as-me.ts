/** A steward opens a column of People to builders as `me.…`, or shuts it: what was written with it meanwhile stays. */
import type { ByActor } from '../rights/rights-of-actor.ts'
import { AppError } from '$lib/core/app-error.ts'
import { writeHistory } from '../history/history.ts'
import type { Store } from '../store/store.ts'
import { saveWorkspace } from '../structure/save.ts'
import { refuseUnlessSteward } from '../rights/stewardship.ts'

/** Whether builders may use a column of People as `me.X` though they do not see it; for stewards alone. */
export function openAsMe(
	store: Store,
	{ column, open, actor, now }: ByActor & { column: number; open: boolean }
): void {
	refuseUnlessSteward(store, actor)
	const { document } = store.workspace()
	const people = document.tables.find((table) => table.id === document.people)
	const found = people?.columns.find((each) => each.id === column)
	if (!people || !found) throw new AppError('not_found', 'This column of People is not there any more.')
	const { openAsMe: _was, ...plain } = found
	const columns = people.columns.map((each) =>
		each === found ? { ...plain, ...(open ? { openAsMe: true } : {}) } : each
	)
	const tables = document.tables.map((table) => (table === people ? { ...people, columns } : table))
	saveWorkspace(store, { ...document, tables }, { now, by: actor.person })
	writeHistory(store, {
		at: now,
		person: actor.person,
		through: 'People',
		kind: 'change access',
		table: people.id,
		row: null,
		body: { column, openAsMe: open }
	})
}
