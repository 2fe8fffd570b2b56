/** Points that would lie over one another on a screen, taken together; in pixels. */

export interface Point {
	readonly x: number
	readonly y: number
}

export interface Cluster {
	/** Which of the points. */
	readonly members: readonly number[]
	/** Where it is drawn: at the first of them, so that no two lie over one another. */
	readonly x: number
	readonly y: number
}

/**
 * Every point goes to the first cluster whose first point is nearer than `reach`, and else begins one: so the clusters lie further
 * apart than that. A grid of cells of that size finds the near ones.
 */
export function clusterPoints(points: readonly Point[], reach: number): Cluster[] {
	const begun: { at: Point; members: number[] }[] = []
	const cells = new Map<string, number[]>()
	points.forEach((point, i) => {
		const [column, row] = [Math.floor(point.x / reach), Math.floor(point.y / reach)]
		const near = around(column, row)
			.flatMap((key) => cells.get(key) ?? [])
			.find((each) => {
				const at = begun[each]?.at
				return at !== undefined && Math.hypot(at.x - point.x, at.y - point.y) < reach
			})
		const cluster = near === undefined ? undefined : begun[near]
		if (cluster) {
			cluster.members.push(i)
			return
		}
		const key = `${column} ${row}`
		cells.set(key, [...(cells.get(key) ?? []), begun.length])
		begun.push({ at: point, members: [i] })
	})
	return begun.map(({ at: { x, y }, members }) => ({ members, x, y }))
}

function around(column: number, row: number): string[] {
	return [-1, 0, 1].flatMap((across) => [-1, 0, 1].map((down) => `${column + across} ${row + down}`))
}
