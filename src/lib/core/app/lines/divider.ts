import { z } from 'zod'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'

export const dividerSchema = z.object({ ...lineParts, kind: z.literal('divider') })
export type DividerLine = z.infer<typeof dividerSchema>

export const divider: LineEntry<DividerLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: { kind: 'divider', about: 'A rule across the page', parts: withWhom('Divider') },
		blank: { kind: 'divider', who: [] }
	},
	check: checkWhom
}
