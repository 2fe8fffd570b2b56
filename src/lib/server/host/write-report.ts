/** Writes reports, one after the other: read with their reader's sight, made into a file where that is wanted, and put on their page. */
import { ATTACHED } from '$lib/core/sentence/slots/all.ts'
import { FILE_FORMATS, type FileFormat } from '$lib/core/exchange/file-formats.ts'
import type { Payload } from '../queue/queue.ts'
import type { MessageFile } from '../queue/messages.ts'
import { exportCsv } from '../downloads/export-csv.ts'
import { exportFile } from '../downloads/export-file.ts'
import type { Imports } from '../imports/imports.ts'
import { MOST_IN_FILE, type MadeReport } from '../routines/make-report.ts'
import type { Threads } from '../threads/threads.ts'

export interface ReportWriter {
	readonly host: Pick<Threads, 'read' | 'write' | 'now'>
	readonly imports: Pick<Imports, 'makeFile'>
	/** A name for this run of the program. */
	readonly worker: string
}

const FORMATS: Readonly<Record<(typeof ATTACHED)[number], FileFormat>> = {
	'an XLSX file': 'xlsx',
	'an ODS file': 'ods',
	// Whoever gets it opens it in a spreadsheet.
	'a CSV file': 'csv defused'
}

/** False where none is due. One that fails is tried again later. */
export async function writeReport(writer: ReportWriter): Promise<boolean> {
	const { host, worker } = writer
	const claimed = await host.write('claimReport', { worker, now: host.now() })
	if (!claimed) return false
	const { job, report } = claimed
	try {
		const made = await host.read('makeReport', { report, now: host.now() })
		const file = made && (await fileOf(writer, report, made))
		await host.write('finishReport', { job, report, worker, now: host.now(), made, file })
	} catch (error) {
		await host.write('putOffPosting', { job, worker, now: host.now(), error: String(error) })
	}
	return true
}

/** Null where none is wanted, or it would be larger than what leaves by mail: the message says how many rows there are. */
async function fileOf(
	{ host, imports }: ReportWriter,
	report: Payload<'report'>,
	{ table, name, columns, rows }: MadeReport
): Promise<MessageFile | null> {
	const attached = report.step.attached ?? undefined
	if (attached === undefined || rows > MOST_IN_FILE) return null
	const format = FORMATS[attached]
	const now = host.now()
	const page = (after: string | undefined) => host.read('reportRows', { report, now, after })
	const asked = { table, name, columns, page }
	const stream =
		format === 'csv' || format === 'csv defused' ? exportCsv(asked, true) : await exportFile(imports, asked, format)
	const bytes = Buffer.from(await new Response(stream).arrayBuffer())
	const { ending, mediaType } = FILE_FORMATS[format]
	return { name: `${name}.${ending}`, mediaType, base64: bytes.toString('base64') }
}
