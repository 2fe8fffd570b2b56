/** Looks at a file that was given in: its first rows as they are, where its headings stand, what its columns are. */
import { findHeadings, nameColumns } from '$lib/core/exchange/headings.ts'
import { inferColumn, type ColumnGuess } from '$lib/core/exchange/infer.ts'
import { AppError } from '$lib/core/app-error.ts'
import { openFile } from './open-file.ts'

export interface InspectRequest {
	readonly path: string
	readonly name: string
	readonly sheet?: string | undefined
	/** Counted from 0; undefined proposes. */
	readonly headingRow?: number | null | undefined
	readonly firstRow?: number | undefined
}

export interface Inspection {
	readonly sheets: readonly string[]
	readonly sheet: string
	readonly headingRow: number | null
	readonly firstRow: number
	readonly rowCount: number
	/** The first rows of the sheet, as they stand. */
	readonly head: readonly (readonly string[])[]
	readonly columns: readonly ColumnGuess[]
	/** The column by which a row is most likely known. */
	readonly label: number
}

const SHOWN_ROWS = 60

export async function inspectFile({ path, name, sheet, headingRow, firstRow }: InspectRequest): Promise<Inspection> {
	const { sheets } = await openFile(path, name)
	const chosen = sheets.find((each) => each.name === sheet) ?? sheets[0]
	if (!chosen) throw new AppError('invalid', `${name} holds no filled sheet.`)
	const found = findHeadings(chosen.rows)
	const heading = headingRow === undefined ? found.headingRow : headingRow
	const first = Math.max(
		firstRow ?? (headingRow === undefined ? found.firstRow : (heading ?? -1) + 1),
		(heading ?? -1) + 1
	)
	const rows = chosen.rows.slice(first)
	const width = Math.max(0, ...chosen.rows.slice(0, 1000).map((row) => row.length))
	const names = nameColumns(heading === null ? undefined : chosen.rows[heading], width)
	const columns = names.map((each, i) =>
		inferColumn(
			each,
			rows.map((row) => row[i] ?? ''),
			first + 1
		)
	)
	return {
		sheets: sheets.map((each) => each.name),
		sheet: chosen.name,
		headingRow: heading,
		firstRow: first,
		rowCount: rows.filter((row) => row.some((cell) => cell.trim() !== '')).length,
		head: chosen.rows.slice(0, SHOWN_ROWS),
		columns,
		label: proposeLabel(columns, rows)
	}
}

/** The first column whose values are all there and all different. */
function proposeLabel(columns: readonly ColumnGuess[], rows: readonly (readonly string[])[]): number {
	const sample = rows.slice(0, 5000)
	const unique = columns.findIndex((column, i) => {
		if (column.blank || !['text', 'code', 'whole number'].includes(column.type)) return false
		const values = sample.map((row) => (row[i] ?? '').trim().toLowerCase()).filter((value) => value !== '')
		return values.length === sample.length && new Set(values).size === values.length
	})
	return unique >= 0
		? unique
		: Math.max(
				0,
				columns.findIndex((column) => !column.blank)
			)
}
