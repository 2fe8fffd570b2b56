/** What a screen holds besides chosen rows: words, values of a column, what a link or a button gives it. */
import { beforeEach, describe, expect, test } from 'vitest'
import type { ScreenInput } from '$lib/core/app/document.ts'
import { checkApp } from '$lib/core/app/check-app.ts'
import { mapFormulas } from '$lib/core/app/walk-app.ts'
import { giveValues } from '$lib/server/apps/give-values.ts'
import { openScreen } from '$lib/server/apps/open-screen.ts'
import { tryCondition } from '$lib/server/review/bench.ts'
import { tryFormula } from '$lib/server/review/try-formula.ts'
import type { Store } from '$lib/server/store/store.ts'
import { KEEPER } from '../support/scratch-store.ts'
import { BERTHS, BO, CODE, documentOf, IMKE, NAME, NOW, openPorts, PORT, PORTS } from '../support/ports.ts'

type Lines = ScreenInput['lines']

let store: Store

beforeEach(() => {
	store = openPorts()
})

const berths = (parts: object) =>
	({
		...{ id: 'berths', kind: 'list', table: BERTHS, where: '', sort: [], columns: [CODE], opens: null },
		...parts
	}) as Lines[number]

const place = (lines: Lines, person: number) => ({
	...{ app: 1, draft: true, document: documentOf(lines), actor: { person }, now: NOW }
})
const shown = (lines: Lines, person: number, held: Record<string, string> = {}) =>
	openScreen(store, { ...place(lines, person), held }).screen?.lines ?? []
const codes = (...asked: Parameters<typeof shown>) =>
	shown(...asked).flatMap((line) => (line.kind === 'list' ? line.page.rows.map((row) => row.cells[`c${CODE}`]) : []))
const port = (n: number) => store.ids.toId(PORTS, n)

describe('words and values', () => {
	const lines: Lines = [
		{ id: 'sought', kind: 'search', holds: 'sought', label: 'Berth', sample: 'N1' },
		{ id: 'where', kind: 'filter', table: BERTHS, column: PORT, holds: 'where' },
		berths({ once: 'ISNUMBER(SEARCH(here.sought; code)) and port = here.where' })
	]

	test('each count once it is there, whatever the other is', () => {
		expect(codes(lines, BO)).toEqual(['N1', 'N2', 'S1'])
		expect(codes(lines, BO, { sought: 'n' })).toEqual(['N1', 'N2'])
		expect(codes(lines, BO, { where: port(2) })).toEqual(['S1'])
		expect(codes(lines, BO, { sought: '2', where: port(1) })).toEqual(['N2'])
		expect(codes(lines, BO, { sought: '  ' })).toEqual(['N1', 'N2', 'S1'])
	})

	test('are chosen among what their reader sees, and a row that they do not see is none', () => {
		const of = (person: number, held = {}) => shown(lines, person, held).find((line) => line.kind === 'choose')
		expect(of(BO)).toMatchObject({ label: 'port', holds: 'where', chosen: '' })
		const labels = (person: number) => {
			const line = of(person)
			return line?.kind === 'choose' ? line.options.map(({ cell }) => cell) : []
		}
		expect([labels(BO), labels(IMKE)]).toEqual([['North', 'South'], ['North']])
		expect(of(BO, { where: port(2) })).toMatchObject({ chosen: port(2) })
		expect(of(IMKE, { where: port(2) })).toMatchObject({ chosen: '' })
		expect(codes(lines, IMKE, { where: port(2) })).toEqual(codes(lines, IMKE))
	})

	test('are chosen among texts that stand in a column, of rows that their reader sees', () => {
		const by: Lines = [
			{ id: 'by', kind: 'filter', table: PORTS, column: NAME, holds: 'by' },
			berths({ once: 'port.name = here.by' })
		]
		const options = (person: number) =>
			shown(by, person).flatMap((line) => (line.kind === 'choose' ? line.options.map(({ value }) => value) : []))
		expect([options(BO), options(IMKE)]).toEqual([['North', 'South'], ['North']])
		expect(codes(by, BO, { by: 'South' })).toEqual(['S1'])
		expect(codes(by, IMKE, { by: 'South' })).toEqual([])
	})

	test('say what was typed, and a list that needs it waits', () => {
		const waiting: Lines = [lines[0] as Lines[number], berths({ where: 'code = here.sought' })]
		expect(shown(waiting, BO, { Sought: 'S1' })[0]).toMatchObject({ kind: 'search', typed: 'S1', sample: 'N1' })
		expect(shown(waiting, BO)[1]).toMatchObject({ waitsFor: 'sought', count: 0 })
		expect(shown(waiting, BO, { sought: 's1' })[1]).toMatchObject({ waitsFor: '', count: 1 })
	})
})

describe('what is held from the start', () => {
	const says = (what: string, starts: string, held: Record<string, string> = {}) => {
		const text = { id: 't', kind: 'text', text: '{here.it}' } as const
		const hold = { id: 'h', kind: 'hold', what: what as 'a text', holds: 'it', starts } as const
		return shown([hold, text, berths({})], BO, held).flatMap((line) => (line.kind === 'text' ? line.html.trim() : []))
	}

	test.each([
		['a number', '2 + 1', {}, '<p>3</p>'],
		['a number', '2 + 1', { it: '7' }, '<p>7</p>'],
		['a number', '2 + 1', { it: 'seven' }, '<p></p>'],
		['a text', 'me.Name', {}, '<p>Bo</p>'],
		['a text', '', { it: '<b>*x*</b>' }, '<p>&lt;b&gt;*x*&lt;/b&gt;</p>'],
		['a date', 'TODAY()', {}, '<p>29 Nov 2026</p>'],
		['a date', '', { it: '2026-12-24' }, '<p>24 Dec 2026</p>'],
		['a date', '', { it: 'Christmas Eve' }, '<p></p>'],
		['yes or no', '', { it: 'yes' }, '<p>yes</p>'],
		['a number', '1 / 0', {}, '<p></p>']
	])('%s starting as %s, given %j, says %s', (what, starts, held, html) => {
		expect(says(what, starts, held)).toEqual([html])
	})

	test('is a row only where its reader sees it', () => {
		const lines: Lines = [
			{ id: 'h', kind: 'hold', what: 'a row', rows: PORTS, holds: 'it' },
			{ id: 'r', kind: 'record', table: PORTS, columns: [NAME], held: 'it' }
		]
		const sheet = (person: number) =>
			shown(lines, person, { it: port(2) }).map((line) => (line.kind === 'record' ? line.row?.id : ''))
		expect(sheet(BO)).toEqual([port(2)])
		expect(sheet(IMKE)).toEqual([undefined])
	})
})

describe('a button', () => {
	const lines: Lines = [
		{ id: 'n', kind: 'hold', what: 'a number', holds: 'nights', starts: '1' },
		{ id: 'w', kind: 'hold', what: 'a text', holds: 'words' },
		{ id: 'p', kind: 'hold', what: 'a row', rows: PORTS, holds: 'quay' },
		{
			...{ id: 'more', kind: 'button', label: 'A night more', does: { kind: 'set' } },
			lines: [{ id: 'g', kind: 'with', value: 'here.nights + 1', as: 'nights' }]
		},
		berths({
			lines: [
				{
					...{ id: 'there', kind: 'button', label: 'There', does: { kind: 'set' } },
					lines: [
						{ id: 'g1', kind: 'with', value: 'port', as: 'quay' },
						{ id: 'g2', kind: 'with', value: 'code & "!"', as: 'words' },
						{ id: 'g3', kind: 'with', value: 'port.debt', as: 'nights' }
					]
				}
			]
		})
	]
	const give = (line: string, person: number, more: { row?: string; held?: Record<string, string> } = {}) =>
		giveValues(store, { ...place(lines, person), screen: 's', line, ...more })

	test('gives what it works out of what the screen holds, words apart from the rest', () => {
		expect(give('more', BO)).toEqual({ held: { nights: '2' }, typed: {} })
		expect(give('more', BO, { held: { nights: '4' } })).toEqual({ held: { nights: '5' }, typed: {} })
	})

	test('gives of its row what whoever presses sees there', () => {
		const row = store.ids.toId(BERTHS, 1)
		expect(give('there', BO, { row })).toEqual({ held: { quay: port(1), nights: '7' }, typed: { words: 'N1!' } })
		// What the port owes is not for Imke; a row that she does not see gives nothing.
		expect(give('there', IMKE, { row })).toEqual({ held: { quay: port(1), nights: '' }, typed: { words: 'N1!' } })
		const south = give('there', IMKE, { row: store.ids.toId(BERTHS, 3) })
		expect(south.held).toEqual({ quay: '', nights: '' })
	})

	test('is offered on the rows, and says so', () => {
		expect(shown(lines, BO).at(-1)).toMatchObject({ actions: [{ id: 'there', gives: { takesRow: false } }] })
	})

	test('follows a renamed column', () => {
		const renamed = mapFormulas(documentOf(lines), (text) => text.replace('code', 'mark'))
		expect(JSON.stringify(renamed)).toContain('"value":"mark & \\"!\\""')
	})
})

describe('before a release', () => {
	const found = (...lines: Lines) =>
		checkApp(documentOf(lines), store.workspace()).map(({ place, message }) => `${place}: ${message}`)
	const nights = { id: 'n', kind: 'hold', what: 'a number', holds: 'nights', starts: '1' } as const
	const button = (value: string, as: string, does: object = { kind: 'set' }) =>
		({ id: 'b', kind: 'button', label: 'B', does, lines: [{ id: 'g', kind: 'with', value, as }] }) as Lines[number]

	test.each<[string, Lines, string]>([
		['of a number that begins as a text', [{ ...nights, starts: '"one"' }], 'is of another kind than it holds'],
		['of a name of two words', [{ ...nights, holds: 'two nights' }], 'cannot follow "here."'],
		['of a row of no table', [{ id: 'h', kind: 'hold', what: 'a row', holds: 'it' }], 'Say of which table the row is.'],
		['of a filter by a column that is gone', [{ id: 'f', kind: 'filter', table: BERTHS, column: 99, holds: 'c' }], 'The column that it filters by is gone.'],
		['of a button that gives what is not held', [nights, button('1', 'days')], 'holds nothing that is called "days"'],
		['of a button that gives another kind', [nights, button('"one"', 'nights')], 'is of another kind than is held there'],
		['of a button that gives its row where there is none', [nights, button('', 'nights')], 'There is no row here to give.'],
		['of a button that gives and opens nothing', [nights, button('1', 'nights', { kind: 'print' })], 'It opens no screen'],
		['of a button that sets nothing', [nights, { id: 'b', kind: 'button', label: 'B', does: { kind: 'set' } }], 'It sets nothing yet.'],
		['of words without a name', [{ id: 's', kind: 'search', holds: '' }], 'Say what the words are called'],
		['of a list that asks a text of a number', [nights, berths({ where: 'code = here.nights' })], '']
	])('what is wrong %s is said', (_what, lines, says) => {
		expect(found(...lines).join(' ')).toContain(says)
	}) // prettier-ignore

	test('and nothing is, where all of it fits', () => {
		expect(found(nights, button('here.nights * 2', 'nights'))).toEqual([])
	})
})

describe('while it is written', () => {
	const by = { actor: { person: KEEPER }, now: NOW }
	const here = { where: { table: PORTS }, sought: { type: 'text' as const }, state: { table: BERTHS, column: CODE } }
	const trial = (text: string) => tryCondition(store, { table: BERTHS, text, people: [], me: true, here, ...by })

	test('a condition on what the screen holds is checked, and says what it goes by', () => {
		expect(trial('port = here.where and code = here.Sought')).toEqual({
			ok: true,
			issues: [],
			chosen: ['where', 'sought']
		})
		expect(trial('code = here.state')).toMatchObject({ ok: true, chosen: ['state'] })
		expect(trial('code = "N1"')).toMatchObject({ ok: true, rows: 1 })
		expect(trial('port = here.soght').issues[0]?.message).toContain('Did you mean here.sought?')
		expect(trial('code = here.where + 1').ok).toBe(false)
	})

	test('so is a formula that gives a value', () => {
		const tried = tryFormula(store, { table: BERTHS, text: 'here.sought & code', here, ...by })
		expect(tried).toEqual({ issues: [], type: 'text', chosen: ['sought'] })
	})
})
