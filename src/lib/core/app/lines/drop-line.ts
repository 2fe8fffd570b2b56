/** Where a line that is dragged may be let go: between which lines, and how deep. */
import type { MayHold, PlacedLine, Spot, TreeLine } from './tree.ts'
import { findLine, insertLine, placedLines, replaceLine } from './tree.ts'

export interface Drop {
	readonly level: number
	readonly spot: Spot
}

/** A gap between two lines as they stand, or before the first, or after the last. */
export interface Gap {
	/** The line above it, of those that stay; undefined at the top. */
	readonly above: string | undefined
	/** By level, the outermost first; empty where the line may not stand. */
	readonly drops: readonly Drop[]
}

/** The gaps among the lines that stay where they are while one is dragged, with what it holds. */
export function gapsFor<L extends TreeLine>(lines: readonly L[], id: string, mayHold: MayHold): Gap[] {
	const dragged = findLine(lines, id)
	if (!dragged) return []
	const rest = placedLines(replaceLine(lines, id, undefined))
	const first: Drop[] = mayHold(undefined, dragged.kind) ? [{ level: 0, spot: 'start' }] : []
	return [
		{ above: undefined, drops: first },
		...rest.map((placed, at) => ({
			above: placed.line.id,
			drops: dropsBelow(placed, rest[at + 1]?.level ?? 0, (holder) => mayHold(holder, dragged.kind))
		}))
	]
}

/** Of the drops in a gap that whose level comes nearest to the one that is pointed at. */
export function nearestDrop({ drops }: Gap, level: number): Drop | undefined {
	const [nearest] = drops.toSorted((one, other) => Math.abs(one.level - level) - Math.abs(other.level - level))
	return nearest
}

export function dropLine<L extends TreeLine>(lines: readonly L[], id: string, { spot }: Drop): L[] {
	const dragged = findLine(lines, id)
	return dragged ? insertLine(replaceLine(lines, id, undefined), dragged, spot) : [...lines]
}

/** `least`: the level of the line below the gap, which must not lose its holder. */
function dropsBelow<L extends TreeLine>(
	{ line, within, level }: PlacedLine<L>,
	least: number,
	fits: (holder: string | undefined) => boolean
): Drop[] {
	const ways = [...within, line]
	const after = ways.flatMap((way, at): Drop[] =>
		at >= least && fits(ways[at - 1]?.kind) ? [{ level: at, spot: { after: way.id } }] : []
	)
	const isHolder = line.lines !== undefined && fits(line.kind)
	return isHolder ? [...after, { level: level + 1, spot: { firstIn: line.id } }] : after
}
