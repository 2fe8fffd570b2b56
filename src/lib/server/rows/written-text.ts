import { cellKey, isErrorCell, isFileCell, isHiddenCell, isReferenceCell } from '$lib/core/query/wire.ts'
import { showValue } from '$lib/core/table/show-value.ts'
import type { Column, Table } from '$lib/core/model/table.ts'
import type { Store } from '../store/store.ts'
import { readRows } from './read.ts'

interface OfCell {
	readonly column: Column
	readonly n: number
	readonly person: number
	readonly now: number
}

/** A cell as a person reads it, with their sight. */
export function cellText(store: Store, table: Table, { column, n, person, now }: OfCell): string {
	const row = store.ids.toId(table.id, n)
	const page = readRows(store, { person }, { table: table.id, row, columns: [column.id] }, now)
	const cell = page.rows[0]?.cells[cellKey(column.id)]
	if (cell === undefined || cell === null || isHiddenCell(cell)) return ''
	if (isReferenceCell(cell)) return cell.label
	if (isErrorCell(cell)) return cell.error
	if (isFileCell(cell)) return cell.file.name
	// Places and lists have been shown above.
	return showValue(cell as string | number | boolean, column)
}
