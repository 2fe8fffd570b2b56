import type { Sentence } from '../../sentence/parse.ts'

export const list: Sentence = {
	kind: {
		kind: 'list',
		about: 'Rows of a table, one under the other',
		tableKey: 'table',
		parts: [
			'List of ',
			{ key: 'table', type: 'table', title: 'a table' },
			' ',
			{ key: 'where', type: 'condition', title: 'Which rows', before: 'where ', empty: 'every row' },
			', by ',
			{ key: 'sort', type: 'sort', title: 'Order', empty: 'the order they came in' },
			'; each row shows ',
			{ key: 'columns', type: 'columns', title: 'columns' },
			'; a tap opens ',
			{ key: 'opens', type: 'screen', title: 'A screen', empty: 'nothing' }
		]
	},
	blank: { kind: 'list', table: null, where: '', sort: null, columns: [], opens: null }
}
