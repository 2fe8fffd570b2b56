import { z } from 'zod'
import { mistake } from '../../document/findings.ts'
import { id } from '../../document/parts.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'
import type { TreeLine } from './tree.ts'
import { checkGiven, type WithLine } from './with.ts'

export const sharedSchema = z.object({ ...lineParts, kind: z.literal('shared'), screen: id.nullable() })
export type SharedLine = z.infer<typeof sharedSchema> & { readonly lines: readonly TreeLine[] }

/** Stands for lines that are written once for several screens. */
export const shared: LineEntry<SharedLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'shared',
			about: 'Lines that several screens share, written once: a screen that stands only as lines of other screens',
			parts: withWhom('Lines of ', { key: 'screen', type: 'shared lines', title: 'Which lines' })
		},
		blank: { kind: 'shared', screen: null, who: [], lines: [] }
	},
	holds: ['with'],
	check(line, around) {
		if (line.screen === null) return mistake('Say which lines it stands for.')
		if (!around.hasShared(line.screen))
			return mistake('The lines that it stands for are gone, or stand in the navigation as a screen of their own.')
		if (around.isShared) return mistake('Lines that are shared cannot hold shared lines themselves. Write them out.')
		const held = around.heldOn(line.screen)
		const given = line.lines.filter((each): each is WithLine => each.kind === 'with')
		return [...checkWhom(line, around), ...given.flatMap((each) => checkGiven(each, held, around))]
	}
}
