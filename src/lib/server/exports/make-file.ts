/** Makes a file of an open format from rows as they travelled, page by page. Runs in an importer's thread, away from everything that must answer quickly. */
import type { FileHead, Making } from './file-cell.ts'
import { makeJson } from './make-json.ts'
import { makeOds } from './make-ods.ts'
import { makeSqlite } from './make-sqlite.ts'
import { makeXlsx } from './make-xlsx.ts'

export const FILE_FORMATS = ['xlsx', 'ods', 'json', 'sqlite'] as const
export type FileFormat = (typeof FILE_FORMATS)[number]

export interface FileToMake extends FileHead {
	readonly format: FileFormat
	/** Where it is to lie; made by the program, never by a person. */
	readonly path: string
}

const MAKERS: Readonly<Record<FileFormat, (head: FileHead, path: string) => Making>> = {
	xlsx: makeXlsx,
	ods: makeOds,
	json: makeJson,
	sqlite: makeSqlite
}

export function beginFile({ format, path, ...head }: FileToMake): Making {
	return MAKERS[format](head, path)
}
