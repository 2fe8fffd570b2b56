/**
 * Brings a sheet in as a new table: read here, row by row, and handed to the writer in batches of at most 1,000 rows,
 * into a table that nobody can see yet. A last short transaction registers it. Edits of others go on between the batches.
 */
import { cellReader, staysPlain, type CellReader, type ImportPlan, type Unread } from '$lib/core/exchange/plan.ts'
import { hasKey } from '$lib/core/table/storage.ts'
import type { Column } from '$lib/core/model/table.ts'
import { textKey } from '$lib/core/text/key.ts'
import { toColumn } from '$lib/core/workspace/catalogue.ts'
import type { ColumnEntry } from '$lib/core/workspace/document.ts'
import { BatchWriter, type Batch, type BatchColumn, type Watch } from './batch-writer.ts'
import { openFile } from './open-file.ts'
import type { SaidReference, Sheet } from './sheet.ts'
import { AppError } from '$lib/core/app-error.ts'

export interface Begun {
	readonly table: number
	/** The columns of the new table, in the order of the plan's included ones. */
	readonly columns: readonly ColumnEntry[]
	/** The time zone in which the file's times were written, where they do not say. */
	readonly timeZone: string
	/** A further column that takes the ids of those that could not be read, as `,12,14,`: these keep what they held. */
	readonly skipped?: number
}

export interface BringIn {
	readonly path: string
	readonly name: string
	readonly plan: ImportPlan
	readonly begun: Begun
	readonly now: number
	readonly person: number
}

export interface BroughtIn {
	readonly rows: number
	readonly unread: readonly Unread[]
	readonly unreadCount: number
	/** What the file says of its columns that name rows of other sheets. */
	readonly references: readonly SaidReference[]
}

const MAX_UNREAD = 200

/** `write` resolves when a batch is committed. */
export async function bringIn(
	{ path, name, plan, begun, now, person }: BringIn,
	write: (batch: Batch) => Promise<void>,
	watch: Watch
): Promise<BroughtIn> {
	const file = await openFile(path, name)
	try {
		const sheet = file.sheets.find((each) => each.name === plan.sheet) ?? file.sheets[0]
		if (!sheet) throw new AppError('invalid', `${name} holds no filled sheet.`)
		const writer = new BatchWriter(write, { table: begun.table, now, person }, watch)
		return await bringSheetIn(sheet, { plan, begun }, writer)
	} finally {
		file.close()
	}
}

async function bringSheetIn(
	sheet: Sheet,
	of: Pick<BringIn, 'plan' | 'begun'>,
	writer: BatchWriter
): Promise<BroughtIn> {
	const rows = new RowReader(of, writer)
	let columns = rows.columnsOf(false)
	/** Whether what waits to be handed over came from plain ASCII. */
	let plain = false
	let at = 0
	try {
		for await (const batch of sheet.batches()) {
			writer.share = batch.share
			if ((batch.plain ?? false) !== plain) {
				await writer.flush(columns)
				plain = !plain
				columns = rows.columnsOf(plain)
			}
			const given = columns.map(({ key }) => key === 'given')
			for (const row of batch.rows) {
				const i = at++
				if (rows.isRecord(row, i) && rows.read(row, i, given)) await writer.flush(columns)
			}
		}
		await writer.flush(columns)
		await writer.committed()
	} finally {
		// Nothing may still be on its way when the table is dropped.
		await writer.settled()
	}
	const { unread, unreadCount } = rows
	return { rows: writer.done, unread, unreadCount, references: sheet.said?.references ?? [] }
}

/** Reads rows of a sheet as a plan says, into the values that are to be handed over. */
class RowReader {
	readonly unread: Unread[] = []
	unreadCount = 0
	private readonly writer: BatchWriter
	private readonly plan: ImportPlan
	private readonly leftOut: ReadonlySet<number>
	private readonly skipped: number | undefined
	private readonly readers: readonly ColumnReader[]
	/** What stood last in each column that is filled down. */
	private readonly above: string[] = []

	constructor({ plan, begun }: Pick<BringIn, 'plan' | 'begun'>, writer: BatchWriter) {
		this.writer = writer
		this.plan = plan
		this.leftOut = new Set(plan.leftOut)
		this.skipped = begun.skipped
		this.readers = readersOf(plan, begun)
	}

	/** How the values of a row are to be written; `plain`: its texts are plain ASCII. */
	columnsOf(plain: boolean): BatchColumn[] {
		return [
			...this.readers.map(({ column: { id }, keyed, plain: stays }) => ({
				name: `c${id}`,
				key: !keyed ? ('none' as const) : plain && stays ? ('lower' as const) : ('given' as const)
			})),
			...(this.skipped === undefined ? [] : [{ name: `c${this.skipped}`, key: 'none' as const }])
		]
	}

	/** `i`: its place in the sheet, from 0. */
	isRecord(row: readonly string[], i: number): boolean {
		return i >= this.plan.firstRow && !this.leftOut.has(i + 1) && !row.every((cell) => cell.trim() === '')
	}

	/** True where a batch is whole. `given`: of which columns the key goes with the value. */
	read(row: readonly string[], i: number, given: readonly boolean[]): boolean {
		const { values } = this.writer
		let left = ''
		for (const [place, { column, from, read, fillDown }] of this.readers.entries()) {
			let text = row[from] ?? ''
			if (fillDown) text = this.above[place] = text.trim() === '' ? (this.above[place] ?? '') : text
			const cell = read(text)
			if (cell.unread && ++this.unreadCount <= MAX_UNREAD)
				this.unread.push({ row: i + 1, column: column.name, text: text.trim().slice(0, 80) })
			values.push(cell.value)
			if (given[place]) values.push(cell.value === null ? null : textKey(String(cell.value)))
			if (cell.unread) left += `${column.id},`
		}
		if (this.skipped !== undefined) values.push(left === '' ? null : `,${left}`)
		return this.writer.endRow()
	}
}

interface ColumnReader {
	readonly column: Column
	/** Its place in the sheet. */
	readonly from: number
	readonly read: CellReader
	readonly plain: boolean
	readonly fillDown: boolean
	/** Whether a key is stored beside it. */
	readonly keyed: boolean
}

function readersOf(plan: ImportPlan, begun: Begun): ColumnReader[] {
	const included = plan.columns.filter(({ include }) => include)
	return included.map((planned, i) => {
		const entry = begun.columns[i]
		if (!entry) throw new Error(`Expected ${included.length} columns to be begun, got ${begun.columns.length}`)
		const column = toColumn(entry, begun)
		return {
			column,
			from: planned.from,
			read: cellReader(planned, column),
			plain: staysPlain(planned, column),
			fillDown: planned.fillDown ?? false,
			keyed: hasKey(column)
		}
	})
}
