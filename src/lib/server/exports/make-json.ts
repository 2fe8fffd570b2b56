/** An array of records, one a line (RFC 8259). */
import { appendFile } from 'node:fs/promises'
import { cellKey } from '$lib/core/query/wire.ts'
import { toPlainCell, type FileHead, type Making } from './file-cell.ts'

export function makeJson({ columns }: FileHead, path: string): Making {
	let before = '[\n'
	return {
		async add(rows) {
			let text = ''
			for (const row of rows) {
				const cells = columns.map((column) => [column.name, toPlainCell(column, row.cells[cellKey(column.id)])])
				text += `${before}\t${JSON.stringify(Object.fromEntries(cells))}`
				before = ',\n'
			}
			await appendFile(path, text, { mode: 0o600 })
		},
		end: () => appendFile(path, before === '[\n' ? '[]\n' : '\n]\n', { mode: 0o600 })
	}
}
