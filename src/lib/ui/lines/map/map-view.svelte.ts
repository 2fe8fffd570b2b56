/** What of the world a map shows, and how large: moved, drawn nearer, and fitted to what lies on it. Pixels are of the screen. */
import { clusterPoints, type Cluster, type Point } from '$lib/core/map/cluster.ts'
import { flatten, unflatten, widthAt, type Flat, type Place } from '$lib/core/map/mercator.ts'

/** Signs nearer than this would lie over one another. */
const REACH = 40
/** On all sides, when it is fitted. */
const MARGIN = 44
/** The world drawn flat is this wide at most: then a metre is some ten pixels. */
const MOST_WIDE = 4e8
const LEAST_WIDE = 256

export class MapView {
	/** Of the frame. */
	width = $state(600)
	height = $state(420)
	/** How wide the whole world would be. */
	scale = $state(1_000)
	/** What lies in the middle. */
	middle = $state.raw<Flat>({ x: 0.5, y: 0.5 })
	readonly #points: () => readonly Flat[]
	readonly #ground: () => readonly Flat[]
	#isMoved = false

	/** `ground`: points of its edges. */
	constructor(points: () => readonly Flat[], ground: () => readonly Flat[]) {
		this.#points = points
		this.#ground = ground
	}

	readonly #placed = $derived.by(() => this.#points().map((point) => this.place(point)))
	/** Of the points that are in sight. */
	readonly clusters = $derived.by<readonly Cluster[]>(() => {
		const inSight = this.#placed.flatMap((point, i) => (this.#isInSight(point) ? [i] : []))
		return clusterPoints(
			inSight.map((i) => this.#placed[i] as Point),
			REACH
		).map(({ members, ...at }) => ({ ...at, members: members.flatMap((member) => inSight[member] ?? []) }))
	})

	/** A length that is easily read, and how many pixels it takes here. */
	readonly bar = $derived.by(() => {
		const metres = widthAt(unflatten(this.middle).latitude) / this.scale
		const [power, most] = [10 ** Math.floor(Math.log10(metres * 120)), metres * 120]
		const length = [5, 2, 1].map((each) => each * power).find((each) => each <= most) ?? power
		return { metres: length, pixels: length / metres }
	})

	place({ x, y }: Flat): Point {
		return {
			x: (x - this.middle.x) * this.scale + this.width / 2,
			y: (y - this.middle.y) * this.scale + this.height / 2
		}
	}

	isInSight(place: Place): boolean {
		return this.#isInSight(this.place(flatten(place)))
	}

	#isInSight({ x, y }: Point): boolean {
		return x >= 0 && y >= 0 && x <= this.width && y <= this.height
	}

	/** As somebody asked to see these. */
	show(points: readonly Flat[]): void {
		this.#isMoved = true
		this.#fit(points)
	}

	/** One of them in the middle, as near as it is drawn now. */
	centre(point: Flat): void {
		this.#isMoved = true
		this.middle = point
	}

	/** So that all of these are in sight; of one the place is shown from some way off. */
	#fit(points: readonly Flat[]): void {
		if (points.length === 0) return
		const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)]
		const [west, east] = [Math.min(...xs), Math.max(...xs)]
		const [north, south] = [Math.min(...ys), Math.max(...ys)]
		this.middle = { x: (west + east) / 2, y: (north + south) / 2 }
		const across = (this.width - 2 * MARGIN) / Math.max(east - west, 1e-6)
		const down = (this.height - 2 * MARGIN) / Math.max(south - north, 1e-6)
		this.scale = bounded(Math.min(across, down))
	}

	/** As long as nobody has moved it: to what lies on it, or else to its ground. */
	fitAll(): void {
		if (this.#isMoved) return
		this.#fit(this.#points().length > 0 ? this.#points() : this.#ground())
	}

	showAll(): void {
		this.#isMoved = false
		this.fitAll()
	}

	/** Nearer or further, so that what is at a point of the screen stays there. */
	zoom(by: number, { x, y }: Point = { x: this.width / 2, y: this.height / 2 }): void {
		this.#isMoved = true
		const scale = bounded(this.scale * by)
		const [right, down] = [x - this.width / 2, y - this.height / 2]
		const shift = 1 / this.scale - 1 / scale
		this.middle = { x: this.middle.x + right * shift, y: this.middle.y + down * shift }
		this.scale = scale
	}

	/** By so many pixels. */
	move(right: number, down: number): void {
		this.#isMoved = true
		this.middle = { x: this.middle.x - right / this.scale, y: this.middle.y - down / this.scale }
	}

	/** To what lies together there; where it cannot be told apart any more it stays. */
	open({ members }: Cluster): boolean {
		const points = members.flatMap((i) => this.#points()[i] ?? [])
		const before = this.scale
		this.show(points)
		return this.scale > before * 1.2
	}
}

function bounded(scale: number): number {
	return Math.min(Math.max(scale, LEAST_WIDE), MOST_WIDE)
}
