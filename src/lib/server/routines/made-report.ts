/** A report or a document as it was made for its reader, before it is put on their page. */
import type { PagePart, ReportTable } from '$lib/core/requests/report.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import type { ATTACHED } from '$lib/core/sentence/slots/all.ts'

/** What is to come with a message: rows as a table, or pages. */
export type FileWanted =
	| {
			readonly kind: 'rows'
			readonly as: Exclude<(typeof ATTACHED)[number], 'a PDF file'>
			readonly name: string
			readonly columns: readonly ShownColumn[]
	  }
	| { readonly kind: 'pages'; readonly name: string; readonly pages: readonly PagePart[] }

export interface MadeReport {
	readonly subject: string
	readonly body: string
	readonly link: string | null
	/** The table that it is mostly about; null for none. */
	readonly table: number | null
	/** Which columns are in it, by name. */
	readonly what: string
	/** How many rows they see, counted up to one more than leave as a file. */
	readonly rows: number
	/** What its message shows. */
	readonly shown: ReportTable | null
	readonly file: FileWanted | null
}
