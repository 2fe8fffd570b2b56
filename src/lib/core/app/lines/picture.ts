import { z } from 'zod'
import { mistake } from '../../document/findings.ts'
import { appFile, number, words } from '../../document/parts.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, remarkUnsaid, withWhom } from './parts.ts'

export const pictureSchema = z.object({
	...lineParts,
	kind: z.literal('picture'),
	picture: appFile.nullable(),
	/** For who does not see it, and while it is on its way. */
	says: words.default(''),
	/** Under it. */
	caption: words.default(''),
	/** In pixels, where it is not to take all the width that there is. */
	width: number.max(2_000).nullable().default(null)
})
export type PictureLine = z.infer<typeof pictureSchema>

export const picture: LineEntry<PictureLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'picture',
			about: 'A picture of your own: a plan, a sign, how something is done',
			parts: withWhom(
				'Picture ',
				{ key: 'picture', type: 'picture', title: 'Which picture' },
				{ key: 'says', type: 'text', title: 'What is on it', before: ', on which is ', clause: 'what is on it…' },
				{
					key: 'caption',
					type: 'text',
					title: 'What stands under it',
					before: '; under it stands ',
					clause: 'under it stands…'
				},
				{
					key: 'width',
					type: 'count',
					title: 'At most how many pixels wide',
					before: '; at most this wide: ',
					clause: 'at most… wide'
				}
			)
		},
		blank: { kind: 'picture', picture: null, says: '', caption: '', width: null, who: [] }
	},
	check(line, around) {
		if (line.picture === null) return mistake('It shows no picture yet. Choose one.')
		return [...checkWhom(line, around), ...remarkUnsaid(line.picture, line.says)]
	}
}
