/**
 * By what the rows of a table are known, once the column that they were known by is one no more: another that is typed in,
 * or a number of their own. A row is never known by a reference, whose name another table keeps.
 */
import { MEANS_NUMBER } from '$lib/core/exchange/propose-keys.ts'
import { TYPED_TYPES } from '$lib/core/model/table.ts'
import { printNumber } from '$lib/core/table/numbering.ts'
import { toColumn } from '$lib/core/workspace/catalogue.ts'
import type { ColumnEntry, TableEntry } from '$lib/core/workspace/document.ts'
import type { Store } from '../store/store.ts'
import { takeNumbers } from '../store/numbers.ts'
import { saveWorkspace } from './save.ts'
import { addColumn } from '../store/schema.ts'

/** Types by which rows are known well, the best first; others serve only where a person says so. */
const KNOWN_BY = ['code', 'text', 'email', 'whole number'] as const

/** The column that serves in place of one that goes: among those of the best type, one whose values are all different. */
export function labelBesides(columns: readonly ColumnEntry[], column: number): ColumnEntry | undefined {
	const others = columns.filter(
		({ id, type, name }) => id !== column && TYPED_TYPES.includes(type) && !isCount(type, name)
	)
	const unique = others.find((each) => each.unique && KNOWN_BY.some((type) => type === each.type))
	return unique ?? KNOWN_BY.flatMap((type) => others.filter((each) => each.type === type))[0]
}

/** How many there are of something is no name for it. */
function isCount(type: ColumnEntry['type'], name: string): boolean {
	return type === 'whole number' && !MEANS_NUMBER.test(name.trim())
}

const NUMBERING = '{0000}'

/** A column that numbers the rows that are there, in their order, and every new one. */
export function numberRows(store: Store, { id: table, columns }: Pick<TableEntry, 'id' | 'columns'>): ColumnEntry {
	const taken = new Set(columns.map(({ name }) => name.toLowerCase()))
	const name =
		['No.', 'Row no.', 'Number of the row'].find((each) => !taken.has(each.toLowerCase())) ?? 'Its own number'
	const entry: ColumnEntry = { id: takeNumbers(store, 'column', 1), name, type: 'code', numbering: NUMBERING }
	const physical = store.workspace().catalogue.tables.get(table)
	if (physical) addColumn(store.db, physical, toColumn(entry, store.workspace()))
	const number = store.db.prepare(`UPDATE t${table} SET c${entry.id} = @text, c${entry.id}k = @text WHERE n = @n`)
	const rows = store.db.prepare<unknown[], number>(`SELECT n FROM t${table} ORDER BY n`).pluck().all()
	for (const [i, n] of rows.entries()) number.run({ n, text: printNumber(NUMBERING, i + 1) })
	return entry
}

/** At start: tables whose rows were known by a column that has become a reference, in documents of before that was minded. */
export function repairLabels(store: Store, { now }: { now: number }): void {
	const { document } = store.workspace()
	const broken = document.tables.filter(({ label, columns }) => !columns.some(({ id }) => id === label))
	if (broken.length === 0) return
	const tables = document.tables.map((table) => (broken.includes(table) ? withLabel(store, table) : table))
	saveWorkspace(store, { ...document, tables }, { now, by: null })
}

function withLabel(store: Store, table: TableEntry): TableEntry {
	const other = labelBesides(table.columns, table.label)
	if (other) return { ...table, label: other.id }
	const number = numberRows(store, table)
	return { ...table, label: number.id, columns: [number, ...table.columns] }
}
