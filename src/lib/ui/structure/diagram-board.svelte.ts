import { browser } from '$app/environment'
import type { BenchTable } from '$lib/core/requests/bench.ts'
import { layOut } from '$lib/core/table/diagram.ts'
import { ownJson } from '$lib/core/text/own-json.ts'

export interface Spot {
	readonly x: number
	readonly y: number
}

/** A reference, as it is drawn and as it is said. */
export interface Line {
	readonly key: string
	readonly path: string
	readonly says: string
}

export const BOX_WIDTH = 190
const KEPT_UNDER = 'tin-shed diagram'
const HEAD = 42
const LINE = 26

/** Where the boxes of tables stand: laid out by their references, but for those that were moved by hand in this browser. */
export class DiagramBoard {
	readonly #tables: () => readonly BenchTable[]
	/** Where boxes were moved to by hand, by table. */
	moved = $state.raw<Readonly<Record<number, Spot>>>(
		browser ? ownJson<Record<number, Spot>>(localStorage.getItem(KEPT_UNDER) ?? '{}') : {}
	)

	readonly #laid = $derived.by(() =>
		layOut(
			this.#tables().map((table) => ({
				id: table.id,
				to: table.columns.flatMap((column) => column.to ?? []),
				height: heightOf(table) + 36
			}))
		)
	)
	readonly width = $derived.by(
		() => Math.max(0, ...this.#tables().map((table) => this.spotOf(table.id).x)) + BOX_WIDTH + 60
	)
	readonly height = $derived.by(
		() => Math.max(0, ...this.#tables().map((table) => this.spotOf(table.id).y + heightOf(table))) + 60
	)
	readonly lines = $derived.by(() => this.#tables().flatMap((table) => this.#linesFrom(table)))
	readonly isMoved = $derived(Object.keys(this.moved).length > 0)

	constructor(tables: () => readonly BenchTable[]) {
		this.#tables = tables
	}

	spotOf(table: number): Spot {
		const { across, top } = this.#laid.get(table) ?? { across: 0, top: 0 }
		return this.moved[table] ?? { x: 24 + across * (BOX_WIDTH + 64), y: 24 + top }
	}

	put(table: number, { x, y }: Spot): void {
		this.moved = { ...this.moved, [table]: { x: Math.max(0, x), y: Math.max(0, y) } }
		localStorage.setItem(KEPT_UNDER, JSON.stringify(this.moved))
	}

	layAnew(): void {
		this.moved = {}
		localStorage.removeItem(KEPT_UNDER)
	}

	#linesFrom(table: BenchTable): Line[] {
		return drawnColumns(table).flatMap((column, i): Line[] => {
			const target = column.type === 'reference' ? this.#tables().find((each) => each.id === column.to) : undefined
			if (!target) return []
			const [from, to] = [this.spotOf(table.id), this.spotOf(target.id)]
			const path = curve({ x: from.x, y: from.y + HEAD + LINE * i + LINE / 2 }, { x: to.x, y: to.y + HEAD / 2 })
			const says = `${table.name}: ${column.name} points to ${target.name}`
			return [{ key: `${table.id} ${column.id}`, path, says }]
		})
	}
}

/** What a box names: the column its rows are known by, and its references. */
export function drawnColumns(table: BenchTable) {
	return table.columns.filter((column) => column.id === table.label || column.type === 'reference')
}

function heightOf(table: BenchTable): number {
	return HEAD + LINE * drawnColumns(table).length + 8
}

/** Out of the side of a box that faces the target, and into the side of it that faces here; round the right of one above. */
function curve(from: Spot, to: Spot): string {
	const [leaves, enters] = from.x >= to.x + BOX_WIDTH ? [-1, 1] : to.x >= from.x + BOX_WIDTH ? [1, -1] : [1, 1]
	const x1 = leaves < 0 ? from.x : from.x + BOX_WIDTH
	const x2 = enters < 0 ? to.x : to.x + BOX_WIDTH
	return `M ${x1} ${from.y} C ${x1 + leaves * 46} ${from.y} ${x2 + enters * 46} ${to.y} ${x2} ${to.y}`
}
