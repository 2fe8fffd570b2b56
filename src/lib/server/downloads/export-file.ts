/** A table or list as a file of an open format, with only what its reader sees: made page by page on disk, then sent. */
import { AppError } from '$lib/core/app-error.ts'
import { FILE_FORMATS, type MadeFormat } from '$lib/core/exchange/file-formats.ts'
import type { WireRow } from '$lib/core/query/wire.ts'
import type { Imports } from '../imports/imports.ts'
import type { RowsToExport } from './to-export.ts'

export function exportFile(
	imports: Pick<Imports, 'makeFile'>,
	asked: RowsToExport,
	format: MadeFormat
): Promise<ReadableStream> {
	const { name, columns } = asked
	return imports.makeFile({ name, columns, format }, readPages(asked, format))
}

async function* readPages({ page }: RowsToExport, format: MadeFormat): AsyncGenerator<readonly WireRow[]> {
	const most = FILE_FORMATS[format].mostRows
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
