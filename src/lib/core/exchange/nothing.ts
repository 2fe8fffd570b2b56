/** Cells that hold something to look at and nothing to bring in. */

/** Words that stand for nothing in a file. */
export const NULL_WORDS: ReadonlySet<string> = new Set([
	'',
	'-',
	'–',
	'—',
	'n/a',
	'na',
	'null',
	'none',
	'nil',
	'#n/a',
	'?',
	'nan'
])

const LONGEST_NULL_WORD = Math.max(...[...NULL_WORDS].map((word) => word.length))

/** @param text without spaces at its ends */
export function isNothing(text: string): boolean {
	return text.length <= LONGEST_NULL_WORD ? NULL_WORDS.has(text.toLowerCase()) : false
}

/** Among words it may be an answer: damage "None" is not damage unknown. */
export function isWordForNone(text: string): boolean {
	return /^(none|nil)$/i.test(text)
}
