/**
 * The rows of a table as a grid shows them: a window of a list that may have a million, fetched by hundreds as they come
 * into sight, from the nearest place that the server knows by its key.
 */
/* eslint-disable svelte/prefer-svelte-reactivity -- the maps are replaced whole and never changed in place: finer signals for each of a thousand rows would cost more than they save */
import type { Filter } from '$lib/core/query/filter.ts'
import type { WirePage, WireRow } from '$lib/core/query/wire.ts'
import { ask } from '../send.ts'

export interface SortKey {
	readonly column: number
	readonly descending: boolean
}

export interface Listing {
	readonly sorts: readonly SortKey[]
	readonly filters: readonly Filter[]
}

const CHUNK = 100
/** What takes longer is said to be under way. */
const SLOW_MS = 300
/** As the server has it: a page may start up to so many rows after an anchor. */
const ANCHOR_EVERY = 1_000
/** Chunks that are kept; those longest out of sight go first. */
const MOST_CHUNKS = 120

export class GridRows {
	readonly table: number
	count = $state(0)
	/** True until the first rows have come. */
	fresh = $state(true)
	wrong = $state('')
	/** True while an answer is slow to come: long enough to be said. */
	slow = $state(false)
	/** True after a search was stopped: what stands here is from before it, and so is the count. */
	stopped = $state(false)
	/** The column by which there are too many rows to be ordered. */
	unsorted = $state<number | undefined>()
	private chunks = $state.raw<ReadonlyMap<number, readonly WireRow[]>>(new Map())
	private anchors: readonly string[] = []
	private listing: Listing = { sorts: [], filters: [] }
	private readonly asked = new Set<number>()
	/** Turns with every reload, so that an answer to an earlier question is dropped. */
	private turn = 0
	/** Ends what was asked before: the server looks no further, either. */
	private ending = new AbortController()

	constructor(table: number) {
		this.table = table
	}

	at(index: number): WireRow | undefined {
		return this.chunks.get(Math.floor(index / CHUNK))?.[index % CHUNK]
	}

	indexOf(id: string): number | undefined {
		for (const [chunk, rows] of this.chunks) {
			const at = rows.findIndex((row) => row.id === id)
			if (at >= 0) return chunk * CHUNK + at
		}
		return undefined
	}

	/** Another order or filter: the first rows come before the count is known. */
	async open(listing: Listing): Promise<void> {
		this.listing = listing
		this.anchors = []
		this.fresh = true
		await this.reload(0, CHUNK)
	}

	/** Reads again what is in sight; what was there stays until it has come. */
	async reload(from: number, to: number): Promise<void> {
		const turn = this.begin()
		this.wrong = ''
		this.stopped = false
		const timer = setTimeout(() => (this.slow = turn === this.turn), SLOW_MS)
		await this.readFrom(from, to, turn)
		clearTimeout(timer)
		if (turn === this.turn) this.slow = false
	}

	/** Ends a search that takes too long; what is shown stays. */
	stop(): void {
		this.begin()
		this.slow = false
		this.stopped = true
		this.fresh = false
		this.wrong = 'Stopped before all rows were looked through. Narrow it down, or look again.'
	}

	private begin(): number {
		this.ending.abort()
		this.ending = new AbortController()
		this.asked.clear()
		return ++this.turn
	}

	private async readFrom(from: number, to: number, turn: number): Promise<void> {
		const [first] = chunksOf(from, to)
		const page = await this.fetchChunk(first ?? 0)
		if (turn !== this.turn) return
		if (page) {
			this.chunks = new Map([[first ?? 0, page.rows]])
			if (page.next === null) this.count = (first ?? 0) * CHUNK + page.rows.length
			else this.count = Math.max(this.count, (first ?? 0) * CHUNK + page.rows.length + 1)
		}
		this.fresh = false
		const found = await ask(`/rows/${this.table}/anchors?${this.query()}`, { signal: this.ending.signal })
		if (turn !== this.turn) return
		if (!found.ok) return void (this.wrong = found.refusal.message)
		this.anchors = found.value.anchors
		this.count = found.value.count
		await this.want(from, to)
	}

	/** Fetches what of a stretch is not there yet. */
	async want(from: number, to: number): Promise<void> {
		// Rows of the search that was stopped would stand among those from before it.
		if (this.stopped) return
		const turn = this.turn
		const missing = chunksOf(from, Math.min(to, this.count)).filter(
			(chunk) => !this.chunks.has(chunk) && !this.asked.has(chunk) && this.isReachable(chunk)
		)
		for (const chunk of missing) this.asked.add(chunk)
		await Promise.all(
			missing.map(async (chunk) => {
				const page = await this.fetchChunk(chunk)
				if (turn !== this.turn) return
				this.asked.delete(chunk)
				if (page) this.keep(chunk, page.rows)
			})
		)
	}

	/** Puts rows that were just changed in their places, without moving them. */
	put(changed: readonly (WireRow | null | undefined)[]): void {
		const fresh = new Map(changed.flatMap((row) => (row ? [[row.id, row] as const] : [])))
		const chunks = new Map(this.chunks)
		for (const [chunk, rows] of chunks)
			if (rows.some((row) => fresh.has(row.id)))
				chunks.set(
					chunk,
					rows.map((row) => fresh.get(row.id) ?? row)
				)
		this.chunks = chunks
	}

	find(id: string): WireRow | undefined {
		const index = this.indexOf(id)
		return index === undefined ? undefined : this.at(index)
	}

	private isReachable(chunk: number): boolean {
		const anchor = Math.floor((chunk * CHUNK) / ANCHOR_EVERY)
		return anchor === 0 || this.anchors[anchor - 1] !== undefined
	}

	private async fetchChunk(chunk: number): Promise<WirePage | undefined> {
		const start = chunk * CHUNK
		const anchor = Math.floor(start / ANCHOR_EVERY)
		const after = anchor === 0 ? '' : `&after=${this.anchors[anchor - 1] ?? ''}`
		const skip = start - anchor * ANCHOR_EVERY
		const turn = this.turn
		const answer = await ask(`/rows/${this.table}?limit=${CHUNK}&skip=${skip}${after}&${this.query()}`, {
			signal: this.ending.signal
		})
		if (turn !== this.turn) return undefined
		this.wrong = answer.ok ? '' : answer.refusal.message
		if (answer.ok) this.unsorted = answer.value.unsorted
		return answer.ok ? answer.value : undefined
	}

	private keep(chunk: number, rows: readonly WireRow[]): void {
		const kept = new Map(this.chunks)
		kept.set(chunk, rows)
		for (const old of kept.keys()) {
			if (kept.size <= MOST_CHUNKS) break
			if (Math.abs(old - chunk) > MOST_CHUNKS / 2) kept.delete(old)
		}
		this.chunks = kept
	}

	private query(): string {
		return listingQuery(this.listing)
	}
}

/** An order and filters as the server takes them in an address. */
export function listingQuery({ sorts, filters }: Listing): string {
	const sort = sorts.map(({ column, descending }) => `${descending ? '-' : ''}${column}`).join(',')
	const query = new URLSearchParams()
	if (sort !== '') query.set('sort', sort)
	if (filters.length > 0) query.set('filters', JSON.stringify(filters))
	return query.toString()
}

function chunksOf(from: number, to: number): number[] {
	const first = Math.floor(Math.max(0, from) / CHUNK)
	const last = Math.floor(Math.max(0, to - 1) / CHUNK)
	return Array.from({ length: Math.max(0, last - first + 1) }, (_chunk, i) => first + i)
}
