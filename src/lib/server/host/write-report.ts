/**
 * Writes reports and documents, one after the other: read with their reader's sight, made into a file where that is wanted, and
 * put on their page.
 */
import type { PagePart } from '$lib/core/requests/report.ts'
import { FILE_FORMATS, type FileFormat } from '$lib/core/exchange/file-formats.ts'
import type { Payload } from '../queue/queue.ts'
import type { MessageFile } from '../queue/messages.ts'
import { exportCsv } from '../downloads/export-csv.ts'
import { exportFile } from '../downloads/export-file.ts'
import type { FileStore } from '../files/file-store.ts'
import type { Imports } from '../imports/imports.ts'
import type { FileWanted } from '../routines/made-report.ts'
import type { Threads } from '../threads/threads.ts'

export interface ReportWriter {
	readonly host: Pick<Threads, 'read' | 'write' | 'now'>
	readonly imports: Pick<Imports, 'makeFile' | 'makePdf'>
	readonly files: Pick<FileStore, 'read'>
	/** A name for this run of the program. */
	readonly worker: string
}

const FORMATS: Readonly<Record<Extract<FileWanted, { kind: 'rows' }>['as'], FileFormat>> = {
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
		const file = made?.file ? await makeFile(writer, report, made.file) : null
		await host.write('finishReport', { job, report, worker, now: host.now(), made, file })
	} catch (error) {
		await host.write('putOffPosting', { job, worker, now: host.now(), error: String(error) })
	}
	return true
}

function makeFile(writer: ReportWriter, report: Payload<'report'>, wanted: FileWanted): Promise<MessageFile> {
	return wanted.kind === 'rows' ? makeTable(writer, report, wanted) : makePages(writer, wanted)
}

async function makeTable(
	{ host, imports }: ReportWriter,
	report: Payload<'report'>,
	{ as, name, columns }: Extract<FileWanted, { kind: 'rows' }>
): Promise<MessageFile> {
	const format = FORMATS[as]
	const now = host.now()
	const page = (after: string | undefined) => host.read('reportRows', { report, now, after })
	const asked = { name, columns, page }
	const stream =
		format === 'csv' || format === 'csv defused' ? exportCsv(asked, true) : await exportFile(imports, asked, format)
	const { ending, mediaType } = FILE_FORMATS[format]
	return { name: `${name}.${ending}`, mediaType, base64: await base64Of(stream) }
}

async function makePages(
	{ host, imports, files }: ReportWriter,
	{ name, pages }: Extract<FileWanted, { kind: 'pages' }>
): Promise<MessageFile> {
	const { name: workspace, timeZone } = await host.read('workspace', undefined)
	const day = new Intl.DateTimeFormat('en-GB', { dateStyle: 'long', timeZone }).format(host.now())
	const pictures = await readPictures(files, pages)
	const base64 = await imports.makePdf({ parts: pages, pictures, foot: `${workspace} · ${day}` })
	return { name: `${name}.pdf`, mediaType: 'application/pdf', base64 }
}

/** What is not there any more is named in the document. */
async function readPictures(files: ReportWriter['files'], pages: readonly PagePart[]): Promise<Record<string, string>> {
	const pictures: Record<string, string> = {}
	for (const part of pages) {
		const stream = part.kind === 'picture' ? await files.read(part.sha) : undefined
		if (part.kind === 'picture' && stream) pictures[part.sha] = await base64Of(stream)
	}
	return pictures
}

async function base64Of(stream: ReadableStream): Promise<string> {
	return Buffer.from(await new Response(stream).arrayBuffer()).toString('base64')
}
