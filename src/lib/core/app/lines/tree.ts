/**
 * Lines that hold lines: gone through from the top, with their level and running number, and changed by the id of a line.
 * What stands outside the change stays the same object, so that only what changed is drawn anew.
 */

/** As much of a line as its place among others asks for. */
export interface TreeLine {
	readonly id: string
	readonly kind: string
	readonly lines?: readonly TreeLine[]
}

export interface PlacedLine<L extends TreeLine> {
	readonly line: L
	/** 0 for those that stand on the screen itself. */
	readonly level: number
	/** From 1, whatever the level. */
	readonly number: number
	/** What holds it, the outermost first. */
	readonly within: readonly L[]
}

/** Every line in the order in which they stand, each before those that it holds. */
export function placedLines<L extends TreeLine>(lines: readonly L[]): PlacedLine<L>[] {
	const found: PlacedLine<L>[] = []
	const visit = (list: readonly L[], within: readonly L[]) => {
		for (const line of list) {
			found.push({ line, level: within.length, number: found.length + 1, within })
			visit(innerOf(line), [...within, line])
		}
	}
	visit(lines, [])
	return found
}

export function allLines<L extends TreeLine>(lines: readonly L[]): L[] {
	return placedLines(lines).map(({ line }) => line)
}

export function findLine<L extends TreeLine>(lines: readonly L[], id: string): L | undefined {
	return allLines(lines).find((line) => line.id === id)
}

/** Each line mapped, those that it holds before it. */
export function mapLines<L extends TreeLine>(lines: readonly L[], map: (line: L) => L): L[] {
	return lines.map((line) => map(line.lines ? withInner(line, mapLines(innerOf(line), map)) : line))
}

/** A line changed or, by `undefined`, taken out with what it holds. */
export function replaceLine<L extends TreeLine>(lines: readonly L[], id: string, by: L | undefined): L[] {
	return lines.flatMap((line) => {
		if (line.id === id) return by ?? []
		if (!line.lines) return line
		const inner = replaceLine(innerOf(line), id, by)
		return inner.length === line.lines.length && inner.every((each, i) => each === line.lines?.[i])
			? line
			: withInner(line, inner)
	})
}

/** After another line, or as the first or last that one holds, or at an end of all. */
export type Spot =
	{ readonly after: string } | { readonly firstIn: string } | { readonly lastIn: string } | 'start' | 'end'

export function insertLine<L extends TreeLine>(lines: readonly L[], added: L, spot: Spot): L[] {
	if (spot === 'end') return [...lines, added]
	if (spot === 'start') return [added, ...lines]
	return lines.flatMap((line) => {
		if ('after' in spot && line.id === spot.after) return [line, added]
		if ('firstIn' in spot && line.id === spot.firstIn) return withInner(line, [added, ...innerOf(line)])
		if ('lastIn' in spot && line.id === spot.lastIn) return withInner(line, [...innerOf(line), added])
		return line.lines ? withInner(line, insertLine(innerOf(line), added, spot)) : line
	})
}

export type Direction = 'up' | 'down' | 'in' | 'out'

/** Whether a line of one kind may stand in another; `undefined` for the screen itself. */
export type MayHold = (holder: string | undefined, kind: string) => boolean

/**
 * A line moved one step among its neighbours, into the one before it, or out of the one that holds it. Up from the first and
 * down from the last leave what holds them. Nothing changes where it may not stand.
 */
export function moveLine<L extends TreeLine>(lines: readonly L[], id: string, to: Direction, mayHold: MayHold): L[] {
	const placed = placedLines(lines).find(({ line }) => line.id === id)
	const all = [...lines]
	if (!placed) return all
	const { line, within } = placed
	const holder = within.at(-1)
	const siblings = holder ? innerOf(holder) : lines
	const at = siblings.indexOf(line)
	const [before, after] = [siblings[at - 1], siblings[at + 1]]
	if (to === 'in') {
		if (!before || !mayHold(before.kind, line.kind)) return all
		const filled = withInner(before, [...innerOf(before), line])
		return replaceLine(replaceLine(lines, id, undefined), before.id, filled)
	}
	const neighbour = to === 'up' ? before : to === 'down' ? after : undefined
	if (neighbour) {
		const swapped = siblings.map((each) => (each === line ? neighbour : each === neighbour ? line : each))
		return holder ? replaceLine(lines, holder.id, withInner(holder, swapped)) : [...swapped]
	}
	const outer = within.at(-2)
	if (!holder || !mayHold(outer?.kind, line.kind)) return all
	const without = replaceLine(lines, id, undefined)
	if (to !== 'up') return insertLine(without, line, { after: holder.id })
	return insertBefore(without, line, holder.id)
}

function insertBefore<L extends TreeLine>(lines: readonly L[], added: L, id: string): L[] {
	return lines.flatMap((line) => {
		if (line.id === id) return [added, line]
		return line.lines ? withInner(line, insertBefore(innerOf(line), added, id)) : line
	})
}

function innerOf<L extends TreeLine>(line: L): readonly L[] {
	// What a line holds is of the same union of kinds as the line.
	return (line.lines ?? []) as readonly L[]
}

function withInner<L extends TreeLine>(line: L, lines: readonly L[]): L {
	return { ...line, lines }
}
