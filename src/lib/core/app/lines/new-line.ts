/** What a line begins with, so that it works at once, and where it goes. */
import { readSlot } from '../../sentence/line-values.ts'
import { isBlank } from '../../sentence/print.ts'
import type { LineValue, Sentence } from '../../sentence/types.ts'
import type { Vocabulary } from '../../sentence/vocabulary.ts'
import { mayHold, screenLineSchema, sentencesWithin, type ScreenLine } from './all.ts'
import { insertLine, placedLines, type Spot } from './tree.ts'

const SHOWN_AT_FIRST = 4

export interface Beginning {
	readonly id: string
	/** The screen that it stands on. */
	readonly screen: string
	readonly vocabulary: Vocabulary
}

/** A line that was typed or chosen, with what it cannot do without: a table, columns, something to open. */
export function beginLine(line: LineValue, { id, screen, vocabulary }: Beginning): ScreenLine {
	const filled: Record<string, unknown> = { ...line, id }
	if ('table' in filled && isBlank(filled['table'])) filled['table'] = vocabulary.tables[0]?.id
	if ('does' in filled && filled['does'] === null) filled['does'] = { kind: 'open', screen }
	if ('columns' in filled && isBlank(readSlot(filled, 'columns'))) {
		const columns = vocabulary.tables.find((table) => table.id === filled['table'])?.columns ?? []
		filled['columns'] = columns
			.filter(({ condition }) => !condition)
			.slice(0, SHOWN_AT_FIRST)
			.map((column) => column.id)
	}
	return screenLineSchema.parse(filled)
}

/** Several lines put in one after the other, the first where it goes by itself. */
export function insertAll(lines: readonly ScreenLine[], added: readonly ScreenLine[], place: Place): ScreenLine[] {
	return added.reduce<ScreenLine[]>(
		(all, line, i) => {
			const before = added[i - 1]
			return insertLine(all, line, before ? { after: before.id } : place.spotFor(line.kind))
		},
		[...lines]
	)
}

export interface Place {
	/** The sentences that fit there. */
	readonly kinds: readonly Sentence[]
	/** In words, where a line is chosen. */
	readonly says: string
	/** Where a line of a kind goes. */
	spotFor(kind: string): Spot
}

/** Where a new line goes beside the line that is chosen: into it where it may hold such a one, or else after it or what holds it. */
export function placeBeside(lines: readonly ScreenLine[], chosen: string | undefined): Place {
	const placed = placedLines(lines).find(({ line }) => line.id === chosen)
	if (!placed) return { kinds: sentencesWithin(undefined), says: '', spotFor: () => 'end' }
	const { line, number, within } = placed
	// From the line itself outwards: into it, after it, after what holds it, and so on to the screen.
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
		}
	}
}
