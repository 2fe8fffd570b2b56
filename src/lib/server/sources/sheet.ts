import { AppError } from '$lib/core/app-error.ts'

/** A part of a file that can become a table: a sheet, a table of a database, or the whole of a text. */
export interface Sheet {
	readonly name: string
	/** Its rows from the first on, in batches; read anew each time. */
	batches(): AsyncGenerator<RowBatch> | Generator<RowBatch>
	/** What the file itself says: the column names, by which column its rows are known, and which name rows of other sheets. */
	readonly said?: {
		readonly columns: readonly string[]
		readonly key: number | undefined
		readonly references?: readonly SaidReference[]
	}
	/** What of it is no part of the table, in the reader's words; all of it once its rows have been read. */
	readonly notes?: () => readonly string[]
}

export interface SaidReference {
	/** Which column of the sheet, from 0. */
	readonly from: number
	readonly sheet: string
	/** The name of the column there that it repeats. */
	readonly to: string
}

export interface RowBatch {
	readonly rows: readonly (readonly string[])[]
	/** How much of the whole has been read with it, from 0 to 1. */
	readonly share: number
	/** Places among the rows of records with a quote in the wrong place: what comes after it may have run together. */
	readonly damaged?: readonly number[]
	/** Whether it is known that every cell is plain ASCII. */
	readonly plain?: boolean
	/** Of each row the columns that the file keeps as numbers, so that nobody need ask how they are written. */
	readonly typed?: readonly (ReadonlySet<number> | undefined)[]
	/** Cells that go over several columns. */
	readonly spans?: readonly CellSpan[]
}

/** All counted from 0, the last column included. */
export interface CellSpan {
	readonly row: number
	readonly from: number
	readonly to: number
}

export type FileKind = 'text' | 'workbook' | 'records' | 'database'

export interface OpenedFile {
	readonly kind: FileKind
	readonly sheets: readonly Sheet[]
	/** Lets go of what is held open. */
	close(): void
}

/** Rows in a batch, more or less. */
export const BATCH = 1_000

/** A sheet whose rows are all at hand. */
export function sheetOf(
	name: string,
	rows: readonly (readonly string[])[],
	typed: NonNullable<RowBatch['typed']> = []
): Sheet {
	function* batches(): Generator<RowBatch> {
		for (let at = 0; at < rows.length; at += BATCH)
			yield {
				rows: rows.slice(at, at + BATCH),
				typed: typed.slice(at, at + BATCH),
				share: Math.min(1, (at + BATCH) / rows.length)
			}
	}
	return { name, batches }
}

/** A file that is not taken, in the reader's words. */
export function refusedFile(message: string): AppError {
	return new AppError('invalid', message)
}

export const NOTHING_HELD = (): void => undefined
