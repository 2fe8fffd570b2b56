/** Makes a file in the thread that reads files, and gives it to be sent; nothing of it stays on disk. */
import { mkdir, open, rm } from 'node:fs/promises'
import { randomUUID } from 'node:crypto'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import type { WireRow } from '$lib/core/query/wire.ts'
import type { FileToMake } from '../exports/make-file.ts'
import type { Importer } from './importer.ts'

export type FileAsked = Omit<FileToMake, 'path'>

/** @param folder where it lies while it is made */
export async function makeFile(
	importer: Importer,
	folder: string,
	file: FileAsked,
	pages: AsyncIterable<readonly WireRow[]>
): Promise<ReadableStream> {
	await mkdir(folder, { recursive: true, mode: 0o700 })
	const path = join(folder, randomUUID())
	try {
		await importer.beginFile({ ...file, path })
		try {
			for await (const rows of pages) await importer.addToFile(path, rows)
		} finally {
			await importer.endFile(path)
		}
		const made = await open(path)
		// What Node streams is what a response sends; only their types differ.
		return Readable.toWeb(made.createReadStream()) as ReadableStream
	} finally {
		// What is open stays readable after its name is gone.
		await rm(path, { force: true })
	}
}
