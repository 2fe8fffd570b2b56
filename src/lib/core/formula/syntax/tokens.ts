/**
 * Cuts a formula's text into tokens, each with its place.
 *
 * A name is letters, then words or whole numbers: neighbouring words become one name here (`next due`), so that the
 * parser never sees spaces. Reserved words end a name. A single-quoted name may hold anything.
 */
import { textKey } from '../../text/key.ts'
import { unreadable } from './issues.ts'
import type { Issue, Span } from '../../model/formula.ts'

export interface Token {
	readonly kind: 'number' | 'text' | 'name' | 'word' | 'sign' | 'end'
	readonly text: string
	readonly span: Span
	/** True for a name in single quotes, or of a column that is no plain word: never a function or a reserved word. */
	readonly quoted?: boolean
}

export const RESERVED: ReadonlySet<string> = new Set(['and', 'or', 'not', 'in', 'true', 'false', 'me', 'this'])

const NUMBER = /(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?/y
const WORD = /[\p{L}_][\p{L}\p{M}\p{N}_]*/uy
const NEXT_PART = /[ \t\u00a0]+([\p{L}_][\p{L}\p{M}\p{N}_]*|\d+(?![\d.]))/uy
const SIGN = /<=|>=|<>|[-+*/^&=<>%();,.{}]/y
const SPACE = /[\s\u00a0]+/y

/**
 * Tokens in order, closed by one of kind `end`; issues for what could not be read.
 *
 * `odd`: names of columns that are more than words and numbers (`Keeper e-mail`), the longest first. Where one stands in the
 * text it is a name, without quotes; what it is the name of, `check.ts` finds.
 */
export function tokenize(source: string, odd: readonly string[] = []): { tokens: Token[]; issues: Issue[] } {
	const tokens: Token[] = []
	const issues: Issue[] = []
	let at = 0
	while (at < source.length) {
		const space = match(SPACE, source, at)
		if (space) {
			at += space.length
			continue
		}
		const token = readOddName(source, at, odd) ?? readToken(source, at)
		if ('message' in token) {
			issues.push(token)
			at = token.span.to
		} else {
			tokens.push(token)
			at = token.span.to
		}
	}
	tokens.push({ kind: 'end', text: '', span: { from: source.length, to: source.length } })
	return { tokens, issues }
}

/** The longest of the names that stands here whole: nothing of a word goes on before or after it. */
function readOddName(source: string, from: number, odd: readonly string[]): Token | undefined {
	if (odd.length === 0) return undefined
	const name = odd.find((each) => {
		const to = from + each.length
		const isCut = ENDS_IN_WORD.test(each) && WORD_GOES_ON.test(source.slice(to))
		return textKey(source.slice(from, to)) === textKey(each) && !isCut
	})
	return name === undefined
		? undefined
		: { kind: 'name', text: name, span: { from, to: from + name.length }, quoted: true }
}

const ENDS_IN_WORD = /[\p{L}\p{M}\p{N}_]$/u
const WORD_GOES_ON = /^[\p{L}\p{M}\p{N}_]/u

function readToken(source: string, at: number): Token | Issue {
	const first = source[at]
	if (first === '"') return readQuoted(source, at, '"', 'text')
	if (first === "'") return readQuoted(source, at, "'", 'name')
	const number = match(NUMBER, source, at)
	if (number) return { kind: 'number', text: number, span: { from: at, to: at + number.length } }
	if (match(WORD, source, at)) return readName(source, at)
	const sign = match(SIGN, source, at)
	if (sign) return { kind: 'sign', text: sign, span: { from: at, to: at + sign.length } }
	const character = String.fromCodePoint(source.codePointAt(at) ?? 0)
	return unreadable(`"${character}" has no meaning in a formula. Take it out.`, { from: at, to: at + character.length })
}

function readQuoted(source: string, from: number, quote: string, kind: 'text' | 'name'): Token | Issue {
	let text = ''
	for (let at = from + 1; at < source.length; at++) {
		if (source[at] !== quote) {
			text += source[at]
		} else if (source[at + 1] === quote) {
			text += quote
			at++
		} else {
			return { kind, text, span: { from, to: at + 1 }, ...(kind === 'name' ? { quoted: true } : {}) }
		}
	}
	return unreadable(`The closing ${quote} is missing.`, { from, to: source.length })
}

function readName(source: string, from: number): Token {
	const first = match(WORD, source, from) ?? ''
	let to = from + first.length
	if (RESERVED.has(first.toLowerCase())) return { kind: 'word', text: first.toLowerCase(), span: { from, to } }
	const parts = [first]
	for (;;) {
		NEXT_PART.lastIndex = to
		const next = NEXT_PART.exec(source)
		const part = next?.[1]
		if (!next || part === undefined || RESERVED.has(part.toLowerCase())) break
		parts.push(part)
		to += next[0].length
	}
	return { kind: 'name', text: parts.join(' '), span: { from, to } }
}

function match(pattern: RegExp, source: string, at: number): string | undefined {
	pattern.lastIndex = at
	return pattern.exec(source)?.[0]
}
