import type { AppDocument } from '$lib/core/app/document.ts'
import { entryOfLine } from '$lib/core/app/lines/all.ts'
import { allLines } from '$lib/core/app/lines/tree.ts'
import { rollupSortPlace } from '$lib/core/formula/sql/rollups.ts'
import { isStored } from '$lib/core/table/storage.ts'
import { findColumn } from '$lib/core/model/table.ts'
import type { Store } from '../store/store.ts'
import { createIndex } from '../store/schema.ts'

/** Columns that a released list is sorted by get an index, so that its first page does not read the whole table. */
export function indexSorts(store: Store, document: AppDocument): void {
	const { catalogue } = store.workspace()
	for (const screen of document.screens) {
		for (const line of allLines(screen.lines)) {
			const order = entryOfLine(line).order(line)
			const table = order && catalogue.tables.get(order.table)
			const column = table && findColumn(table, order.column)
			if (table && column && (isStored(column) || rollupSortPlace(column))) createIndex(store.db, table, column)
		}
	}
}
