/** The parts of a condition that must all hold, as they are written: `a and (b or c)` is `a`, `(b or c)`. */
import { tokenize, type Token } from './tokens.ts'

const DEEPER: Readonly<Record<string, number>> = { '(': 1, '{': 1, ')': -1, '}': -1 }

/** The condition itself, where it is no `and` of several, or cannot be read. */
export function partsOfAnd(condition: string): string[] {
	const outer = outermost(tokenize(condition).tokens)
	const between = outer.filter((token, i) => token.kind === 'word' && endsValue(outer[i - 1]))
	if (between.some(({ text }) => text === 'or')) return [condition]
	const ands = between.filter(({ text }) => text === 'and').map(({ span }) => span)
	const starts = [0, ...ands.map(({ to }) => to)]
	return starts.map((from, i) => condition.slice(from, ands[i]?.from).trim())
}

/** After a value a word stands between two; elsewhere `AND(` is a function. */
function endsValue(before: Token | undefined): boolean {
	if (!before || before.kind === 'word') return before !== undefined && VALUE_WORDS.has(before.text)
	return before.kind !== 'sign' || before.text === ')' || before.text === '}'
}

const VALUE_WORDS: ReadonlySet<string> = new Set(['true', 'false', 'me', 'this'])

/** Those that stand in no brackets, and the brackets that close. */
function outermost(tokens: readonly Token[]): Token[] {
	let depth = 0
	return tokens.filter((token) => {
		if (token.kind === 'sign') depth += DEEPER[token.text] ?? 0
		// A bracket that closes stands outside what it closes.
		return depth === 0
	})
}
