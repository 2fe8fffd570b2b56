/** The sentence about a screen itself: where it stands among the others, under which word and icon, and for whom. */
import { mistake, type Found } from '../document/findings.ts'
import { checkCondition } from '../formula/check/check.ts'
import type { Catalogue } from '../model/table.ts'
import type { Sentence, Slot } from '../sentence/types.ts'
import type { Screen } from './document.ts'
import { showsRow, type ScreenLine } from './lines/all.ts'
import type { Around } from './lines/entry.ts'

const WHO: Slot = { key: 'who', type: 'roles', title: 'For whom it is', before: ', for ', clause: 'for…' }

export const SCREEN_LINE: Sentence = {
	kind: {
		kind: 'screen',
		about: 'Where the screen stands, and for whom',
		parts: [
			'Stands ',
			{ key: 'stands', type: 'standing', title: 'Where it is found', empty: 'in the navigation' },
			{ key: 'label', type: 'text', title: 'What it is called there', before: ' as ', clause: 'called…' },
			{ key: 'icon', type: 'icon', title: 'Its icon', before: ', with the icon ', clause: 'with an icon…' },
			WHO,
			{
				key: 'first',
				type: 'roles',
				title: 'Who begins here',
				before: '; the first screen of ',
				clause: 'the first screen of…'
			},
			{
				key: 'begins',
				type: 'condition',
				title: 'To whom the app begins here, by what is known of them: me.Name',
				before: '; the first screen where ',
				clause: 'the first screen where…'
			}
		],
		// A screen that is opened from a row stands in no navigation, whatever is said of it.
		shown: (screen) => {
			if (screen['stands'] === 'only as lines of other screens') return SCREEN_LINE.kind.parts.slice(0, 2)
			const isOfRow = showsRow(screen['lines'] as readonly ScreenLine[])
			return isOfRow ? ['Opens from a row', WHO] : SCREEN_LINE.kind.parts
		}
	},
	blank: { stands: null, label: '', icon: null, who: [], first: [], begins: '', lines: [] }
}

export function checkScreen(screen: Screen, { hasRole, catalogue }: Pick<Around, 'hasRole' | 'catalogue'>): Found[] {
	const isGone = [...screen.who, ...screen.first].some((id) => !hasRole(id))
	const begins = (screen.first.length > 0 || screen.begins.trim() !== '') && showsRow(screen.lines)
	return [
		...(isGone ? mistake('A role that the screen is for is gone.') : []),
		...(begins ? mistake('It shows a row, so nobody can begin with it. Let them begin with a list.') : []),
		...checkBegins(screen, catalogue)
	]
}

function checkBegins({ begins }: Screen, catalogue: Catalogue): Found[] {
	if (begins.trim() === '') return []
	return checkCondition(begins, { catalogue, rows: [], me: true }).issues.flatMap(({ message }) => mistake(message))
}
