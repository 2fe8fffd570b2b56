import { z } from 'zod'
import { mistake, SCREEN_GONE, type Found } from '../../document/findings.ts'
import { id, number, words } from '../../document/parts.ts'
import { nameKey } from '../../text/key.ts'
import { PLAIN_LINE, type Around, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'

/** Shorter than this nobody reads a screen; longer than an hour nobody waits. */
const [LEAST, MOST] = [5, 3_600]

export const timerSchema = z.object({
	...lineParts,
	kind: z.literal('timer'),
	/** The first screen, where it is null. */
	screen: id.nullable().default(null),
	seconds: number.max(999_999),
	/** What goes along of what the screen holds, by their names: that of the tablet, and not of who stood before it. */
	keeps: words.default('')
})
export type TimerLine = z.infer<typeof timerSchema>

/** For a tablet that nobody attends: whoever comes next finds nothing of who was there before. */
export const timer: LineEntry<TimerLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'timer',
			about: 'Goes back by itself when nobody touches the screen, and leaves nothing that was typed',
			parts: withWhom(
				'Goes back to ',
				{ key: 'screen', type: 'screen', title: 'Where it goes back to', empty: 'the first screen' },
				' after ',
				{ key: 'seconds', type: 'count', title: 'After how many seconds' },
				' seconds untouched',
				{ key: 'keeps', type: 'text', title: 'What it keeps', before: ', keeping ', clause: 'keeping…' }
			)
		},
		blank: { kind: 'timer', screen: null, seconds: 60, keeps: '', who: [] }
	},
	check(line, around) {
		const isFair = line.seconds >= LEAST && line.seconds <= MOST
		return [
			...checkWhom(line, around),
			...(line.screen !== null && !around.hasScreen(line.screen) ? mistake(SCREEN_GONE) : []),
			...keptBy(line).flatMap((name) => checkKept(name, around)),
			...(isFair ? [] : mistake(`It goes back after ${LEAST} to ${MOST.toLocaleString('en-GB')} seconds.`))
		]
	}
}

/** Names are words: `berth, quay` and `berth and quay` are two. */
export function keptBy({ keeps }: Pick<TimerLine, 'keeps'>): string[] {
	return keeps.split(/[\s,]+/).filter((word) => word !== '' && word !== 'and')
}

function checkKept(name: string, { here }: Around): Found[] {
	return here?.has(nameKey(name))
		? []
		: mistake(`This screen holds nothing that is called "${name}", so nothing of it can be kept.`)
}
