/**
 * Which rows of a grid are in sight. A list longer than a browser lays out scrolls in proportion: a pixel of its bar is
 * several rows, but a turn of the wheel still moves by rows.
 */
import { tick } from 'svelte'

export const ROW = 31
/** Browsers lay out no more than some 33 million pixels. */
const MOST_PIXELS = 15_000_000

/** What stands still at the left, and where each column begins and ends. */
export interface Edges {
	readonly frozen: number
	readonly lefts: readonly number[]
}

export class GridScroll {
	box = $state<HTMLElement>()
	height = $state(600)
	/** The first row in sight. */
	first = $state(0)
	/** How far the box is scrolled; kept, since a box tells nobody when that changes. */
	private top = $state(0)
	private readonly count: () => number
	private readonly edges: () => Edges
	readonly visible = $derived(Math.ceil(this.height / ROW) + 1)
	readonly pixels = $derived.by(() => Math.min(MOST_PIXELS, this.count() * ROW))
	/** Whether the list is too long to be laid out whole. */
	readonly scaled = $derived.by(() => this.count() * ROW > MOST_PIXELS)
	readonly slots = $derived.by(() => {
		const length = Math.max(0, Math.min(this.visible, this.count() - this.first))
		return Array.from({ length }, (_slot, i) => this.first + i)
	})
	private readonly last = $derived.by(() => Math.max(0, this.count() - this.visible + 1))

	/** `count`: how many rows there are. */
	constructor(count: () => number, edges: () => Edges) {
		this.count = count
		this.edges = edges
	}

	/** How far down the rows in sight are drawn. */
	get offset(): number {
		return this.scaled ? this.top : this.first * ROW
	}

	readonly onscroll = (): void => {
		if (!this.box) return
		const { scrollTop } = this.box
		this.top = scrollTop
		this.first = this.scaled
			? Math.round((scrollTop / Math.max(1, this.pixels - this.height)) * this.last)
			: Math.floor(scrollTop / ROW)
	}

	readonly onwheel = (event: WheelEvent): void => {
		if (!this.scaled || event.deltaY === 0 || event.ctrlKey) return
		event.preventDefault()
		this.to(this.first + Math.sign(event.deltaY) * Math.max(1, Math.round(Math.abs(event.deltaY) / ROW)))
	}

	to(row: number): void {
		if (!this.box) return
		const top = Math.max(0, Math.min(this.last, row))
		this.box.scrollTop = this.scaled ? (top / Math.max(1, this.last)) * (this.pixels - this.height) : top * ROW
		this.top = this.box.scrollTop
		this.first = top
	}

	async reveal({ row, column }: { row: number; column: number }): Promise<void> {
		if (row < this.first) this.to(row)
		else if (row > this.first + this.visible - 3) this.to(row - this.visible + 3)
		if (!this.box) return
		const { frozen, lefts } = this.edges()
		const [left = 0, right = 0] = [lefts[column], lefts[column + 1]]
		const fixed = lefts[frozen] ?? lefts[0] ?? 0
		if (column >= frozen && left - this.box.scrollLeft < fixed) this.box.scrollLeft = left - fixed
		else if (right - this.box.scrollLeft > this.box.clientWidth) this.box.scrollLeft = right - this.box.clientWidth
		await tick()
	}

	focus(): void {
		this.box?.focus({ preventScroll: true })
	}
}
