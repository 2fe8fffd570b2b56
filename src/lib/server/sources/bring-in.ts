/**
 * Brings a sheet in as a new table: read here, row by row, and handed to the writer in batches of at most 1,000 rows,
 * into a table that nobody can see yet. A last short transaction registers it. Edits of others go on between the batches.
 */
import { cellReader, type ImportPlan, type Unread } from '$lib/core/exchange/plan.ts'
import { hasKey, type StoredValue } from '$lib/core/table/storage.ts'
import type { Column } from '$lib/core/table/types.ts'
import { toColumn } from '$lib/core/workspace/catalogue.ts'
import { textKey } from '$lib/core/text/key.ts'
import type { ColumnEntry } from '$lib/core/workspace/document.ts'
import { openFile } from './open-file.ts'
import { AppError } from '$lib/core/app-error.ts'

export const BATCH = 1_000

export interface Begun {
	readonly table: number
	/** The columns of the new table, in the order of the plan's included ones. */
	readonly columns: readonly ColumnEntry[]
}

export interface Batch {
	readonly table: number
	/** Store names, keys among them. */
	readonly names: readonly string[]
	/** Row after row of values in the order of `names`. */
	readonly rows: readonly (readonly StoredValue[])[]
	readonly now: number
	readonly person: number
}

export interface BringIn {
	readonly path: string
	readonly name: string
	readonly plan: ImportPlan
	readonly begun: Begun
	readonly now: number
	readonly person: number
}

export interface Progress {
	readonly done: number
	readonly of: number
}

export interface BroughtIn {
	readonly rows: number
	readonly unread: readonly Unread[]
	readonly unreadCount: number
}

const MAX_UNREAD = 200

/** `write` resolves when a batch is committed; `isStopped` is asked between batches. */
export async function bringIn(
	{ path, name, plan, begun, now, person }: BringIn,
	write: (batch: Batch) => Promise<void>,
	watch: { onProgress: (progress: Progress) => void; isStopped: () => boolean }
): Promise<BroughtIn> {
	const { sheets } = await openFile(path, name)
	const sheet = sheets.find((each) => each.name === plan.sheet) ?? sheets[0]
	if (!sheet) throw new AppError('invalid', `${name} holds no filled sheet.`)
	const included = plan.columns.filter((column) => column.include)
	const begunColumn = (i: number): Column => {
		const entry = begun.columns[i]
		if (!entry) throw new Error(`Expected ${included.length} columns to be begun, got ${begun.columns.length}`)
		return toColumn(entry)
	}
	const readers = included.map((column, i) => ({
		column: begunColumn(i),
		from: column.from,
		read: cellReader(column, begunColumn(i))
	}))
	const names = readers.flatMap(({ column }) =>
		hasKey(column) ? [`c${column.id}`, `c${column.id}k`] : [`c${column.id}`]
	)
	const unread: Unread[] = []
	let unreadCount = 0
	let done = 0
	let batch: StoredValue[][] = []
	let writing = Promise.resolve()

	const flush = async (): Promise<void> => {
		const rows = batch
		batch = []
		// One batch is written while the next is read; never more, so that memory stays bounded.
		await writing
		if (watch.isStopped()) throw new AppError('invalid', 'Stopped. Nothing was brought in.')
		writing = write({ table: begun.table, names, rows, now, person })
		writing.catch(() => undefined)
		watch.onProgress({ done, of: sheet.rows.length - plan.firstRow })
	}

	for (let i = plan.firstRow; i < sheet.rows.length; i++) {
		const row = sheet.rows[i] ?? []
		if (row.every((cell) => cell.trim() === '')) continue
		const values: StoredValue[] = []
		for (const { column, from, read } of readers) {
			const text = row[from] ?? ''
			const cell = read(text)
			if (cell.unread && ++unreadCount <= MAX_UNREAD)
				unread.push({ row: i + 1, column: column.name, text: text.slice(0, 80) })
			values.push(cell.value)
			if (hasKey(column)) values.push(typeof cell.value === 'string' ? textKey(cell.value) : null)
		}
		batch.push(values)
		done++
		if (batch.length === BATCH) await flush()
	}
	await flush()
	await writing
	return { rows: done, unread, unreadCount }
}
