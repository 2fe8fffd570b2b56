import { textKind } from './texts.ts'

/** The most characters that a cell holds, of any type. */
export const LONGEST_TEXT = 100_000

export const longText = textKind({
	name: 'long text',
	max: LONGEST_TEXT,
	normalize: (value) => value.replaceAll('\r\n', '\n')
})
