import { textKind } from './texts.ts'

/** One line of text: line breaks become spaces. */
export const text = textKind({ name: 'text', normalize: (value) => value.replace(/\s*[\r\n]+\s*/g, ' ') })
