/** Pages that are read one after the other before somebody begins. */
import { z } from 'zod'
import { mistake, SCREEN_GONE, type Found } from '../../document/findings.ts'
import { appFile, id, longWords, words } from '../../document/parts.ts'
import { ONCE } from '../../sentence/slots/all.ts'
import { PLAIN_LINE, type Around, type LineEntry } from './entry.ts'
import { checkPieces, checkWhom, lineParts, remarkUnsaid, withWhom } from './parts.ts'
import type { TreeLine } from './tree.ts'
import { checkGiven, givenBy } from './with.ts'

export const welcomeSchema = z.object({
	...lineParts,
	kind: z.literal('welcome'),
	/** Where its last key leads; it only puts the pages away, where it is null. */
	screen: id.nullable().default(null),
	/** What stands on that key. */
	last: words.default('Begin'),
	once: z.enum(ONCE).nullable().default(null)
})
export const leafSchema = z.object({
	...lineParts,
	kind: z.literal('leaf'),
	title: words,
	picture: appFile.nullable().default(null),
	says: words.default(''),
	text: longWords.default('')
})
export type WelcomeLine = z.infer<typeof welcomeSchema> & { readonly lines: readonly TreeLine[] }
export type LeafLine = z.infer<typeof leafSchema>

export const welcome: LineEntry<WelcomeLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'welcome',
			about: 'Pages with words and pictures that are read one after the other; the last key leads on',
			parts: withWhom(
				'Welcome, whose last key says ',
				{ key: 'last', type: 'text', title: 'What the last key says' },
				' and opens ',
				{ key: 'screen', type: 'screen', title: 'Where it leads', empty: 'nothing' },
				{ key: 'once', type: 'once', title: 'How often it is shown', before: ', shown ', clause: 'shown once…' }
			)
		},
		blank: { kind: 'welcome', screen: null, last: 'Begin', once: null, who: [], lines: [] }
	},
	holds: ['leaf', 'with'],
	check: (line, around) => [
		...checkWhom(line, around),
		...(line.screen !== null && !around.hasScreen(line.screen) ? mistake(SCREEN_GONE) : []),
		...(line.last.trim() === '' ? mistake('Its last key has no words on it.') : []),
		...checkGivenBy(line, around),
		...(!line.lines.some(({ kind }) => kind === 'leaf')
			? mistake('It has no page yet. Add a line "Welcome page" after it.')
			: [])
	]
}

function checkGivenBy(line: WelcomeLine, around: Around): Found[] {
	const { screen } = line
	const given = givenBy(line)
	if (screen !== null) return given.flatMap((each) => checkGiven(each, around.heldOn(screen), around))
	return given.length === 0
		? []
		: mistake('It opens no screen, so nothing can be given. Take out what it is given with.')
}

export const leaf: LineEntry<LeafLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'leaf',
			about: 'One of the pages of a welcome: a title, words, a picture',
			parts: withWhom(
				'Welcome page ',
				{ key: 'title', type: 'text', title: 'title' },
				{ key: 'text', type: 'message', title: 'words, in Markdown', before: ', saying ', clause: 'saying…' },
				{
					key: 'picture',
					type: 'picture',
					title: 'Its picture',
					before: ', with the picture ',
					clause: 'with a picture…'
				},
				{ key: 'says', type: 'text', title: 'What is on the picture', before: ', on which is ', clause: 'on which is…' }
			)
		},
		blank: { kind: 'leaf', title: '', picture: null, says: '', text: '', who: [] }
	},
	isInner: true,
	check: (line, around) => [
		...checkWhom(line, around),
		...(line.title.trim() === '' ? mistake('A page of a welcome needs a title.') : []),
		...checkPieces(line.text, around),
		...remarkUnsaid(line.picture, line.says)
	]
}
