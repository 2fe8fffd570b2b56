/** Which part of a formula is what, for showing it in colours while it is written. */
import { tokenize } from './tokens.ts'
import type { Span } from './types.ts'

export type PartKind = 'function' | 'name' | 'text' | 'number' | 'word' | 'sign'

export interface Part extends Span {
	readonly kind: PartKind
}

/** The parts of a formula in order, with a name that is called told from one that is read. What cannot be read is left out. */
export function partsOfText(source: string): readonly Part[] {
	const { tokens } = tokenize(source)
	return tokens.flatMap(({ kind, span, quoted }, i): Part[] => {
		if (kind === 'end') return []
		const opens = tokens[i + 1]?.kind === 'sign' && tokens[i + 1]?.text === '('
		const called = opens && !quoted && (kind === 'name' || kind === 'word')
		return [{ from: span.from, to: span.to, kind: called ? 'function' : kind }]
	})
}
