import { z } from 'zod'
import { mistake, type Found } from '../../document/findings.ts'
import { appFile, words } from '../../document/parts.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'

export const videoSchema = z.object({
	...lineParts,
	kind: z.literal('video'),
	title: words,
	/** One that plays here. */
	film: appFile.nullable().default(null),
	/** Or where it stands on the web: it opens there. */
	address: z.string().max(2_000).default('')
})
export type VideoLine = z.infer<typeof videoSchema>

export const video: LineEntry<VideoLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'video',
			about: 'A film: your own plays here once it is pressed, one on the web opens where it stands',
			parts: withWhom(
				'Video ',
				{ key: 'title', type: 'text', title: 'What it shows' },
				{ key: 'film', type: 'film', title: 'The file that plays', before: ', from the file ', clause: 'from a file…' },
				{ key: 'address', type: 'text', title: 'Where it stands on the web', before: ', at ', clause: 'at an address…' }
			)
		},
		blank: { kind: 'video', title: '', film: null, address: '', who: [] }
	},
	check: (line, around) => [...checkWhom(line, around), ...checkSource(line)]
}

function checkSource({ title, film, address }: VideoLine): Found[] {
	if (title.trim() === '') return mistake('Say what the film shows: it stands on the key that plays it.')
	if ((film === null) === (address === '')) return mistake('Choose a file, or write an address: one of the two.')
	return film !== null || isWebAddress(address) ? [] : mistake('Its address begins with https:// or http://.')
}

export function isWebAddress(address: string): boolean {
	return /^https?:\/\/[^\s]+$/i.test(address) && URL.canParse(address)
}
