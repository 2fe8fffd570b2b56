/** A map moved by one finger or the mouse, and drawn nearer between two fingers. */
import type { Point } from '$lib/core/map/cluster.ts'

/** What of a map a hand moves; in pixels of its frame. */
export interface Moved {
	move(right: number, down: number): void
	zoom(by: number, at: Point): void
}

type Finger = Pick<PointerEvent, 'pointerId' | 'clientX' | 'clientY'>

export class MapHand {
	readonly #fingers = new Map<number, Point>()
	readonly #map: Moved

	constructor(map: Moved) {
		this.#map = map
	}

	get isDown(): boolean {
		return this.#fingers.size > 0
	}

	down({ pointerId, clientX, clientY }: Finger): void {
		this.#fingers.set(pointerId, { x: clientX, y: clientY })
	}

	/** `frame`: where the map stands on the screen. */
	move({ pointerId, clientX, clientY }: Finger, frame: { readonly left: number; readonly top: number }): void {
		if (!this.#fingers.has(pointerId)) return
		const before = this.#grip()
		this.#fingers.set(pointerId, { x: clientX, y: clientY })
		const after = this.#grip()
		this.#map.move(after.x - before.x, after.y - before.y)
		if (before.apart > 0 && after.apart > 0)
			this.#map.zoom(after.apart / before.apart, { x: after.x - frame.left, y: after.y - frame.top })
	}

	up({ pointerId }: Pick<PointerEvent, 'pointerId'>): void {
		this.#fingers.delete(pointerId)
	}

	/** The middle of the first two fingers, and how far they are apart. */
	#grip(): Point & { readonly apart: number } {
		const [one = { x: 0, y: 0 }, other = one] = this.#fingers.values()
		return {
			...{ x: (one.x + other.x) / 2, y: (one.y + other.y) / 2 },
			apart: Math.hypot(one.x - other.x, one.y - other.y)
		}
	}
}
