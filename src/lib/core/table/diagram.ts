/** Lays tables out for a drawing: each to the right of those that it points to, so that references run leftwards. */

export interface DrawnTable {
	readonly id: number
	/** The tables that its references point to. */
	readonly to: readonly number[]
	/** How high it is drawn, with the room below it. */
	readonly height: number
}

export interface BoxPlace {
	/** Its column of the drawing, from the left, from 0. */
	readonly across: number
	/** Where it begins, in the measure of the heights. */
	readonly top: number
}

/** Tables in a circle of references stand side by side with those that they were met with. */
export function layOut(tables: readonly DrawnTable[]): ReadonlyMap<number, BoxPlace> {
	const byId = new Map(tables.map((table) => [table.id, table]))
	const across = new Map<number, number>()
	const open = new Set<number>()
	const settle = (id: number): number => {
		const known = across.get(id)
		if (known !== undefined) return known
		open.add(id)
		const targets = (byId.get(id)?.to ?? []).filter((to) => to !== id && byId.has(to) && !open.has(to))
		const place = Math.max(-1, ...targets.map(settle)) + 1
		open.delete(id)
		across.set(id, place)
		return place
	}
	const filled = new Map<number, number>()
	return new Map(
		tables.map(({ id, height }) => {
			const column = settle(id)
			const top = filled.get(column) ?? 0
			filled.set(column, top + height)
			return [id, { across: column, top }]
		})
	)
}
