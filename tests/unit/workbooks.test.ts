/**
 * Workbooks as office programs and libraries write them (LibreOffice 7.4, exceljs, SheetJS), each with what must be found in
 * it: heading rows, rows that are no data, the column that rows go by, types, and values cell by cell.
 */
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { expect, test } from 'vitest'
import { checkWorkbook, type WorkbookFile } from '../check-values/workbooks.ts'

const index = fileURLToPath(new URL('../checks/workbooks/index.json', import.meta.url))
const { files } = JSON.parse(readFileSync(index, 'utf8')) as { files: WorkbookFile[] }

test.each(files.map((file) => [file.file, file] as const))('%s', async (_name, file) => {
	for (const { id, short } of await checkWorkbook(file, index)) expect([id, short]).toEqual([id, undefined])
})
