/** What of access a builder should have looked at before a release: columns that decide it, and those that are vouched. */
import type { DecidingColumn } from '../access/deciding.ts'
import type { Finding } from '../document/findings.ts'
import type { Catalogue, Column, Table } from '../model/table.ts'
import { writingsOf } from '../routine/step-tree.ts'
import type { AppDocument } from './document.ts'
import { entryOfLine } from './lines/all.ts'
import { allLines } from './lines/tree.ts'
import { tablesOf } from './walk-app.ts'

/**
 * Findings of the release check about access: columns written here that decide rows or roles, and vouched ones in use.
 */
export function checkAccess(
	document: AppDocument,
	{ catalogue, deciding }: { catalogue: Catalogue; deciding: readonly DecidingColumn[] }
): Finding[] {
	const used = new Set(tablesOf(document).map(({ table }) => table))
	const written = new Set(columnsWritten(document))
	const decides = deciding
		.filter(({ table, column }) => used.has(table.id) && written.has(column.id))
		.map(({ table, column }) =>
			remark(
				table,
				column,
				'This app can write it, and lines of access read it: whoever changes it changes who sees the row.'
			)
		)
	const vouched = [...used].flatMap((id) => {
		const table = catalogue.tables.get(id)
		if (!table) return []
		const columns = table.columns.filter((column) => column.computed?.vouched)
		return columns.map((column) =>
			remark(table, column, 'It counts every row, whoever looks: its keeper vouches for it.')
		)
	})
	return [...decides, ...vouched]
}

function remark(table: Table, column: Column, message: string): Finding {
	return { weight: 'remark', place: `${table.name}, ${column.name}`, message, spot: { bay: 'access', table: table.id } }
}

/** Columns that a form asks for, a record sheet shows to be changed, or a routine sets. */
function columnsWritten({ screens, routines }: AppDocument): number[] {
	const lines = screens.flatMap((screen) => allLines(screen.lines))
	return [
		...lines.flatMap((line) => entryOfLine(line).written(line)),
		...routines.flatMap((routine) => writingsOf(routine).flatMap(({ columns }) => columns))
	]
}
