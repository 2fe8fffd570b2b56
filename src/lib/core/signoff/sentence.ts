import type { Sentence } from '../sentence/types.ts'

export const SIGNOFF_LINE: Sentence = {
	kind: {
		kind: 'signoff',
		about: 'Holds new rows until somebody has decided them',
		tableKey: 'table',
		parts: [
			'Rows of ',
			{ key: 'table', type: 'table', title: 'a table' },
			' ',
			{
				key: 'where',
				type: 'condition',
				me: false,
				title: 'Which rows',
				before: 'where ',
				empty: 'as soon as they are added'
			},
			' wait on ',
			{ key: 'decider', type: 'person', me: false, title: 'a formula that names a person' },
			', who is shown ',
			{ key: 'columns', type: 'columns', title: 'columns' },
			', with their ',
			{ key: 'children', type: 'children', title: 'Rows that belong to them', empty: 'own columns only' }
		]
	},
	blank: { table: null, where: '', decider: '', columns: [], children: [] }
}
