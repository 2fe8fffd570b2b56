/**
 * Brings a sheet in as a new table: read here, row by row, and handed to the writer in batches of at most 1,000 rows,
 * into a table that nobody can see yet. A last short transaction registers it. Edits of others go on between the batches.
 */
import { cellReader, staysPlain, type ImportPlan, type Unread } from '$lib/core/exchange/plan.ts'
import { hasKey, type StoredValue } from '$lib/core/table/storage.ts'
import type { Column } from '$lib/core/model/table.ts'
import { textKey } from '$lib/core/text/key.ts'
import { toColumn } from '$lib/core/workspace/catalogue.ts'
import type { ColumnEntry } from '$lib/core/workspace/document.ts'
import { openFile } from './open-file.ts'
import type { SaidReference, Sheet } from './sheet.ts'
import { AppError } from '$lib/core/app-error.ts'

export const BATCH = 1_000

export interface Begun {
	readonly table: number
	/** The columns of the new table, in the order of the plan's included ones. */
	readonly columns: readonly ColumnEntry[]
	/** Where the clock hangs by which the file's times were written, where they do not say. */
	readonly timeZone: string
	/** A further column that takes the ids of those that could not be read, as `,12,14,`: these keep what they held. */
	readonly skipped?: number
}

export interface BatchColumn {
	/** In the store. */
	readonly name: string
	/** The key by which it is compared: none, the next value, or left to the store, for which plain ASCII is enough. */
	readonly key: 'none' | 'given' | 'lower'
}

export interface Batch {
	readonly table: number
	readonly columns: readonly BatchColumn[]
	/** Row after row of values in the order of the columns, all in one list: nested ones take twice as long to hand over. */
	readonly values: readonly StoredValue[]
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
	/** What the file says of its columns that name rows of other sheets. */
	readonly references: readonly SaidReference[]
}

const MAX_UNREAD = 200
const MOST_AHEAD = 3

/** `write` resolves when a batch is committed; `isStopped` is asked between batches. */
export async function bringIn(
	{ path, name, plan, begun, now, person }: BringIn,
	write: (batch: Batch) => Promise<void>,
	watch: { onProgress: (progress: Progress) => void; isStopped: () => boolean }
): Promise<BroughtIn> {
	const file = await openFile(path, name)
	try {
		const sheet = file.sheets.find((each) => each.name === plan.sheet) ?? file.sheets[0]
		if (!sheet) throw new AppError('invalid', `${name} holds no filled sheet.`)
		return await bringSheetIn(sheet, { plan, begun, now, person }, write, watch)
	} finally {
		file.close()
	}
}

async function bringSheetIn(
	sheet: Sheet,
	{ plan, begun, now, person }: Omit<BringIn, 'path' | 'name'>,
	write: (batch: Batch) => Promise<void>,
	watch: { onProgress: (progress: Progress) => void; isStopped: () => boolean }
): Promise<BroughtIn> {
	const included = plan.columns.filter((column) => column.include)
	const begunColumn = (i: number): Column => {
		const entry = begun.columns[i]
		if (!entry) throw new Error(`Expected ${included.length} columns to be begun, got ${begun.columns.length}`)
		return toColumn(entry, begun.timeZone)
	}
	const readers = included.map((plan, i) => {
		const column = begunColumn(i)
		return {
			column,
			from: plan.from,
			read: cellReader(plan, column),
			plain: staysPlain(plan, column),
			fillDown: plan.fillDown ?? false,
			keyed: hasKey(column)
		}
	})
	const { skipped } = begun
	const leftOut = new Set(plan.leftOut)
	/** What stood last in each column that is filled down. */
	const above: string[] = []
	const columnsOf = (plain: boolean): BatchColumn[] => [
		...readers.map(({ column: { id }, keyed, plain: stays }) => ({
			name: `c${id}`,
			key: !keyed ? ('none' as const) : plain && stays ? ('lower' as const) : ('given' as const)
		})),
		...(skipped === undefined ? [] : [{ name: `c${skipped}`, key: 'none' as const }])
	]
	const unread: Unread[] = []
	let unreadCount = 0
	let done = 0
	let share = 0
	let at = 0
	let values: StoredValue[] = []
	let waiting = 0
	/** Whether what waits to be handed over came from plain ASCII. */
	let plain = false
	let columns = columnsOf(plain)
	const writing: Promise<void>[] = []

	const flush = async (): Promise<void> => {
		if (watch.isStopped()) throw new AppError('invalid', 'Stopped. Nothing was brought in.')
		// A few batches are on their way while the next is read; never more, so that memory stays bounded.
		if (writing.length >= MOST_AHEAD) await writing.shift()
		const sent = write({ table: begun.table, columns, values, now, person })
		sent.catch(() => undefined)
		writing.push(sent)
		values = []
		waiting = 0
		watch.onProgress({ done, of: share > 0 ? Math.max(done, Math.round(done / share)) : done })
	}

	try {
		for await (const batch of sheet.batches()) {
			share = batch.share
			if ((batch.plain ?? false) !== plain) {
				if (values.length > 0) await flush()
				plain = !plain
				columns = columnsOf(plain)
			}
			const given = columns.map(({ key }) => key === 'given')
			for (const row of batch.rows) {
				const i = at++
				if (i < plan.firstRow || leftOut.has(i + 1) || row.every((cell) => cell.trim() === '')) continue
				let left = ''
				for (const [place, { column, from, read, fillDown }] of readers.entries()) {
					let text = row[from] ?? ''
					if (fillDown) text = above[place] = text.trim() === '' ? (above[place] ?? '') : text
					const cell = read(text)
					if (cell.unread && ++unreadCount <= MAX_UNREAD)
						unread.push({ row: i + 1, column: column.name, text: text.trim().slice(0, 80) })
					values.push(cell.value)
					if (given[place]) values.push(cell.value === null ? null : textKey(String(cell.value)))
					if (cell.unread) left += `${column.id},`
				}
				if (skipped !== undefined) values.push(left === '' ? null : `,${left}`)
				done++
				if (++waiting === BATCH) await flush()
			}
		}
		if (values.length > 0) await flush()
		await Promise.all(writing)
	} finally {
		// Whatever happened: nothing may still be on its way when the table is dropped.
		await Promise.allSettled(writing)
	}
	return { rows: done, unread, unreadCount, references: sheet.said?.references ?? [] }
}
