import { textKind } from './texts.ts'

/** One line of text: line breaks become spaces. Most have none, and looking for one is far quicker than replacing. */
export const text = textKind({
	name: 'text',
	normalize: (value) => (/[\r\n]/.test(value) ? value.replace(/\s*[\r\n]+\s*/g, ' ') : value)
})
