import type { Sentence } from '../../sentence/parse.ts'

export const form: Sentence = {
	kind: {
		kind: 'form',
		about: 'Adds a row to a table',
		tableKey: 'table',
		parts: [
			'Form that adds to ',
			{ key: 'table', type: 'table', title: 'a table' },
			', asking for ',
			{ key: 'columns', type: 'columns', title: 'columns' },
			'; afterwards it says ',
			{ key: 'thanks', type: 'text', title: 'What is said after sending', empty: 'Saved.' }
		]
	},
	blank: { kind: 'form', table: null, columns: [], thanks: '' }
}
