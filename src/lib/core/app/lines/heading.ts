import { z } from 'zod'
import { id, words } from '../../document/parts.ts'
import type { LineEntry } from './entry.ts'

export const headingSchema = z.object({ id, kind: z.literal('heading'), text: words })
export type HeadingLine = z.infer<typeof headingSchema>

export const heading: LineEntry<HeadingLine> = {
	sentence: {
		kind: {
			kind: 'heading',
			about: 'Words over what follows',
			parts: ['Heading ', { key: 'text', type: 'text', title: 'words' }]
		},
		blank: { kind: 'heading', text: '' }
	},
	written: () => [],
	order: () => undefined,
	showsRow: false,
	check: () => []
}
