/** How one person looks at one table: the order, filters, widths and which columns stand. Kept in their browser. */
import type { Filter } from '$lib/core/query/filter.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'
import { CONTROLS } from '../cells/controls.ts'
import type { SortKey } from './grid-rows.svelte.ts'
import { ownJson } from '$lib/core/text/own-json.ts'

interface Kept {
	readonly sorts: readonly SortKey[]
	readonly filters: readonly Filter[]
	readonly widths: Readonly<Record<string, number>>
	readonly hidden: readonly number[]
	readonly frozen: number
}

const LEAST_WIDTH = 56
const MOST_WIDTH = 700

export class GridView {
	private readonly key: string
	sorts = $state.raw<readonly SortKey[]>([])
	filters = $state.raw<readonly Filter[]>([])
	widths = $state.raw<Readonly<Record<string, number>>>({})
	hidden = $state.raw<readonly number[]>([])
	/** How many columns stay in sight at the left. */
	frozen = $state(0)

	constructor(table: number, label: number) {
		this.key = `grid ${table}`
		this.sorts = [{ column: label, descending: false }]
		const kept = readKept(this.key)
		if (!kept) return
		this.sorts = kept.sorts
		this.widths = kept.widths
		this.hidden = kept.hidden
		this.frozen = kept.frozen
	}

	/** Filters are not kept from one visit to the next: rows that stay away unasked look like rows that were lost. */
	save(): void {
		const { sorts, widths, hidden, frozen } = this
		try {
			localStorage.setItem(this.key, JSON.stringify({ sorts, widths, hidden, frozen, filters: [] } satisfies Kept))
		} catch {
			// A full or closed store costs only the memory of widths.
		}
	}

	shown(columns: readonly ShownColumn[]): readonly ShownColumn[] {
		return columns.filter((column) => !column.condition && !this.hidden.includes(column.id))
	}

	width(column: ShownColumn): number {
		return this.widths[column.id] ?? usualWidth(column)
	}

	/** Where each of the columns that are shown begins, in pixels, and where the last of them ends. */
	lefts(columns: readonly ShownColumn[], rowHeader: number): readonly number[] {
		return columns.reduce<number[]>(
			(all, column) => [...all, (all.at(-1) ?? rowHeader) + this.width(column)],
			[rowHeader]
		)
	}

	resize(column: ShownColumn, width: number): void {
		const within = Math.min(MOST_WIDTH, Math.max(LEAST_WIDTH, Math.round(width)))
		this.widths = { ...this.widths, [column.id]: within }
	}

	sortOf(column: number): { readonly place: number; readonly descending: boolean } | undefined {
		const place = this.sorts.findIndex((key) => key.column === column)
		return place < 0 ? undefined : { place, descending: this.sorts[place]?.descending ?? false }
	}

	/** Sorts by a column alone, or by it after those that are sorted by already. */
	sortBy(column: number, descending: boolean, further: boolean): void {
		const others = further ? this.sorts.filter((key) => key.column !== column) : []
		this.sorts = [...others, { column, descending }]
		this.save()
	}

	hide(column: number): void {
		this.hidden = [...this.hidden, column]
		this.save()
	}

	setFilter(column: number, filter: Filter | undefined): void {
		const others = this.filters.filter((each) => each.column !== column)
		this.filters = filter ? [...others, filter] : others
	}
}

function usualWidth(column: ShownColumn): number {
	const byName = column.name.length * 8 + 48
	return Math.min(300, Math.max(CONTROLS[column.type].width, byName))
}

function readKept(key: string): Kept | undefined {
	try {
		const kept = ownJson<Kept | null>(localStorage.getItem(key) ?? 'null')
		return kept && Array.isArray(kept.sorts) && Array.isArray(kept.hidden) ? kept : undefined
	} catch {
		return undefined
	}
}
