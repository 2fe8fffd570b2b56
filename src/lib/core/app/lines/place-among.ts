/** Where a new line goes among others: into the one that is chosen, or after it or what holds it. */
import type { Sentence } from '../../sentence/types.ts'
import { placedLines, type MayHold, type Spot, type TreeLine } from './tree.ts'

export interface Place<L extends TreeLine> {
	/** The sentences that fit there. */
	readonly kinds: readonly Sentence[]
	/** In words, where a line is chosen. */
	readonly says: string
	/** Where a line of a kind goes, and what holds it there, the outermost first. */
	spotFor(kind: string): Spot
	withinFor(kind: string): readonly L[]
}

/** What may stand where, of one sort of lines. */
export interface Standards {
	readonly mayHold: MayHold
	/** The sentences that may be added within a line of a kind, or outside of all. */
	readonly sentencesWithin: (holder: string | undefined) => readonly Sentence[]
}

/** Into the line that is chosen where it may hold such a one, or else after it or what holds it. */
export function placeAmong<L extends TreeLine>(
	lines: readonly L[],
	chosen: string | undefined,
	{ mayHold, sentencesWithin }: Standards
): Place<L> {
	const placed = placedLines(lines).find(({ line }) => line.id === chosen)
	if (!placed) return { kinds: sentencesWithin(undefined), says: '', spotFor: () => 'end', withinFor: () => [] }
	const { line, number, within } = placed
	// From the line itself outwards: into it, after it, after what holds it, and so on.
	const ways = [line, ...within.toReversed()]
	const holders = [...ways.map(({ kind }) => kind), undefined]
	return {
		kinds: [...new Set(holders.flatMap(sentencesWithin))],
		says: sentencesWithin(line.kind).length > 0 ? `into or after line ${number}` : `after line ${number}`,
		spotFor(kind) {
			const at = holders.findIndex((holder) => mayHold(holder, kind))
			const [way, inner] = [ways[at], ways[at - 1]]
			if (at === 0 && way) return { lastIn: way.id }
			return inner ? { after: inner.id } : 'end'
		},
		withinFor(kind) {
			const at = holders.findIndex((holder) => mayHold(holder, kind))
			return at < 0 ? [] : ways.slice(at).toReversed()
		}
	}
}
