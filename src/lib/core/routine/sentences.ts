import type { Sentence } from '../sentence/parse.ts'

/** A routine's start and its steps, as sentences. */

export const BUTTON_START: Sentence = {
	kind: {
		kind: 'button',
		about: 'Starts when somebody presses its button on a row',
		tableKey: 'start.table',
		parts: ['When its button is pressed on a row of ', { key: 'start.table', type: 'table', title: 'a table' }]
	},
	blank: { start: { kind: 'button', table: null } }
}

export const ROWS_START: Sentence = {
	kind: {
		kind: 'rows',
		about: 'Starts when a row is added or changed',
		tableKey: 'start.table',
		parts: [
			'When a row of ',
			{ key: 'start.table', type: 'table', title: 'a table' },
			' is ',
			{ key: 'start.when', type: 'when', title: 'added or changed' },
			' ',
			{ key: 'start.where', type: 'condition', title: 'Which rows', before: 'and ', empty: 'whatever it says' }
		]
	},
	blank: { start: { kind: 'rows', table: null, when: 'added', where: '' } }
}

export const SET_STEP: Sentence = {
	kind: {
		kind: 'set',
		about: 'Writes a column of the row',
		parts: [
			'Set ',
			{ key: 'column', type: 'column', title: 'a column' },
			' to ',
			{ key: 'formula', type: 'formula', title: 'a formula' }
		]
	},
	blank: { kind: 'set', column: null, formula: '' }
}

export const SEND_STEP: Sentence = {
	kind: {
		kind: 'send',
		about: 'Sends a message to the person that a formula names',
		parts: [
			'Send ',
			{ key: 'to', type: 'person', title: 'a formula that names a person' },
			' the message ',
			{ key: 'subject', type: 'text', title: 'its subject' },
			', saying ',
			{ key: 'body', type: 'long text', title: 'its words' }
		]
	},
	blank: { kind: 'send', to: '', subject: '', body: '' }
}

export const STEPS: readonly Sentence[] = [SET_STEP, SEND_STEP]
