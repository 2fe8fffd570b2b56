import type { Part, Sentence } from './types.ts'

const RIGHT: readonly Part[] = [
	{ key: 'role', type: 'role', title: 'a role' },
	' may ',
	{ key: 'verbs', type: 'verbs', title: 'see, add, change or remove' },
	' ',
	{ key: 'where', type: 'condition', title: 'Which rows', before: 'rows where ', empty: 'every row' },
	', ',
	{ key: 'columns', type: 'column scope', title: 'columns', begins: ['all columns', 'all but', 'only'] }
]

const AFTER: readonly Part[] = [
	'; after a change ',
	{ key: 'after', type: 'condition', title: 'What a row must satisfy after a change', empty: 'the same holds' }
]

/** "Divers may see rows where harbour = me.harbour, all columns": one line of access to the table it stands under. */
export const ACCESS_LINE: Sentence = {
	kind: {
		kind: 'access',
		about: 'Lets a role do something with some rows',
		offer: 'Let a role see, add, change or remove rows',
		parts: [...RIGHT, ...AFTER],
		// What holds after a change is no matter where nothing may be changed.
		shown: (line) => ((line['verbs'] as string[] | undefined)?.includes('change') ? [...RIGHT, ...AFTER] : RIGHT)
	},
	blank: { role: null, verbs: ['see'], where: '', columns: { kind: 'all' } }
}
