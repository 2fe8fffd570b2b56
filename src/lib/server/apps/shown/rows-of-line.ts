/** What lines that show rows have in common: which of their columns, marks and ways on their reader gets. */
import type { LineOf, ScreenLine } from '$lib/core/app/lines/all.ts'
import { findColumn, type Column, type Table } from '$lib/core/model/table.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import type { ListMark } from '$lib/core/requests/shown-rows.ts'
import { describeColumns } from '../../rows/describe-columns.ts'
import { screenFor, type View } from './view.ts'

/** A column that its reader sees on some row; undefined where there is none, or it is not theirs to see. */
export function seenColumn(id: number | null, table: Table, { standing }: View): Column | undefined {
	const column = id === null ? undefined : findColumn(table, id)
	return column && standing.rights.mayPossibly('see', table, column) ? column : undefined
}

/** Those of some columns that its reader sees on some row, as a page knows them. */
export function seenColumns(ids: readonly number[], table: Table, view: View): ShownColumn[] {
	return describeColumns(
		table,
		ids.filter((id) => seenColumn(id, table, view))
	)
}

/** In their order: the first that holds of a row is shown. */
export function marksOf({ lines }: { readonly lines: readonly ScreenLine[] }): LineOf<'mark'>[] {
	return lines.filter((line) => line.kind === 'mark')
}

export function marksShown(line: { readonly lines: readonly ScreenLine[] }): ListMark[] {
	return marksOf(line).map(({ word, tone }) => ({ word, tone }))
}

/** The screen that a row opens, where its reader may open that. */
export function opensFor({ opens }: { readonly opens: string | null }, view: View): string | null {
	return opens !== null && screenFor(opens, view) ? opens : null
}
