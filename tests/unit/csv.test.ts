import { readFileSync } from 'node:fs'
import { describe, expect, test } from 'vitest'
import { checkCsvRow, type CsvRow } from '../check-values/csv.ts'

/** Raw records of small files, confirmed by two CSV libraries (csv-spectrum 2.0.0 among their sources). */
const { rows } = JSON.parse(readFileSync(new URL('../checks/csv.json', import.meta.url), 'utf8')) as { rows: CsvRow[] }

const DIFFERENT: Readonly<Record<string, string>> = {
	C017: 'A file that mixes line ends is read by its first kind.',
	C028: 'What stands behind a closing quote is kept with the cell.',
	C052: 'The line that only names the separator is no record here.',
	C066: 'A nought byte is taken out before reading: SQL text cannot hold it.'
}

describe('records of delimited text', () => {
	test.each(rows.filter((row) => !(row.id in DIFFERENT)).map((row) => [row.id, row] as const))('%s', (_id, row) => {
		expect(checkCsvRow(row).short).toBeUndefined()
	})
})
