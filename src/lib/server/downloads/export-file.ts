/** A table or list as a file of an open format, with only what its reader sees: made page by page on disk, then sent. */
import { AppError } from '$lib/core/app-error.ts'
import type { WireRow } from '$lib/core/query/wire.ts'
import type { Imports } from '../imports/imports.ts'
import type { FileFormat } from '../exports/make-file.ts'
import type { ToExport } from './to-export.ts'

export const FILE_TYPES: Readonly<Record<FileFormat, string>> = {
	xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
	ods: 'application/vnd.oasis.opendocument.spreadsheet',
	json: 'application/json',
	sqlite: 'application/vnd.sqlite3'
}

/** A sheet holds 1,048,576 rows, its headings among them (ECMA-376). */
const MOST_ROWS: Readonly<Record<FileFormat, number>> = {
	xlsx: 1_048_575,
	ods: 1_048_575,
	json: Infinity,
	sqlite: Infinity
}

export function exportFile(imports: Imports, asked: ToExport, format: FileFormat): Promise<ReadableStream> {
	const { name, columns } = asked
	return imports.makeFile({ name, columns, format }, readPages(asked, format))
}

async function* readPages({ page }: ToExport, format: FileFormat): AsyncGenerator<readonly WireRow[]> {
	const most = MOST_ROWS[format]
	let count = 0
	let after: string | undefined
	do {
		const { rows, next } = await page(after)
		count += rows.length
		if (count > most) {
			const message = `There are more than ${most.toLocaleString('en-GB')} rows, which is more than such a file takes. Export them as CSV.`
			throw new AppError('invalid', message)
		}
		yield rows
		after = next ?? undefined
	} while (after !== undefined)
}
