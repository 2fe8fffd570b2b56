import type { Sentence } from '../../sentence/parse.ts'

export const button: Sentence = {
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
}
