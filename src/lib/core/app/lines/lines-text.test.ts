/** Nested lines copied as text and pasted elsewhere are the same sentences, whatever stands in them. */
import { describe, expect, test } from 'vitest'
import type { Vocabulary } from '../../sentence/vocabulary.ts'
import { SCREEN_SENTENCES, screenLineSchema, type ScreenLine, type ScreenLineInput } from './all.ts'
import { linesFromText, linesToText } from './lines-text.ts'
import { beginLine, insertAll, placeBeside } from './new-line.ts'
import { placedLines } from './tree.ts'

const vocabulary: Vocabulary = {
	tables: [
		{
			...{ id: 5, name: 'Moorings, all' },
			columns: [
				{ id: 17, name: 'Code', type: 'code' },
				{ id: 18, name: 'Next due', type: 'date' },
				{ id: 19, name: 'due soon', type: 'computed', condition: true }
			]
		}
	],
	roles: [{ id: 1, name: 'Divers' }],
	screens: [{ id: 's1', title: 'Mooring sheet' }],
	signoffs: [{ id: 'go', name: 'Over five hundred' }],
	routines: [{ id: 'r1', name: 'Looked today' }]
}

let made = 0
const newId = () => `n${++made}`
const lines = (...list: ScreenLineInput[]): ScreenLine[] => list.map((line) => screenLineSchema.parse(line))
/** Without ids, which are new each time. */
const plain = (list: readonly ScreenLine[]): unknown =>
	list.map(({ id: _id, ...line }) => ('lines' in line ? { ...line, lines: plain(line.lines) } : line))

const TWELVE = lines(
	{ id: 'a', kind: 'heading', text: 'Due ] this [week]' },
	{
		...{ id: 'b', kind: 'section', title: 'What is due,\n  and what is past', who: [1] },
		lines: [
			{
				...{
					id: 'c',
					kind: 'list',
					table: 5,
					where: 'due soon and Code <> "]\n  Heading [x]"',
					columns: [17, 18],
					opens: 's1'
				},
				...{ sort: [{ column: 18, descending: false }, { column: 17, descending: true }], group: 17 }, // prettier-ignore
				...{ finds: [17], filters: [17, 18], limit: 20, empty: 'Nothing is due.' },
				lines: [
					{ id: 'd', kind: 'mark', word: 'past due', tone: 'past', where: "'Next due' < TODAY()" },
					{ id: 'e', kind: 'button', label: 'Looked', does: { kind: 'run', routine: 'r1' } }
				]
			},
			{ id: 'f', kind: 'divider' },
			{
				...{ id: 'g', kind: 'tabs' },
				lines: [
					{
						id: 'h',
						kind: 'tab',
						title: 'One',
						lines: [{ id: 'i', kind: 'text', text: 'For *{me.Name}*\n\n- a\n- b' }]
					},
					{ id: 'j', kind: 'tab', title: 'Two', lines: [] }
				]
			}
		]
	},
	{ id: 'k', kind: 'beside', as: '1 to 2', lines: [{ id: 'l', kind: 'record', table: 5, columns: [17] }] }
)

test('twelve nested lines come back as they were, under new ids', () => {
	const pasted = linesFromText(linesToText(TWELVE, vocabulary), vocabulary, newId)
	expect(pasted?.problems).toEqual([])
	expect(placedLines(pasted?.lines ?? [])).toHaveLength(12)
	expect(plain(pasted?.lines ?? [])).toEqual(plain(TWELVE))
	expect(new Set(placedLines(pasted?.lines ?? []).map(({ line }) => line.id)).size).toBe(12)
})

test('what is not known where it is pasted is said, and the rest is taken', () => {
	const text = linesToText(TWELVE, vocabulary)
	const pasted = linesFromText(text, { ...vocabulary, tables: [] }, newId)
	expect(pasted?.problems.join(' ')).toContain('There is no table "Moorings, all".')
	expect(pasted?.lines[0]).toMatchObject({ kind: 'heading' })
	expect(linesFromText('Dear all,\nsee below', vocabulary, newId)).toBeUndefined()
})

test('lines that are pasted stand where the first goes, in their order', () => {
	const added = lines({ id: 'x', kind: 'divider' }, { id: 'y', kind: 'heading', text: '' })
	const ids = (chosen: string | undefined) =>
		placedLines(insertAll(TWELVE, added, placeBeside(TWELVE, chosen))).map(({ line }) => line.id)
	expect(ids('a').slice(0, 4)).toEqual(['a', 'x', 'y', 'b'])
	expect(ids('h').slice(7, 11)).toEqual(['h', 'i', 'x', 'y'])
	expect(ids(undefined).slice(-2)).toEqual(['x', 'y'])
})

describe('a new line', () => {
	const begin = (line: Record<string, unknown>) => beginLine(line, { id: 'n', screen: 's1', vocabulary, within: [] })

	test.each(SCREEN_SENTENCES.map(({ kind, blank }) => [kind.kind, blank] as const))(
		'of the kind %s works blank',
		(kind, blank) => {
			expect(begin(blank)).toMatchObject({ id: 'n', kind })
		}
	)

	test('has what it cannot do without', () => {
		expect(begin({ kind: 'list', table: null, where: '', sort: [], columns: [], opens: null })).toMatchObject({
			...{ id: 'n', table: 5, columns: [17, 18], who: [], lines: [] }
		})
		expect(begin({ kind: 'button', label: '', does: null })).toMatchObject({ does: { kind: 'open', screen: 's1' } })
	})

	test('goes into the chosen line where that may hold it, or else after it', () => {
		const beside = (id: string | undefined, kind: string) => placeBeside(TWELVE, id).spotFor(kind)
		expect(beside('b', 'heading')).toEqual({ lastIn: 'b' })
		expect(beside('c', 'mark')).toEqual({ lastIn: 'c' })
		expect(beside('c', 'heading')).toEqual({ after: 'c' })
		expect(beside('a', 'heading')).toEqual({ after: 'a' })
		// Beside a mark, which stands in a list, a heading goes after the list.
		expect(beside('d', 'mark')).toEqual({ after: 'd' })
		expect(beside('d', 'heading')).toEqual({ after: 'c' })
		expect(beside('i', 'tab')).toEqual({ after: 'h' })
		expect(beside(undefined, 'heading')).toBe('end')
		const kinds = (id: string | undefined) => placeBeside(TWELVE, id).kinds.map(({ kind }) => kind.kind)
		expect(kinds('c')).toContain('mark')
		expect(kinds('a')).not.toContain('mark')
		expect(kinds('g')).toContain('tab')
		expect(placeBeside(TWELVE, 'g').says).toBe('into or after line 7')
	})
})
