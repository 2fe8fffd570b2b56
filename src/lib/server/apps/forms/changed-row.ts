/** The row that a form changes, as whoever fills it in sees it. */
import type { LineOf } from '$lib/core/app/lines/all.ts'
import type { CellChange } from '$lib/core/query/change.ts'
import { cellKey, isErrorCell, isFileCell, isHiddenCell, isReferenceCell, type WireCell } from '$lib/core/query/wire.ts'
import { readRows } from '../../rows/read.ts'
import { caseOfRow } from '../../signoffs/cases.ts'
import type { Store } from '../../store/store.ts'
import type { ViewRequest } from '../shown/view.ts'

export interface ChangedRow {
	readonly id: string
	/** What they see there, by column. */
	readonly cells: ReadonlyMap<number, WireCell>
	/** The columns that they may change. */
	readonly may: readonly number[]
}

/** Undefined where the form only adds, where no row is shown, or where it is not theirs to see; closed by a sign-off it lets nothing be changed. */
export function changedRow(
	store: Store,
	{ changes, table: id }: LineOf<'form'>,
	{ row, actor, now }: Pick<ViewRequest, 'row' | 'actor' | 'now'>
): ChangedRow | undefined {
	const table = store.workspace().catalogue.tables.get(id)
	const n = table && row !== undefined ? store.ids.fromId(table.id, row) : undefined
	if (changes === null || !table || row === undefined || n === undefined) return undefined
	const columns = table.columns.map((column) => column.id)
	const [seen] = readRows(store, actor, { table: table.id, columns, row, offers: true }, now).rows
	if (!seen) return undefined
	const isClosed = caseOfRow(store, { table: table.id, n, actor }) !== null
	const cells = columns.flatMap((column) => {
		const cell = seen.cells[cellKey(column)]
		return cell === undefined ? [] : [[column, cell] as const]
	})
	return { id: row, cells: new Map(cells), may: isClosed ? [] : (seen.may?.change ?? []) }
}

/** What stands in it, as its cells would be sent; what is not seen of it is blank. */
export function cellsOf({ cells }: ChangedRow): CellChange[] {
	return [...cells].flatMap(([column, cell]) => {
		const value = toInput(cell)
		return value === undefined ? [] : [{ column, value }]
	})
}

function toInput(cell: WireCell): CellChange['value'] | undefined {
	if (isReferenceCell(cell)) return { id: cell.id }
	if (isFileCell(cell)) return { file: cell.file.sha }
	if (isHiddenCell(cell) || isErrorCell(cell)) return undefined
	return typeof cell === 'object' && cell !== null ? undefined : cell
}
