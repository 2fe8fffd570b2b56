import { z } from 'zod'
import { mistake, SCREEN_GONE } from '../../document/findings.ts'
import { id, words } from '../../document/parts.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'

export const buttonSchema = z.object({
	...lineParts,
	kind: z.literal('button'),
	label: words,
	does: z.union([z.object({ kind: z.literal('open'), screen: id }), z.object({ kind: z.literal('run'), routine: id })])
})
export type ButtonLine = z.infer<typeof buttonSchema>

export const button: LineEntry<ButtonLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'button',
			about: 'Opens a screen, or runs a routine on the row that is shown',
			parts: withWhom('Button ', { key: 'label', type: 'text', title: 'its words' }, ' ', {
				key: 'does',
				type: 'does',
				title: 'opens or runs something',
				begins: ['opens', 'runs']
			})
		},
		blank: { kind: 'button', label: '', does: null, who: [] }
	},
	check(line, around) {
		const { label, does } = line
		const { hasScreen, hasButtonRoutine } = around
		if (label.trim() === '') return mistake('The button has no words on it.')
		if (does === null) return mistake('The button does nothing yet. Choose what it opens or runs.')
		const goes = does.kind === 'open' ? hasScreen(does.screen) : hasButtonRoutine(does.routine)
		const gone = does.kind === 'open' ? SCREEN_GONE : 'The routine it runs is gone, or starts by itself.'
		return [...checkWhom(line, around), ...(goes ? [] : mistake(gone))]
	}
}
