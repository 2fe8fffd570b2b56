/** A table as a stream of CSV, with only what this reader sees. */
import { csvRecord, defuse, exportText } from '$lib/core/exchange/write-csv.ts'
import { cellKey } from '$lib/core/query/wire.ts'
import type { Host } from '../host.ts'
import type { Actor } from '../people/rights-of-actor.ts'

const PAGE = 1_000

export interface Exporting {
	readonly table: number
	readonly actor: Actor
	readonly now: number
	/** Makes cells plain that a spreadsheet would run. */
	readonly defused: boolean
}

export async function exportCsv(
	host: Host,
	{ table, actor, now, defused }: Exporting
): Promise<{ name: string; stream: ReadableStream } | undefined> {
	const head = await host.read('tableHead', { table, actor, now })
	if (!head) return undefined
	const encoder = new TextEncoder()
	const safe = defused ? defuse : (value: string) => value
	let after: string | undefined
	let started = false
	const stream = new ReadableStream({
		async pull(controller) {
			const request = { table, columns: head.columns.map((column) => column.id), limit: PAGE, after }
			const page = await host.read('rows', { actor, request, now })
			let text = started ? '' : `\ufeff${csvRecord(head.columns.map((column) => column.name))}`
			started = true
			for (const row of page.rows)
				text += csvRecord(
					head.columns.map((column) => safe(exportText(column as never, row.cells[cellKey(column.id)])))
				)
			controller.enqueue(encoder.encode(text))
			if (page.next === null) controller.close()
			else after = page.next
		}
	})
	return { name: head.name, stream }
}
