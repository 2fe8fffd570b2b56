import type { Line } from '../../access/types.ts'
import type { Table } from '../../model/table.ts'
import { remark, type Found } from '../../document/findings.ts'

/** For a line that shows rows of a table. */
export function remarkUnseen(table: Table, lines: readonly Line[]): Found[] {
	const seen = lines.some((line) => line.table === table.id && line.verbs.includes('see'))
	return seen ? [] : remark(`No line of access lets anybody see ${table.name}, so this stays empty.`)
}
