/** Workbooks of both open standards: told apart by what lies in their archive, and streamed from it. */
import type { Archive } from './archive.ts'
import { openArchive } from './archive.ts'
import { readOds } from './read-ods.ts'
import { readXlsx } from './read-xlsx.ts'
import { refusedFile, type OpenedFile, type Sheet } from '../sheet.ts'
import { AppError } from '$lib/core/app-error.ts'

/** The most that a workbook may unfold to: a sheet of half a million rows of twelve columns has a third of it. */
const MAX_UNPACKED = 1_000 * 1024 * 1024

export async function openWorkbook(path: string, name: string): Promise<OpenedFile> {
	const damaged = () => refusedFile(`${name} is damaged. Open it in your spreadsheet and save it again.`)
	const archive = await openArchive(path, MAX_UNPACKED)
	if (archive === 'damaged') throw damaged()
	if (archive === 'too large')
		throw refusedFile(
			`${name} unfolds to more than fits. Open it in your spreadsheet and save the sheet that you need as CSV.`
		)
	try {
		const sheets = await readSheets(archive, name)
		if (sheets.length === 0) throw refusedFile(`${name} holds no filled sheet. Nothing was brought in.`)
		const guarded = sheets.map((sheet) => ({ ...sheet, batches: () => refusing(sheet.batches(), damaged) }))
		return { kind: 'workbook', sheets: guarded, close: () => archive.close() }
	} catch (error) {
		archive.close()
		throw error instanceof AppError ? error : damaged()
	}
}

async function readSheets(archive: Archive, name: string): Promise<Sheet[]> {
	if (archive.has('xl/workbook.xml')) return readXlsx(archive)
	if (!archive.has('content.xml'))
		throw refusedFile(`${name} is an archive, but no workbook. Take out of it what you need, and bring that in.`)
	if (await isLocked(archive))
		throw refusedFile(`${name} is locked with a password. Save it again as .xlsx or .ods without a password.`)
	return readOds(archive)
}

/** An OpenDocument file keeps its entries' names when it is locked (ODF 1.3, part 2, 3.4 and 4.8). */
async function isLocked(archive: Archive): Promise<boolean> {
	let manifest = ''
	for await (const piece of archive.pieces('META-INF/manifest.xml')) manifest += piece
	return /<(?:\w+:)?encryption-data\b/.test(manifest)
}

/** What goes wrong half way, in the reader's words. */
async function* refusing<T>(batches: AsyncGenerator<T> | Generator<T>, damaged: () => AppError): AsyncGenerator<T> {
	try {
		yield* batches
	} catch (error) {
		throw error instanceof AppError ? error : damaged()
	}
}
