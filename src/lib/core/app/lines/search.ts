import { z } from 'zod'
import { mistake } from '../../document/findings.ts'
import { checkHeldName } from '../../sentence/held-kind.ts'
import { words } from '../../document/parts.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'

export const searchSchema = z.object({
	...lineParts,
	kind: z.literal('search'),
	/** What is typed is called so, for the other lines of the screen: `here.sought`. */
	holds: words,
	/** What is asked; "Search", where it is blank. */
	label: words.default(''),
	sample: words.default('')
})
export type SearchLine = z.infer<typeof searchSchema>

export const search: LineEntry<SearchLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'search',
			about: 'A box for words, by which other lines of the screen go; several lists can read the same one',
			parts: withWhom(
				'Search box for ',
				{ key: 'holds', type: 'text', title: 'one word' },
				{ key: 'label', type: 'text', title: 'What is asked', before: ', asking ', clause: 'asking…' },
				{ key: 'sample', type: 'text', title: 'A sample', before: ', such as ', clause: 'such as…' }
			)
		},
		blank: { kind: 'search', holds: 'sought', label: '', sample: '', who: [] }
	},
	chooses: ({ holds }) => (holds === '' ? undefined : { name: holds, kind: { type: 'text' } }),
	check: (line, around) => [
		...checkWhom(line, around),
		...(line.holds === '' ? mistake('Say what the words are called, in one word.') : checkHeldName(line.holds))
	]
}
