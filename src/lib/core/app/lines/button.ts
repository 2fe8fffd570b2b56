import { z } from 'zod'
import { mistake, SCREEN_GONE } from '../../document/findings.ts'
import { id, words } from '../../document/parts.ts'
import type { LineEntry } from './entry.ts'

export const buttonSchema = z.object({
	id,
	kind: z.literal('button'),
	label: words,
	does: z.union([z.object({ kind: z.literal('open'), screen: id }), z.object({ kind: z.literal('run'), routine: id })])
})
export type ButtonLine = z.infer<typeof buttonSchema>

export const button: LineEntry<ButtonLine> = {
	sentence: {
		kind: {
			kind: 'button',
			about: 'Opens a screen, or runs a routine on the row that is shown',
			parts: [
				'Button ',
				{ key: 'label', type: 'text', title: 'its words' },
				' ',
				{ key: 'does', type: 'does', title: 'opens or runs something', begins: ['opens', 'runs'] }
			]
		},
		blank: { kind: 'button', label: '', does: null }
	},
	written: () => [],
	order: () => undefined,
	showsRow: false,
	check({ label, does }, { hasScreen, hasButtonRoutine }) {
		if (label.trim() === '') return mistake('The button has no words on it.')
		if (does === null) return mistake('The button does nothing yet. Choose what it opens or runs.')
		if (does.kind === 'open') return hasScreen(does.screen) ? [] : mistake(SCREEN_GONE)
		return hasButtonRoutine(does.routine) ? [] : mistake('The routine it runs is gone, or starts by itself.')
	}
}
