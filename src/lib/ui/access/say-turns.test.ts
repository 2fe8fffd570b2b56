/** What unsaved lines turn for people, as it is said beside them. */
import { expect, test } from 'vitest'
import type { PersonCount } from '$lib/core/requests/access.ts'
import { sayTurns } from './say-turns.ts'

const person = (before: number, seen: number, withheldBefore: string[] = [], withheld: string[] = []): PersonCount => ({
	...{ person: 1, name: 'Imke Dahl', roles: ['Divers'], change: 0 },
	...{ before, seen, withheldBefore, withheld }
})

test.each<[string, PersonCount[], string]>([
	['nobody', [], 'Nobody gains or loses a row.'],
	['nothing', [person(3, 3)], 'Nobody gains or loses a row.'],
	['one gains', [person(0, 3)], '1 person gains rows, 0 lose some.'],
	['one loses', [person(3, 0)], '0 people gain rows, 1 loses some.'],
	['some of both', [person(0, 1), person(0, 2), person(5, 4), person(5, 1)], '2 people gain rows, 2 lose some.'],
	[
		'a column more for two, another less for one',
		[person(3, 3, ['Holder']), person(3, 3, ['Holder']), person(3, 3, [], ['Note'])],
		'Nobody gains or loses a row. 2 people get Holder. 1 person loses Note.'
	],
	[
		'columns by name, each once',
		[person(3, 3, ['Holder', 'Note']), person(3, 3, ['Note'])],
		'Nobody gains or loses a row. 2 people get Holder, Note.'
	],
	// Who sees no row sees no column either; the rows say so.
	['columns of who saw no row before', [person(0, 3, ['Holder'])], '1 person gains rows, 0 lose some.'],
	['columns of who sees none now', [person(3, 0, [], ['Holder'])], '0 people gain rows, 1 loses some.']
])('%s', (_what, people, said) => {
	expect(sayTurns(people)).toBe(said)
})
