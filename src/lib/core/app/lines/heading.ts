import type { Sentence } from '../../sentence/parse.ts'

export const heading: Sentence = {
	kind: {
		kind: 'heading',
		about: 'Words over what follows',
		parts: ['Heading ', { key: 'text', type: 'text', title: 'words' }]
	},
	blank: { kind: 'heading', text: '' }
}
