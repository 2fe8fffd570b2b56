/** What differs between two versions of an app, and what is found in one, in the sentences that a builder reads. */
import { expect, test } from 'vitest'
import { compareVersions, noteOf, type Piece } from './compare-versions.ts'
import { appSchema, type AppInput } from './document.ts'
import { findInApp, printApp, type Names } from './printed.ts'

const names: Names = {
	tables: [
		{
			...{ id: 5, name: 'Moorings' },
			columns: [
				{ id: 17, name: 'Code', type: 'code' },
				{ id: 18, name: 'Next due', type: 'date' }
			]
		}
	],
	roles: [{ id: 1, name: 'Divers' }]
}
const BEFORE = {
	...{ format: 3, name: 'Mooring Care', about: '', colour: 'sea' },
	screens: [
		{
			...{ id: 's1', title: 'Due' },
			lines: [
				{ id: 'h', kind: 'heading', text: 'Due this week' },
				{ id: 'l', kind: 'list', table: 5, where: "'Next due' < TODAY() + 7", sort: [], columns: [17], opens: null },
				{ id: 'd', kind: 'divider' }
			]
		},
		{ id: 's2', title: 'Old', lines: [{ id: 'o', kind: 'heading', text: 'Old' }] }
	],
	routines: [
		{
			...{ id: 'r', name: 'Looked', start: { kind: 'button', table: 5 } },
			steps: [{ id: 'a', kind: 'set', column: 18, formula: 'TODAY() + 7' }]
		}
	],
	signoffs: []
} satisfies AppInput
const AFTER = {
	...BEFORE,
	name: 'Moorings',
	screens: [
		{
			...{ id: 's1', title: 'Due now' },
			lines: [
				{ id: 'd', kind: 'divider' },
				{ id: 'h', kind: 'heading', text: 'Due today' },
				{
					...{ id: 'sec', kind: 'section', title: 'All' },
					lines: [
						{
							id: 'l',
							kind: 'list',
							table: 5,
							where: "'Next due' < TODAY() + 7",
							sort: [],
							columns: [17, 18],
							opens: null
						}
					]
				}
			]
		}
	],
	routines: [{ ...BEFORE.routines[0], steps: [{ id: 'a', kind: 'set', column: 18, formula: 'TODAY() + 14' }] }]
} as AppInput

const [before, after] = [appSchema.parse(BEFORE), appSchema.parse(AFTER)]

const MARKS = { same: '', old: '-', new: '+' }
const show = ({ text, kind }: Piece) => MARKS[kind] + text + MARKS[kind]

test('says part by part what came, went, changed and moved', () => {
	const said = compareVersions(before, after, names)
	expect(said.map(({ place }) => place)).toEqual(['The app', 'Screen Due now', 'Routine Looked', 'Screen Old'])
	const inWords = said.map(({ differences }) =>
		differences.map(({ kind, number, pieces }) => `${kind} ${number}: ${pieces.map(show).join('')}`)
	)
	expect(inWords).toEqual([
		['changed : Name: -Mooring Care-+Moorings+'],
		[
			'changed : Name: -Due-+Due now+',
			'moved 1: Divider',
			'changed 2: Heading -Due this week-+Due today+',
			'added 3: +Section All+',
			expect.stringMatching(/^changed 4: List of Moorings where .*; each row shows -Code-\+Code, Next due\+/)
		],
		['changed 1: Set Next due to -TODAY() + 7-+TODAY() + 14+'],
		['removed : -Screen Old-']
	])
})

test('finds nothing between equal versions', () => {
	expect(compareVersions(before, structuredClone(before), names)).toEqual([])
})

test('looks for all words of what is sought, in lines and titles of every part', () => {
	const found = (words: string) =>
		findInApp(printApp(before, names), words).map(({ title, lines }) => [title, ...lines.map(({ number }) => number)])
	expect(found('next DUE')).toEqual([
		['Due', '2'],
		['Looked', '1']
	])
	expect(found('due week')).toEqual([['Due', '1']])
	expect(found('old')).toEqual([['Old', '1']])
	expect(found('  ')).toEqual([])
	expect(found('barge')).toEqual([])
})

test('a note says what has changed in a few words', () => {
	const note = noteOf(compareVersions(appSchema.parse(BEFORE), appSchema.parse(AFTER), names))
	expect(note).toContain('Name or look changed.')
	expect(note).toContain('Screen Due now: ')
	expect(note).toContain('Screen Old removed.')
	expect(noteOf([])).toBe('')
	const many = Array.from({ length: 90 }, (_each, i) => ({ place: `Screen No ${i}`, differences: [{ kind: 'added' as const, number: '', pieces: [] }] })) // prettier-ignore
	expect(noteOf(many).length).toBeLessThanOrEqual(400)
	expect(noteOf(many).endsWith('…')).toBe(true)
})
