/** A table or list as a stream of CSV, with only what its reader sees. */
import { csvRecord, defuse, exportText } from '$lib/core/exchange/write-csv.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import type { RowsToExport } from './to-export.ts'

/** `defused`: cells that a spreadsheet would run are made plain. */
export function exportCsv({ columns, page }: RowsToExport, defused: boolean): ReadableStream {
	const encoder = new TextEncoder()
	const safe = defused ? defuse : (value: string) => value
	let after: string | undefined
	let started = false
	return new ReadableStream({
		async pull(controller) {
			const { rows, next } = await page(after)
			let text = started
				? ''
				: `\ufeff${csvRecord(columns.map(({ name, unit }) => (unit ? `${name} (${unit})` : name)))}`
			started = true
			for (const row of rows)
				text += csvRecord(columns.map((column) => safe(exportText(column, row.cells[cellKey(column.id)]))))
			controller.enqueue(encoder.encode(text))
			if (next === null) controller.close()
			else after = next
		}
	})
}
