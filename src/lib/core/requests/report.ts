/** What a report shows of rows: as its reader saw them when it was written. */

export interface ReportTable {
	/** Of the table, or of what was counted. */
	readonly title: string
	readonly heads: readonly { readonly name: string; readonly isNumber: boolean }[]
	readonly rows: readonly (readonly string[])[]
	/** What all rows come to; blank where nothing is added up. */
	readonly foot: readonly string[]
	/** How many more there are than are shown. */
	readonly more: number
	/** What is not in it; blank where all is. */
	readonly note: string
}

/** What a page holds, as its reader saw it: pictures by the digest of their bytes. */
export type PagePart =
	| { readonly kind: 'heading' | 'words'; readonly text: string }
	| { readonly kind: 'values'; readonly values: readonly { readonly name: string; readonly text: string }[] }
	| { readonly kind: 'rows'; readonly table: ReportTable }
	| { readonly kind: 'picture'; readonly name: string; readonly sha: string; readonly type: string }

/** Under the rows; blank where all is shown. `inFile`: whether they are all in the file that comes with it. */
export function underReport({ rows, more, note }: Omit<ReportTable, 'title'>, inFile: boolean): string {
	const none = rows.length === 0 && more === 0 ? ['There are none'] : []
	const rest = more === 0 ? [] : [`and ${more.toLocaleString('en-GB')} more${inFile ? ', in the file' : ''}`]
	return [...none, ...rest, ...(note === '' ? [] : [note])].join('; ')
}

/** As lines of text, for who reads mail without HTML. */
export function reportText(report: ReportTable, inFile: boolean): string {
	const { heads, rows, foot } = report
	const lines = [heads.map(({ name }) => name), ...rows, ...(foot.length > 0 ? [foot] : [])]
	const under = underReport(report, inFile)
	return [...lines.map((cells) => cells.map((cell) => cell || '–').join(' · ')), ...(under ? [under] : [])].join('\n')
}
