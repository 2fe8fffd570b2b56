/** What somebody is in the middle of writing: the call they are in, and the name that has been begun. */

export interface CallAtCaret {
	readonly name: string
	/** Which of its parts the caret is in, from 0. */
	readonly part: number
}

/** The innermost call that is still open before the caret. Text in quotes opens and closes nothing. */
export function callAt(text: string, caret: number): CallAtCaret | undefined {
	const open: { name: string; part: number }[] = []
	const before = text.slice(0, caret).replace(/"[^"]*"?|'[^']*'?/g, (quoted) => ' '.repeat(quoted.length))
	for (let i = 0; i < before.length; i++) {
		const sign = before[i]
		if (sign === '(')
			open.push({ name: (/[\p{L}_][\p{L}\p{N}_.]*$/u.exec(before.slice(0, i))?.[0] ?? '').toUpperCase(), part: 0 })
		else if (sign === ')') open.pop()
		else if (sign === ';' || sign === ',') {
			const inner = open.at(-1)
			if (inner) inner.part++
		}
	}
	return open.findLast((call) => call.name !== '')
}

export interface Completion {
	readonly name: string
	/** Where the text that was begun starts; it goes up to the caret. */
	readonly from: number
}

const MOST = 6
/** One letter fits too much to be of use. */
const LEAST = 2

/** Names that go on from what stands before the caret: the longest beginning counts, so that names may hold spaces. */
export function completionsAt(text: string, caret: number, names: readonly string[]): readonly Completion[] {
	const before = text.slice(0, caret)
	if ((before.match(/"/g)?.length ?? 0) % 2 === 1) return []
	const starts = [...before.matchAll(/[\p{L}_][\p{L}\p{N}_]*/gu)].map((match) => match.index).slice(-5)
	for (const from of starts) {
		const begun = before.slice(from).toLowerCase()
		if (begun.length < LEAST) continue
		const found = names.filter((name) => name.toLowerCase().startsWith(begun) && name.toLowerCase() !== begun)
		if (found.length > 0) return found.slice(0, MOST).map((name) => ({ name, from }))
	}
	return []
}
