/** The formats in which rows leave. A new one is an entry here and, unless it is streamed as CSV is, a maker in `server/exports`. */

/** Made whole, page by page, before it is sent. */
export type MadeFormat = 'xlsx' | 'ods' | 'json' | 'sqlite'
export type FileFormat = 'csv' | 'csv defused' | MadeFormat

interface FormatEntry {
	/** As a menu offers it. */
	readonly words: string
	/** What the file's name ends in. */
	readonly ending: string
	/** As IANA registered it. */
	readonly mediaType: string
	/** How many rows such a file takes. */
	readonly mostRows: number
}

/** A sheet holds 1,048,576 rows, its headings among them (ECMA-376). */
const ROWS_OF_SHEET = 1_048_575

const CSV = { ending: 'csv', mediaType: 'text/csv; charset=utf-8', mostRows: Infinity }

/** In the order in which they are offered. */
export const FILE_FORMATS: Readonly<Record<FileFormat, FormatEntry>> = {
	csv: { words: 'CSV', ...CSV },
	'csv defused': { words: 'CSV, safe to open in a spreadsheet', ...CSV },
	xlsx: {
		words: 'Workbook (XLSX)',
		ending: 'xlsx',
		mediaType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
		mostRows: ROWS_OF_SHEET
	},
	ods: {
		words: 'Workbook (ODS)',
		ending: 'ods',
		mediaType: 'application/vnd.oasis.opendocument.spreadsheet',
		mostRows: ROWS_OF_SHEET
	},
	json: { words: 'JSON', ending: 'json', mediaType: 'application/json', mostRows: Infinity },
	sqlite: { words: 'SQLite file', ending: 'sqlite', mediaType: 'application/vnd.sqlite3', mostRows: Infinity }
}
