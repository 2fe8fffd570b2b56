/** The rows that an entry of a form may name, where its line says which, by the start of their label. */
import { cellKey } from '$lib/core/query/wire.ts'
import type { CellChange } from '$lib/core/query/change.ts'
import type { GivenRow } from '$lib/core/formula/check/check-call.ts'
import type { Option } from '$lib/core/requests/rows.ts'
import type { StoredValue } from '$lib/core/table/storage.ts'
import type { Table } from '$lib/core/model/table.ts'
import { isErrorValue } from '$lib/core/model/formula.ts'
import { readRows } from '../../rows/read.ts'
import { toValue } from '../../store/stored-row.ts'
import type { AskedEntry } from './form-shape.ts'
import { readCell } from './typed-row.ts'
import type { Filling } from './work-out-typed.ts'

const MOST_OFFERED = 30

/** `table`, `cells`: of the row in which the entry stands. */
export function choicesOf(
	filling: Filling,
	{ column, line }: AskedEntry,
	{ table, cells, starts }: { table: Table; cells: readonly CellChange[]; starts: string }
): readonly Option[] {
	const { store, context, here } = filling
	const target = store.workspace().catalogue.tables.get(column.to ?? 0)
	if (!target) return []
	const { label } = target
	const page = readRows(
		store,
		context.actor,
		{
			...{ table: target.id, columns: [label], limit: MOST_OFFERED, labelStarts: starts },
			sort: { column: label, descending: false },
			where: [line?.from ?? ''],
			given: givenRow(filling, table, cells),
			here
		},
		context.now
	)
	return page.rows.map((row) => ({ id: row.id, label: String(row.cells[cellKey(label)] ?? '') }))
}

/** What was typed, as constants; computed columns of a row that is not there yet are blank. */
function givenRow({ store, context }: Filling, table: Table, cells: readonly CellChange[]): GivenRow {
	const stored = new Map<number, StoredValue>(cells.map((cell) => [cell.column, readCell(store, table, cell, context)]))
	return {
		table,
		value(column) {
			const value = toValue(column, stored.get(column.id) ?? null)
			return isErrorValue(value) ? null : value
		}
	}
}
