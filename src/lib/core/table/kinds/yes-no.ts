import { read, refuse, type ColumnKind } from './kind.ts'

/** Words for yes and for no, by the pair that they belong to: a column of answers uses one. */
const PAIRS: readonly (readonly [yes: readonly string[], no: readonly string[]])[] = [
	[
		['yes', 'y'],
		['no', 'n']
	],
	[
		['true', 't'],
		['false', 'f']
	],
	[['1'], ['0']],
	[['on'], ['off']],
	[
		['ja', 'j'],
		['nein', 'n']
	],
	[['oui'], ['non']],
	[['si', 'sí'], ['no']],
	[['wahr'], ['falsch']],
	[
		['x', '✓', '✔'],
		['✗', '✘']
	]
]

const YES = new Set(PAIRS.flatMap(([yes]) => yes))
const NO = new Set(PAIRS.flatMap(([, no]) => no))

export const yesNo: ColumnKind = {
	name: 'yes/no',
	read: (text) => {
		const word = text.toLowerCase()
		if (YES.has(word)) return read(true)
		return NO.has(word) ? read(false) : refuse(`"${text}" is neither yes nor no.`)
	},
	check: (value) => (typeof value === 'boolean' ? read(value) : refuse('Yes or no was expected here.')),
	toStored: (value) => (value === true ? 1 : 0),
	fromStored: (stored) => stored === 1
}

/**
 * Whether values are the answers of one pair: `both` of them, or only one, which may as well mean something else. Undefined where
 * a value is no answer, or of another pair.
 */
export function answersOf(values: readonly string[]): 'both' | 'one' | undefined {
	const words = new Set(values.map((value) => value.toLowerCase()))
	const pair = PAIRS.find(([yes, no]) => [...words].every((word) => yes.includes(word) || no.includes(word)))
	if (!pair) return undefined
	return pair.every((side) => side.some((word) => words.has(word))) ? 'both' : 'one'
}
