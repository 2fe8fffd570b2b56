/** A table as a file of an open format, with only what this reader sees. CSV streams by itself; these are made whole. */
import { AppError } from '$lib/core/app-error.ts'
import type { WireRow } from '$lib/core/query/wire.ts'
import type { Host } from '../host.ts'
import type { Actor } from '../people/rights-of-actor.ts'
import type { FileFormat } from './make-file.ts'

interface Exporting {
	readonly table: number
	readonly format: FileFormat
	readonly actor: Actor
	readonly now: number
}

export const FILE_TYPES: Readonly<Record<FileFormat, string>> = {
	xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
	ods: 'application/vnd.oasis.opendocument.spreadsheet',
	json: 'application/json',
	sqlite: 'application/vnd.sqlite3'
}

const PAGE = 1_000
/** A sheet holds 1,048,576 rows (ECMA-376), but one of so many cells takes a gigabyte to make. */
const MOST_ROWS = 200_000

/** Undefined where this person sees nothing of the table. */
export async function exportFile(
	host: Pick<Host, 'read' | 'imports'>,
	{ table, format, actor, now }: Exporting
): Promise<{ name: string; bytes: Uint8Array<ArrayBuffer> } | undefined> {
	const head = await host.read('tableHead', { table, actor, now })
	if (!head) return undefined
	const rows: WireRow[] = []
	let after: string | undefined
	do {
		const request = { table, columns: head.columns.map((column) => column.id), limit: PAGE, after }
		const page = await host.read('rows', { actor, request, now })
		rows.push(...page.rows)
		if (rows.length > MOST_ROWS)
			throw new AppError(
				'invalid',
				`There are more than ${MOST_ROWS.toLocaleString('en-GB')} rows. Export them as CSV.`
			)
		after = page.next ?? undefined
	} while (after !== undefined)
	return { name: `${head.name}.${format}`, bytes: await host.imports.makeFile({ ...head, rows, format }) }
}
