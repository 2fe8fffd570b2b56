/** Columns of the demo's tables by their names, and rows put in through the door. */
import type { CellChange } from '../src/lib/core/query/change.ts'
import { changeRows } from '../src/lib/server/rows/change.ts'
import type { Store } from '../src/lib/server/store/store.ts'

export function columnsOf(store: Store, table: number): (name: string) => number {
	return (name) => {
		const column = store
			.workspace()
			.catalogue.tables.get(table)
			?.columns.find((each) => each.name === name)
		if (!column) throw new Error(`Cannot find column "${name}" in the demo's table "${table}"`)
		return column.id
	}
}

/** The id of the row. */
export function add(
	store: Store,
	person: number,
	table: number,
	cells: Record<number, CellChange['value']>,
	now: number
): string {
	const list = Object.entries(cells).map(([column, value]) => ({ column: Number(column), value }))
	const [added] = changeRows(store, [{ kind: 'add', table, cells: list }], { actor: { person }, now, through: 'demo' })
	return added?.row ?? ''
}
