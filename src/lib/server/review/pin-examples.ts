/** A keeper pins an example of who must, or must not, see a row, and takes it off again. */
import type { ByActor } from '../rights/rights-of-actor.ts'
import { AppError } from '$lib/core/app-error.ts'
import { describePerson } from '../rights/accounts.ts'
import { readStoredRow } from '../store/stored-row.ts'
import type { Store } from '../store/store.ts'
import type { Example } from '../structure/examples.ts'
import { getTableAsKeeper } from '../rights/table-as-keeper.ts'
import { saveWorkspace } from '../structure/save.ts'

interface OfExample extends ByActor {
	readonly table: number
	readonly person: number
	/** As the outside knows it. */
	readonly row: string
}

const MOST_EXAMPLES = 100

/** Keeps that somebody sees a row, or must not: asked again at each change of access. */
export function pinExample(store: Store, { sees, ...asked }: OfExample & { sees: boolean }): void {
	const { table, n } = find(store, asked)
	if (!describePerson(store, asked.person) || !readStoredRow(store, table, n))
		throw new AppError('not_found', 'Choose a person and a row that are there.')
	change(store, asked, n, (others) => {
		if (others.length >= MOST_EXAMPLES)
			throw new AppError('invalid', `A table has at most ${MOST_EXAMPLES} examples. Take one off first.`)
		return [...others, { person: asked.person, row: n, sees }]
	})
}

export function unpinExample(store: Store, asked: OfExample): void {
	change(store, asked, find(store, asked).n, (others) => [...others])
}

function find(store: Store, { table: id, row, actor }: OfExample) {
	const table = getTableAsKeeper(store, id, actor)
	const n = store.ids.fromId(id, row)
	if (n === undefined) throw new AppError('not_found', 'Choose a person and a row that are there.')
	return { table, n }
}

function change(
	store: Store,
	{ table, person, actor, now }: OfExample,
	n: number,
	map: (others: readonly Example[]) => Example[]
): void {
	const { document } = store.workspace()
	const tables = document.tables.map((entry) => {
		if (entry.id !== table) return entry
		const others = (entry.examples ?? []).filter((each) => each.person !== person || each.row !== n)
		return { ...entry, examples: map(others) }
	})
	saveWorkspace(store, { ...document, tables }, { now, by: actor.person })
}
