/** Makes a file of an open format from rows as they travelled, page by page. Runs in an importer's thread, away from everything that must answer quickly. */
import type { MadeFormat } from '$lib/core/exchange/file-formats.ts'
import type { FileHead, Making } from './file-cell.ts'
import { makeJson } from './make-json.ts'
import { makeOds } from './make-ods.ts'
import { makeSqlite } from './make-sqlite.ts'

export interface FileToMake extends FileHead {
	readonly format: MadeFormat
	/** Where it is to lie; made by the program, never by a person. */
	readonly path: string
}

const MAKERS: Readonly<Record<MadeFormat, (head: FileHead, path: string) => Making | Promise<Making>>> = {
	// Loaded when it is wanted: its library takes longer to load than all else that this thread needs together.
	xlsx: async (head, path) => (await import('./make-xlsx.ts')).makeXlsx(head, path),
	ods: makeOds,
	json: makeJson,
	sqlite: makeSqlite
}

/** A file of one format that takes rows as they come; it lies at `path` once it is closed. */
export async function beginFile({ format, path, ...head }: FileToMake): Promise<Making> {
	return MAKERS[format](head, path)
}
