/** A table as a file of an open format, with only what this reader sees: made page by page on disk, then sent. */
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
/** A sheet holds 1,048,576 rows, its headings among them (ECMA-376); one of ODS is made whole, in memory. */
const MOST_ROWS: Readonly<Record<FileFormat, number>> = {
	xlsx: 1_048_575,
	ods: 200_000,
	json: Infinity,
	sqlite: Infinity
}

/** Undefined where this person sees nothing of the table. */
export async function exportFile(
	host: Pick<Host, 'read' | 'imports'>,
	{ table, format, actor, now }: Exporting
): Promise<{ name: string; stream: ReadableStream } | undefined> {
	const head = await host.read('tableHead', { table, actor, now })
	if (!head) return undefined
	const pages = readPages(host, { table, columns: head.columns.map((column) => column.id), actor, now, format })
	return { name: `${head.name}.${format}`, stream: await host.imports.makeFile({ ...head, format }, pages) }
}

interface Reading extends Exporting {
	readonly columns: readonly number[]
}

async function* readPages(
	host: Pick<Host, 'read'>,
	{ table, columns, actor, now, format }: Reading
): AsyncGenerator<readonly WireRow[]> {
	const most = MOST_ROWS[format]
	let count = 0
	let after: string | undefined
	do {
		const page = await host.read('rows', { actor, request: { table, columns, limit: PAGE, after }, now })
		count += page.rows.length
		if (count > most) {
			const message = `There are more than ${most.toLocaleString('en-GB')} rows, which is more than such a file takes. Export them as CSV.`
			throw new AppError('invalid', message)
		}
		yield page.rows
		after = page.next ?? undefined
	} while (after !== undefined)
}
