/** The rows of a bundle, through the door: those that others point to first, so that they go in with what they point to. */
import type { BundleTable } from '$lib/core/app/bundle.ts'
import type { CellChange, Change, JoinedCell } from '$lib/core/query/change.ts'
import { AppError } from '$lib/core/app-error.ts'
import type { Through } from '../history/through.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import { changeRows } from '../rows/change.ts'
import type { Store } from '../store/store.ts'
import type { NewNumbers } from './new-numbers.ts'
import type { GivenBundle } from './read-bundle.ts'

interface Adding extends ByActor {
	readonly bundle: GivenBundle
	readonly numbers: NewNumbers
	readonly through: Through
}

export function addBundledRows(store: Store, { bundle, numbers, actor, now, through }: Adding): void {
	/** By the id in the bundle, where each stands among the changes. */
	const added = new Map<string, number>()
	const later: { readonly row: string; readonly table: number; readonly cell: { column: number; to: string } }[] = []
	const changes: Change[] = []
	for (const table of inOrder(bundle.tables)) {
		const known = new Set(table.columns.map(({ id }) => id))
		for (const { id, cells } of table.rows) {
			const given = Object.entries(cells).flatMap(([key, value]): (CellChange | JoinedCell)[] => {
				const from = Number(key.slice(1))
				const column = numbers.column(from)
				if (column === undefined || !known.has(from)) return []
				if (typeof value !== 'object' || value === null) return [{ column, value }]
				const at = added.get(value.row)
				if (at !== undefined) return [{ column, value: { added: at } }]
				later.push({ row: id, table: table.id, cell: { column, to: value.row } })
				return []
			})
			added.set(id, changes.length)
			changes.push({ kind: 'add', table: numbers.table(table.id), cells: given })
		}
	}
	const context = { actor, now, through }
	const made = changeRows(store, changes, context)
	const idOf = (row: string) => made[added.get(row) ?? -1]?.row
	const circles = later.map(({ row, table, cell }): Change => {
		const [own, to] = [idOf(row), idOf(cell.to)]
		if (own === undefined || to === undefined)
			throw new AppError(
				'invalid',
				`This is no bundle of an app: a row points to ${cell.to}, which is in none of its tables.`
			)
		return {
			kind: 'change',
			table: numbers.table(table),
			row: own,
			cells: [{ column: cell.column, value: { id: to } }]
		}
	})
	if (circles.length > 0) changeRows(store, circles, context)
}

/** Those that point to others after these, as far as they point in no circle. */
function inOrder(tables: readonly BundleTable[]): BundleTable[] {
	const ordered: BundleTable[] = []
	const begun = new Set<number>()
	const put = (table: BundleTable) => {
		if (begun.has(table.id)) return
		begun.add(table.id)
		for (const { to } of table.columns) {
			const target = tables.find(({ id }) => id === to)
			if (target) put(target)
		}
		ordered.push(table)
	}
	for (const table of tables) put(table)
	return ordered
}
