/** Which part of a formula is what, for showing it in colours while it is written. */
import { isOddName } from './odd-names.ts'
import { tokenize } from './tokens.ts'
import type { Span } from '../../model/formula.ts'

export type PartKind = 'function' | 'name' | 'text' | 'number' | 'word' | 'sign'

export interface Part extends Span {
	readonly kind: PartKind
}

/**
 * The parts of a formula in order, with a name that is called told from one that is read. What cannot be read is left out.
 * `names`: what there is to be read, for those that are more than words.
 */
export function partsOfText(source: string, names: readonly string[] = []): readonly Part[] {
	const odd = names.filter(isOddName).sort((a, b) => b.length - a.length)
	const { tokens } = tokenize(source, odd)
	return tokens.flatMap(({ kind, span, quoted }, i): Part[] => {
		if (kind === 'end') return []
		const opens = tokens[i + 1]?.kind === 'sign' && tokens[i + 1]?.text === '('
		const called = opens && !quoted && (kind === 'name' || kind === 'word')
		return [{ from: span.from, to: span.to, kind: called ? 'function' : kind }]
	})
}
