/** What can be chosen among: rows of a table, or the values of a column, as one person sees them. */
import { findColumn, type Column, type Table } from '$lib/core/model/table.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import type { ShownChoices } from '$lib/core/requests/screens.ts'
import { describeColumns } from '../../rows/describe-columns.ts'
import { readGroups } from '../../rows/read-groups.ts'
import { readRows } from '../../rows/read.ts'
import type { View } from './view.ts'

/** More than anybody looks through; what there is of them is said. */
const MOST = 200

export function rowsToChoose(table: Table, where: string, { store, request, here }: View): ShownChoices | undefined {
	const { actor, now } = request
	const asked = { table: table.id, columns: [table.label], where: [where], here }
	const sort = { column: table.label, descending: false }
	const { rows, next } = readRows(store, actor, { ...asked, sort, limit: MOST }, now)
	const [column] = describeColumns(table, [table.label])
	if (!column || rows.length === 0) return undefined
	const options = rows.map((row) => ({ value: row.id, cell: row.cells[cellKey(table.label)] ?? null }))
	return { column, options, isCut: next !== null }
}

/** Undefined for who sees the column on no row. */
export function valuesToChoose(table: Table, id: number, view: View): ShownChoices | undefined {
	const column = findColumn(table, id)
	if (!column || !view.standing.rights.mayPossibly('see', table, column)) return undefined
	const target = column.type === 'reference' ? view.store.workspace().catalogue.tables.get(column.to ?? 0) : undefined
	if (target) return rowsToChoose(target, '', view)
	const [described] = describeColumns(table, [id])
	if (!described) return undefined
	return {
		column: described,
		...(isText(column) ? textsOf(table, id, view) : { options: valuesOf(column), isCut: false })
	}
}

function isText({ type }: Column): boolean {
	return type === 'text' || type === 'code'
}

/** What stands there by now, the most frequent of it, by letter. */
function textsOf(table: Table, column: number, { store, request }: View): Pick<ShownChoices, 'options' | 'isCut'> {
	const { actor, now } = request
	const found = readGroups(store, { actor, request: { table: table.id }, column, now })
	const texts = (found?.groups ?? []).map(({ value }) => String(value)).sort((a, b) => a.localeCompare(b, 'en'))
	return { options: texts.map((value) => ({ value, cell: value })), isCut: texts.length < (found?.values ?? 0) }
}

/** Those of a date and of a number are typed. */
function valuesOf({ type, choices }: Column): ShownChoices['options'] {
	if (type === 'yes/no') return ['yes', 'no'].map((value) => ({ value, cell: value === 'yes' }))
	return (choices ?? []).map((value) => ({ value, cell: value }))
}
