import type { Sentence } from '../../sentence/parse.ts'

export const record: Sentence = {
	kind: {
		kind: 'record',
		about: 'One row, shown whole; who may change it can do so there',
		tableKey: 'table',
		parts: [
			'Record sheet of ',
			{ key: 'table', type: 'table', title: 'a table' },
			', showing ',
			{ key: 'columns', type: 'columns', title: 'columns' }
		]
	},
	blank: { kind: 'record', table: null, columns: [] }
}
