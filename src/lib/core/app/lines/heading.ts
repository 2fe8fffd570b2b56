import { z } from 'zod'
import { words } from '../../document/parts.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'

export const headingSchema = z.object({ ...lineParts, kind: z.literal('heading'), text: words })
export type HeadingLine = z.infer<typeof headingSchema>

export const heading: LineEntry<HeadingLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'heading',
			about: 'Words over what follows',
			parts: withWhom('Heading ', { key: 'text', type: 'text', title: 'words' })
		},
		blank: { kind: 'heading', text: '', who: [] }
	},
	check: checkWhom
}
