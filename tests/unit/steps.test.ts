/** Questions at a counter: who is asked what, what goes in, and what is wrong with them before a release. */
import { beforeEach, expect, test } from 'vitest'
import type { ScreenInput } from '$lib/core/app/document.ts'
import { checkApp } from '$lib/core/app/check-app.ts'
import { judgeFilled, sendForm } from '$lib/server/apps/forms/fill-form.ts'
import { openScreen } from '$lib/server/apps/open-screen.ts'
import type { Store } from '$lib/server/store/store.ts'
import { accessLine } from '../support/access-line.ts'
import { documentOf, NOW } from '../support/ports.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'

const [SAID, STAY, WHY, WORDS, MARK, AGAIN, QUAY] = [2, 20, 21, 22, 23, 24, 25]
const [CREW, IMKE, UNA] = [10, 2, 3]

let store: Store

beforeEach(() => {
	const except = { kind: 'except' as const, columns: [MARK] }
	store = openScratch({
		now: NOW,
		roles: [{ id: CREW, name: 'Crew', includes: [] }],
		lines: [accessLine({ id: 'c', table: SAID, role: CREW, verbs: ['add'], columns: except })],
		tables: [
			{
				...{ id: SAID, name: 'said', keepers: [KEEPER], label: STAY },
				columns: [
					{ id: STAY, name: 'Stay', type: 'choice', choices: ['Good', 'Poor'], required: true },
					{ id: WHY, name: 'Why', type: 'choice', choices: ['Noise', 'Price'] },
					{ id: WORDS, name: 'In words', type: 'text' },
					{ id: MARK, name: 'Mark', type: 'whole number' },
					{ id: AGAIN, name: 'Again', type: 'yes/no' },
					{ id: QUAY, name: 'Quay', type: 'text' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (${IMKE}, 0, 0, 'Imke', 'imke'), (${UNA}, 0, 0, 'Una', 'una');
		INSERT INTO role_held (person, role) VALUES (${IMKE}, ${CREW})`)
})

type Line = NonNullable<ScreenInput['lines']>[number]

const ASKS: Line[] = [
	{ id: 'w', kind: 'with', value: '"East " & 2', as: 'quay' },
	{
		...{ id: 'a', kind: 'ask', column: STAY, question: 'How was it, {me.Name}?' },
		lines: [
			{ id: 'a1', kind: 'answer', value: 'Poor', label: 'Not good', tone: 'past' },
			{ id: 'a2', kind: 'answer', value: 'Good' }
		]
	},
	{ id: 'b', kind: 'ask', column: WHY, when: 'Stay = "Poor"' },
	{ id: 'm', kind: 'ask', column: MARK },
	{ id: 'c', kind: 'ask', column: AGAIN, skips: 'which may be skipped' }
]
const lines = (asks: Line[] = ASKS): Line[] => [
	{ id: 's', kind: 'steps', table: SAID, thanks: 'Thank you for “{Stay}”.', lines: asks }
]
const place = (person: number) => ({
	...{ app: 1, draft: true, document: documentOf(lines()), screen: 's', actor: { person }, now: NOW }
})
const filled = (person: number, cells: Record<number, string | boolean>) => ({
	...{ ...place(person), line: 's', items: {} },
	cells: Object.entries(cells).map(([column, value]) => ({ column: Number(column), value }))
})

test('asks one person what they may say, by the answers that are written or by the choices there are', () => {
	const [shown] = openScreen(store, place(IMKE)).screen?.lines ?? []
	if (shown?.kind !== 'steps') throw new Error('Expected questions')
	const says = shown.asks.map(({ question, answers, canSkip }) => [question, answers.map(({ label, tone }) => [label, tone]), canSkip]) // prettier-ignore
	expect(says).toEqual([
		['How was it, Imke?', [['Not good', 'past'], ['Good', null]], false], // prettier-ignore
		['Why', [['Noise', null], ['Price', null]], false], // prettier-ignore
		// A mark is not theirs to give.
		['Again', [['Yes', null], ['No', null]], true] // prettier-ignore
	])
	expect(shown.pause).toBe(5)
	expect(() => openScreen(store, place(UNA))).toThrow('not for you to see')
})

test('what follows from an answer is asked, and only that goes in', () => {
	const unasked = (cells: Record<number, string>) => judgeFilled(store, filled(IMKE, cells)).unasked
	expect([unasked({ [STAY]: 'Good' }), unasked({ [STAY]: 'Poor' })]).toEqual([['b'], []])
	const send = (cells: Record<number, string | boolean>) =>
		store.db.transaction(() => sendForm(store, filled(IMKE, { ...cells, [QUAY]: 'East 2' })))()
	expect(send({ [STAY]: 'Poor', [WHY]: 'Noise', [AGAIN]: true }).says).toBe('Thank you for “Poor”.')
	// Typed before another answer was given; and a column that nobody asks for.
	send({ [STAY]: 'Good', [WHY]: 'Price', [WORDS]: 'Sent by hand' })
	expect(store.db.prepare(`SELECT c20, c21, c22, c24, c25 FROM t2 ORDER BY n`).raw().all()).toEqual([
		[2, 1, null, 1, 'East 2'],
		[1, null, null, null, 'East 2']
	])
	expect(() => send({ [STAY]: 'Poor' })).toThrow('Why must be filled in')
	expect(() => send({})).toThrow('Stay must be filled in')
})

test.each([
	['asks nothing', [], 'It asks for nothing yet'],
	['leaves out what must be filled in', [{ id: 'b', kind: 'ask', column: WHY }], '"Stay" must be filled in'],
	[
		'has an answer that goes nowhere',
		[{ id: 'a', kind: 'ask', column: STAY, lines: [{ id: 'x', kind: 'answer', value: 'Dreadful' }] }],
		'"Dreadful" does not go into Stay'
	],
	['reads what is not there', [{ id: 'a', kind: 'ask', column: STAY, when: 'Stary = "x"' }], 'Stary'],
	[
		'gives what no column takes',
		[
			{ id: 'w', kind: 'with', value: '1', as: 'pier' },
			{ id: 'a', kind: 'ask', column: STAY }
		],
		'said has no column "pier"'
	]
] as [string, Line[], string][])('one that %s is said before a release', (_what, asks, message) => {
	const found = checkApp(documentOf(lines(asks)), store.workspace())
	expect(found.map((each) => each.message).join(' ')).toContain(message)
})
