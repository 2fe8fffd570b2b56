/**
 * Turns a formula's text into a syntax tree.
 *
 * Precedence follows OpenFormula 5.5 (from memory): sign before `%`, `^`, `* /`, `+ -`, `&`, comparisons; ours stand
 * outside them: `in` with the comparisons, then `not`, `and`, `or`. A prefix sign binds tighter than `^`: `-2^2` is 4.
 *
 * Does not know which names exist; that is `check.ts`.
 */
import { mixedSeparators, unreadable } from './issues.ts'
import { tokenize, type Token } from './tokens.ts'
import type { BinaryOp, Issue, Span, Syntax } from '../../model/formula.ts'

export interface Parsed {
	readonly tree: Syntax | undefined
	readonly issues: readonly Issue[]
}

/** Functions whose names have a dot in them; every other dot follows a reference. */
const DOTTED_FUNCTIONS: ReadonlySet<string> = new Set(['ERROR.TYPE'])

/** Deep enough for anything a person writes, shallow enough for the stack. */
const MAX_DEPTH = 200

const LEVELS: readonly (readonly string[])[] = [['=', '<>', '<', '<=', '>', '>='], ['&'], ['+', '-'], ['*', '/'], ['^']]

class Unreadable extends Error {
	readonly issue: Issue
	constructor(issue: Issue) {
		super(issue.message)
		this.issue = issue
	}
}

/** `odd`: names that are read as they stand (`tokens.ts`). */
export function parse(source: string, odd: readonly string[] = []): Parsed {
	const { tokens, issues } = tokenize(source, odd)
	if (issues.length > 0) return { tree: undefined, issues }
	try {
		const reader = new Reader(tokens)
		const tree = reader.readOr()
		reader.expectEnd()
		return { tree, issues: reader.issues }
	} catch (error) {
		if (error instanceof Unreadable) return { tree: undefined, issues: [error.issue] }
		throw error
	}
}

/** A place in the tokens, and one method for each level of precedence. */
class Reader {
	readonly issues: Issue[] = []
	private readonly tokens: readonly Token[]
	private at = 0
	private depth = 0

	constructor(tokens: readonly Token[]) {
		this.tokens = tokens
	}

	readOr(): Syntax {
		return this.readChain('or', () => this.readChain('and', () => this.readNot()))
	}

	expectEnd(): void {
		const token = this.peek()
		if (token.kind === 'end') return
		throw new Unreadable(
			unreadable(`"${token.text}" was not expected here. Is an operator missing before it?`, token.span)
		)
	}

	private readChain(word: 'and' | 'or', readPart: () => Syntax): Syntax {
		let left = readPart()
		while (this.isWord(word)) {
			this.at++
			const right = readPart()
			left = { kind: 'binary', op: word, left, right, span: join(left.span, right.span) }
		}
		return left
	}

	private readNot(): Syntax {
		if (!this.isWord('not') || this.startsNotCall()) return this.readIn()
		const { span } = this.next()
		const arg = this.guarded(() => this.readNot())
		return { kind: 'unary', op: 'not', arg, span: join(span, arg.span) }
	}

	private readIn(): Syntax {
		const item = this.readLevel(0)
		const negated = this.isWord('not') && this.tokens[this.at + 1]?.text === 'in'
		if (!negated && !this.isWord('in')) return item
		this.at += negated ? 2 : 1
		const right = this.peek().text === '(' ? this.readList() : this.readLevel(1)
		const span = join(item.span, right.span)
		const inside: Syntax = { kind: 'binary', op: 'in', left: item, right, span }
		return negated ? { kind: 'unary', op: 'not', arg: inside, span } : inside
	}

	private readList(): Syntax {
		const from = this.next().span
		const items = this.readArguments(')')
		return { kind: 'list', items, span: join(from, this.lastSpan()) }
	}

	private readLevel(level: number): Syntax {
		const ops = LEVELS[level]
		if (!ops) return this.readPercent()
		let left = this.readLevel(level + 1)
		while (this.peek().kind === 'sign' && ops.includes(this.peek().text)) {
			// The caller looked at the token: it is an operator.
			const op = this.next().text as BinaryOp
			const right = this.readLevel(level + 1)
			left = { kind: 'binary', op, left, right, span: join(left.span, right.span) }
		}
		return left
	}

	private readPercent(): Syntax {
		let arg = this.readSigned()
		while (this.peek().text === '%') arg = { kind: 'unary', op: '%', arg, span: join(arg.span, this.next().span) }
		return arg
	}

	private readSigned(): Syntax {
		const token = this.peek()
		if (token.kind !== 'sign' || (token.text !== '-' && token.text !== '+')) return this.readMembers()
		this.at++
		const arg = this.guarded(() => this.readSigned())
		return { kind: 'unary', op: token.text, arg, span: join(token.span, arg.span) }
	}

	private readMembers(): Syntax {
		let of = this.readOperand()
		while (this.peek().text === '.' && this.peek().kind === 'sign') {
			this.at++
			const name = this.next()
			if (name.kind !== 'name') throw new Unreadable(unreadable('After the dot comes the name of a column.', name.span))
			of = { kind: 'member', of, name: name.text, nameSpan: name.span, span: join(of.span, name.span) }
		}
		return of
	}

	private readOperand(): Syntax {
		const token = this.next()
		switch (token.kind) {
			case 'number':
				return { kind: 'number', value: Number(token.text), span: token.span }
			case 'text':
				return { kind: 'text', value: token.text, span: token.span }
			case 'name':
				return this.readNameOrCall(token)
			case 'word':
				return this.readWord(token)
			case 'sign':
				if (token.text === '(') return this.readBracket()
				if (token.text === '{')
					return { kind: 'list', items: this.readArguments('}'), span: join(token.span, this.lastSpan()) }
				throw new Unreadable(unreadable(`A value was expected before "${token.text}".`, token.span))
			case 'end':
				throw new Unreadable(unreadable('The formula stops too early: a value was expected here.', token.span))
		}
	}

	private readBracket(): Syntax {
		const inner = this.guarded(() => this.readOr())
		const close = this.next()
		if (close.text !== ')') throw new Unreadable(unreadable('A closing bracket ")" is missing here.', close.span))
		return inner
	}

	private readWord(token: Token): Syntax {
		if (token.text === 'me' || token.text === 'this') return { kind: token.text, span: token.span }
		if (this.peek().text === '(') return this.readCall(token.text, token.span)
		if (token.text === 'true' || token.text === 'false') {
			return { kind: 'yesno', value: token.text === 'true', span: token.span }
		}
		throw new Unreadable(unreadable(`A value was expected before "${token.text}".`, token.span))
	}

	private readNameOrCall(token: Token): Syntax {
		if (token.quoted) return { kind: 'name', name: token.text, span: token.span }
		if (this.peek().text === '(') return this.readCall(token.text, token.span)
		const dotted = `${token.text}.${this.tokens[this.at + 1]?.text ?? ''}`
		if (this.peek().text === '.' && DOTTED_FUNCTIONS.has(dotted.toUpperCase())) {
			this.at += 2
			return this.readCall(dotted, token.span)
		}
		return { kind: 'name', name: token.text, span: token.span }
	}

	private readCall(name: string, nameSpan: Span): Syntax {
		this.at++
		const args = this.guarded(() => this.readArguments(')'))
		return { kind: 'call', name: name.toUpperCase(), nameSpan, args, span: join(nameSpan, this.lastSpan()) }
	}

	private readArguments(close: string): Syntax[] {
		const args: Syntax[] = []
		const separators = new Set<string>()
		if (this.peek().text === close && this.peek().kind === 'sign') {
			this.at++
			return args
		}
		for (;;) {
			args.push(this.guarded(() => this.readOr()))
			const token = this.next()
			if (token.kind === 'sign' && token.text === close) break
			if (token.text !== ';' && token.text !== ',') {
				throw new Unreadable(unreadable(`A ";" or a closing "${close}" was expected here.`, token.span))
			}
			separators.add(token.text)
			if (separators.size > 1) throw new Unreadable(mixedSeparators(token.span))
		}
		return args
	}

	private guarded<T>(read: () => T): T {
		if (++this.depth > MAX_DEPTH) {
			throw new Unreadable(
				unreadable('This formula is nested too deeply. Put a part of it into a column.', this.peek().span)
			)
		}
		const result = read()
		this.depth--
		return result
	}

	private isWord(word: string): boolean {
		return this.peek().kind === 'word' && this.peek().text === word
	}

	/** `not(` without a space is the function, which binds like any call; `not (` is the operator. */
	private startsNotCall(): boolean {
		return this.tokens[this.at + 1]?.text === '(' && this.tokens[this.at + 1]?.span.from === this.peek().span.to
	}

	private peek(): Token {
		return this.tokens[this.at] ?? this.lastToken()
	}

	private next(): Token {
		const token = this.peek()
		if (token.kind !== 'end') this.at++
		return token
	}

	private lastToken(): Token {
		const last = this.tokens[this.tokens.length - 1]
		if (!last) throw new Error('Expected the tokens to be closed by an end token, got none')
		return last
	}

	private lastSpan(): Span {
		return (this.tokens[this.at - 1] ?? this.lastToken()).span
	}
}

function join(a: Span, b: Span): Span {
	return { from: a.from, to: b.to }
}
