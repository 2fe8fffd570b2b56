/** Hands rows to the writer in batches, a few of them on their way while the next is read. */
import { AppError } from '$lib/core/app-error.ts'
import type { StoredValue } from '$lib/core/table/storage.ts'

export const BATCH = 1_000

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

export interface Progress {
	readonly done: number
	readonly of: number
}

export interface Watch {
	readonly onProgress: (progress: Progress) => void
	/** Asked between batches. */
	readonly isStopped: () => boolean
}

/** Never more, so that memory stays bounded. */
const MOST_AHEAD = 3

export class BatchWriter {
	/** Of the rows that wait, one after the other; a row that is whole is counted by `end`. */
	values: StoredValue[] = []
	/** How many rows were whole. */
	done = 0
	/** How much of the sheet is read by now, from 0 to 1. */
	share = 0
	private readonly write: (batch: Batch) => Promise<void>
	private readonly head: Pick<Batch, 'table' | 'now' | 'person'>
	private readonly watch: Watch
	private readonly writing: Promise<void>[] = []
	private waiting = 0

	/** `write` resolves when a batch is committed. */
	constructor(write: (batch: Batch) => Promise<void>, head: Pick<Batch, 'table' | 'now' | 'person'>, watch: Watch) {
		this.write = write
		this.head = head
		this.watch = watch
	}

	/** A row is whole; true where a batch is, which is then to be handed over. */
	endRow(): boolean {
		this.done++
		return ++this.waiting === BATCH
	}

	/** Hands over what waits, if anything does. */
	async flush(columns: readonly BatchColumn[]): Promise<void> {
		if (this.values.length === 0) return
		if (this.watch.isStopped()) throw new AppError('invalid', 'Stopped. Nothing was brought in.')
		if (this.writing.length >= MOST_AHEAD) await this.writing.shift()
		const sent = this.write({ ...this.head, columns, values: this.values })
		sent.catch(() => undefined)
		this.writing.push(sent)
		this.values = []
		this.waiting = 0
		const { done, share } = this
		this.watch.onProgress({ done, of: share > 0 ? Math.max(done, Math.round(done / share)) : done })
	}

	/** All that was handed over is committed; throws where some of it was not. */
	async committed(): Promise<void> {
		await Promise.all(this.writing)
	}

	/** Whatever happened: nothing is on its way any more. */
	async settled(): Promise<void> {
		await Promise.allSettled(this.writing)
	}
}
