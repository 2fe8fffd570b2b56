import { z } from 'zod'
import { longWords } from '../../document/parts.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { checkPieces, checkWhom, lineParts, withWhom } from './parts.ts'

export const textSchema = z.object({ ...lineParts, kind: z.literal('text'), text: longWords })
export type TextLine = z.infer<typeof textSchema>

export const text: LineEntry<TextLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'text',
			about: 'Paragraphs, lists and links in Markdown; {me.Name} in braces says who is signed in',
			parts: withWhom('Text ', { key: 'text', type: 'message', title: 'words, in Markdown' })
		},
		blank: { kind: 'text', text: '', who: [] }
	},
	check: (line, around) => [...checkWhom(line, around), ...checkPieces(line.text, around)]
}
