import type { LineOf } from '$lib/core/app/lines/all.ts'
import { columnsOfSheet, partsOf } from '$lib/core/app/lines/record.ts'
import type { Table } from '$lib/core/model/table.ts'
import type { ShownLine } from '$lib/core/requests/screens.ts'
import { nameKey } from '$lib/core/text/key.ts'
import { isNever } from '$lib/core/formula/syntax/constant.ts'
import { describeColumns } from '../../rows/describe-columns.ts'
import { readRows } from '../../rows/read.ts'
import { caseOfRow } from '../../signoffs/cases.ts'
import { isFor } from '../for-whom.ts'
import { tallyOnRow } from './tally.ts'
import { tableOf, type ShownAs, type View } from './view.ts'

type RecordLine = LineOf<'record'>

export const record: ShownAs<RecordLine> = {
	holdsSomething: seesRows,
	show(line, view) {
		const { store, request } = view
		const table = tableOf(view, line.table)
		const id = line.held === '' ? request.row : heldId(line.held, table, view)
		if (!table || (id === undefined && line.held === '')) return []
		if (id === undefined) return [waiting(line, table)]
		const columns = [...new Set([table.label, ...columnsOfSheet(line)])]
		const asked = { table: table.id, columns, row: id, offers: true }
		const page = readRows(store, request.actor, asked, request.now)
		const n = store.ids.fromId(table.id, id)
		const signoff =
			page.rows[0] && n !== undefined ? caseOfRow(store, { table: table.id, n, actor: request.actor }) : null
		const described = describeColumns(table, page.columns)
		const parts = partsOf(line.lines).flatMap((part) => {
			const held = described.filter((column) => part.columns.includes(column.id))
			return isFor(part, view.standing) && held.length > 0 ? [{ id: part.id, title: part.title, columns: held }] : []
		})
		const inParts = new Set(partsOf(line.lines).flatMap((part) => part.columns))
		const own = described.filter((column) => column.id === table.label || !inParts.has(column.id))
		const shown = { columns: own, parts, row: page.rows[0] ?? null, signoff }
		const tallies = line.lines.flatMap((each) =>
			each.kind === 'tally' && isFor(each, view.standing) ? tallyOnRow(each, view, id) : []
		)
		return [{ ...waiting(line, table), waits: false, ...shown, tallies }]
	}
}

/** The row that is chosen, whoever sees it, or what the screen holds from the start. */
function heldId(name: string, table: Table | undefined, { store, here, request }: View): string | undefined {
	const given = Object.entries(request.held ?? {}).find(([each]) => nameKey(each) === nameKey(name))?.[1]
	const n = here.get(nameKey(name))?.value
	return given ?? (table && typeof n === 'number' ? store.ids.toId(table.id, n) : undefined)
}

/** Before a row is chosen. */
function waiting({ id, across }: RecordLine, table: Table): Extract<ShownLine, { kind: 'record' }> {
	const none = { columns: [], parts: [], tallies: [], row: null, signoff: null, waits: true }
	const isWide = across !== null
	return { id, kind: 'record', table: table.id, title: table.name, label: table.label, isWide, ...none }
}

/** Whether this person may see any row of the line's table. */
export function seesRows({ table: id }: { readonly table: number }, view: View): boolean {
	const table = tableOf(view, id)
	return table !== undefined && !isNever(view.standing.rights.rows(table))
}
