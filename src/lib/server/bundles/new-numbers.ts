/** What the numbers of a bundle become in this workspace: its tables and columns new ones, people and roles those of here. */
import type { MapNumbers } from '$lib/core/sentence/walk-line.ts'
import type { BundleTable } from '$lib/core/app/bundle.ts'
import { nameKey } from '$lib/core/text/key.ts'
import type { ColumnEntry, LineEntry, TableEntry } from '$lib/core/workspace/document.ts'
import { BUILDER } from '../rights/system-roles.ts'
import { takeNumbers } from '../store/numbers.ts'
import type { Store } from '../store/store.ts'
import type { GivenBundle } from './read-bundle.ts'

export interface NewNumbers extends MapNumbers {
	/** Undefined for one that is not there. */
	readonly column: (id: number) => number | undefined
	entry(table: BundleTable, keeper: number): TableEntry
	line(line: LineEntry): LineEntry
	/** Whether a role of the bundle is here, by its name. */
	hasRole(id: number): boolean
}

/** The number of no table: what a bundle names and does not hold is gone, whatever has its number here. */
const NO_TABLE = 2 ** 31 - 1
export const NO_ROLE = 2 ** 31 - 1

export function numberAnew(store: Store, { tables, people, roles }: GivenBundle): NewNumbers {
	const { document } = store.workspace()
	const columns = tables.flatMap((table) => table.columns)
	const firstTable = takeNumbers(store, 'table', tables.length)
	const firstColumn = takeNumbers(store, 'column', columns.length)
	const tableOf = new Map([[people.id, document.people], ...tables.map(({ id }, i) => [id, firstTable + i] as const)])
	const here = document.tables.find(({ id }) => id === document.people)?.columns ?? []
	const byName = new Map(here.map(({ id, name }) => [nameKey(name), id]))
	const columnOf = new Map([
		...people.columns.map(({ id, name }) => [id, byName.get(nameKey(name))] as const),
		...columns.map(({ id }, i) => [id, firstColumn + i] as const)
	])
	const roleNames = new Map(document.roles.map(({ id, name }) => [nameKey(name), id]))
	const roleOf = new Map(roles.map(({ id, name }) => [id, roleNames.get(nameKey(name))]))
	const table = (id: number) => tableOf.get(id) ?? NO_TABLE
	const column = (id: number) => columnOf.get(id)
	// For a role that is not here: what only some were shown must not be shown to all.
	const role = (id: number) => roleOf.get(id) ?? BUILDER
	const list = (ids: readonly number[]) => ids.flatMap((id) => column(id) ?? [])
	const columnEntry = ({
		vouched: _vouched,
		openAsMe: _open,
		to,
		uniqueWithin,
		...entry
	}: ColumnEntry): ColumnEntry => ({
		...entry,
		id: column(entry.id) ?? entry.id,
		...(to === undefined ? {} : { to: table(to) }),
		...(uniqueWithin === undefined ? {} : { uniqueWithin: column(uniqueWithin) ?? 0 })
	})
	return {
		...{ table, column, role, hasRole: (id: number) => roleOf.get(id) !== undefined },
		entry: ({ rows: _rows, ...given }, keeper) => ({
			...given,
			...{ id: table(given.id), label: column(given.label) ?? 0, keepers: [keeper] },
			columns: given.columns.map(columnEntry)
		}),
		line: (line) => ({
			...line,
			...{ table: table(line.table), role: role(line.role) },
			columns: line.columns.kind === 'all' ? line.columns : { ...line.columns, columns: list(line.columns.columns) }
		})
	}
}
