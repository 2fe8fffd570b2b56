/** The rows behind a number: those that a figure or a column of a chart is made of, read as a list of them would be. */
import { columnsOfChart } from '$lib/core/app/lines/chart.ts'
import { columnsOfScatter } from '$lib/core/app/lines/scatter.ts'
import type { LineOf } from '$lib/core/app/lines/all.ts'
import { list } from '$lib/core/app/lines/list.ts'
import { findColumn, type Catalogue } from '$lib/core/model/table.ts'
import type { RowsBehind } from '$lib/core/requests/shown-rows.ts'
import { opensFor, seenColumns } from './shown/rows-of-line.ts'
import { tableOf, type View } from './shown/view.ts'

type Measured = LineOf<'figure' | 'chart' | 'scatter'>

/** A list of its rows: what they are known by, and what they are measured by. */
export function listBehind(line: Measured, catalogue: Catalogue): LineOf<'list'> {
	const table = catalogue.tables.get(line.table)
	const told = columnsToldBy(line)
	const columns = [table?.label ?? 0, ...told, line.kind === 'figure' ? (line.measure.column ?? 0) : 0].filter(
		(id) => table && findColumn(table, id)
	)
	const { id, where, once, opens } = line
	return {
		// A list as it begins, with what the line says of its rows.
		...(list.sentence.blank as unknown as LineOf<'list'>),
		...{ id, table: line.table, where, once, opens, columns: [...new Set(columns)] },
		filters: told
	}
}

/** By which its rows are narrowed down to those of one part of it. */
function columnsToldBy(line: Measured): number[] {
	if (line.kind === 'figure') return []
	return line.kind === 'chart' ? columnsOfChart(line) : columnsOfScatter(line)
}

/** What of those rows is shown to one person; undefined where that is nothing. */
export function rowsBehind(line: Measured, leftOut: number, view: View): RowsBehind | undefined {
	const table = tableOf(view, line.table)
	if (!table) return undefined
	const { columns } = listBehind(line, view.store.workspace().catalogue)
	return { columns: seenColumns(columns, table, view), opens: opensFor(line, view), leftOut }
}
