/** Lines that screens share, where an app begins for whom, and links that open a screen without what it reads. */
import { beforeEach, describe, expect, test } from 'vitest'
import { checkApp } from '$lib/core/app/check-app.ts'
import { APP_FORMAT, appSchema, type AppDocument, type ScreenInput } from '$lib/core/app/document.ts'
import { allLines } from '$lib/core/app/lines/tree.ts'
import { heldAround, ownLine, withSharedLines } from '$lib/core/app/shared-lines.ts'
import { mapFormulas } from '$lib/core/app/walk-app.ts'
import type { ShownLine } from '$lib/core/requests/screens.ts'
import { openScreen, readList } from '$lib/server/apps/open-screen.ts'
import type { Store } from '$lib/server/store/store.ts'
import { accessLine } from '../support/access-line.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'

const NOW = Date.parse('2026-11-30T09:30:00Z')
const [ITEMS, NAME, SHELF] = [2, 20, 21]
const CREW = 10
const [IMKE, BO] = [2, 3]

let store: Store

beforeEach(() => {
	store = openScratch({
		now: NOW,
		roles: [{ id: CREW, name: 'Crew', includes: [] }],
		lines: [accessLine({ id: 'c', table: ITEMS, role: CREW })],
		tables: [
			{
				...{ id: ITEMS, name: 'items', keepers: [KEEPER], label: NAME },
				columns: [
					{ id: NAME, name: 'name', type: 'text' },
					{ id: SHELF, name: 'shelf', type: 'text' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (2, 0, 0, 'Imke', 'imke'), (3, 0, 0, 'Bo', 'bo');
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21, c21k) VALUES
			(1, 0, 0, 'Rope', 'rope', 'A', 'a'), (2, 0, 0, 'Paint', 'paint', 'B', 'b');
		INSERT INTO role_held (person, role) VALUES (${IMKE}, ${CREW}), (${BO}, ${CREW})`)
})

type Line = ScreenInput['lines'][number]
const list = (id: string, where: string): Line => ({
	...{ id, kind: 'list', table: ITEMS, where, sort: [], columns: [NAME], opens: null }
})
const SHARED: ScreenInput = {
	...{ id: 'g', title: 'On a shelf', stands: 'only as lines of other screens' },
	lines: [
		{ id: 'h', kind: 'hold', what: 'a text', holds: 'shelf', starts: '"A"' },
		{ id: 'says', kind: 'text', text: 'Shelf {here.shelf}' },
		list('l', 'shelf = here.shelf')
	]
}
const hosts = (lines: Line[] = []): ScreenInput[] => [
	{ id: 'one', title: 'One', lines: [{ id: 'x', kind: 'shared', screen: 'g' }] },
	{
		...{ id: 'two', title: 'Two' },
		lines: [
			{
				...{ id: 'y', kind: 'shared', screen: 'g' },
				lines: [{ id: 'w', kind: 'with', value: '"B"', as: 'Shelf' }]
			},
			...lines
		]
	}
]

function documentOf(screens: ScreenInput[]): AppDocument {
	const none = { about: '', colour: 'sea' as const, routines: [], signoffs: [] }
	return appSchema.parse({ format: APP_FORMAT, name: 'Stores', screens, ...none })
}

const place = (document: AppDocument, person = IMKE) => ({
	...{ app: 1, draft: true, document, actor: { person }, now: NOW }
})
const messages = (document: AppDocument) =>
	checkApp(document, store.workspace()).map(({ place: where, message }) => `${where}: ${message}`)

describe('shared lines', () => {
	const document = documentOf([SHARED, ...hosts()])

	test('are shown wherever they stand, with what each of their screens gives them', () => {
		const seen = (screen: string) =>
			allLines<ShownLine>(openScreen(store, { ...place(document), screen }).screen?.lines ?? []).flatMap((line) => {
				if (line.kind === 'text') return [line.html.trim()]
				return line.kind === 'list' ? line.page.rows.map((row) => row.cells[`c${NAME}`]) : []
			})
		expect(seen('one')).toEqual(['<p>Shelf A</p>', 'Rope'])
		expect(seen('two')).toEqual(['<p>Shelf B</p>', 'Paint'])
	})

	test('are no screen of their own: neither offered nor opened', () => {
		expect(openScreen(store, place(document)).screens.map(({ title }) => title)).toEqual(['One', 'Two'])
		expect(() => openScreen(store, { ...place(document), screen: 'g' })).toThrow('not there, or not for you')
	})

	test('are read page by page as any list is, under an id of their own', () => {
		const [shown] = openScreen(store, { ...place(document), screen: 'two' }).screen?.lines ?? []
		const inner = shown && 'lines' in shown ? shown.lines.find(({ kind }) => kind === 'list') : undefined
		expect(ownLine(inner?.id ?? '')).toBe('y')
		const { rows } = readList(store, { ...place(document), screen: 'two', line: inner?.id ?? '' })
		expect(rows.map((row) => row.cells[`c${NAME}`])).toEqual(['Paint'])
	})

	test('read what their hosts hold, so that names in their formulas are known', () => {
		const reads: ScreenInput = { ...SHARED, lines: [list('l', 'shelf = here.where')] }
		const holds: Line = { id: 'z', kind: 'hold', what: 'a text', holds: 'where', starts: '"A"' }
		const both = documentOf([reads, ...hosts([holds])])
		const [shared] = both.screens
		expect(shared && heldAround(shared, both.screens)).toEqual({ where: { type: 'text' } })
		const standings: unknown[] = []
		mapFormulas(both, (text, standing) => {
			if (text.startsWith('shelf')) standings.push(standing.here)
			return text
		})
		expect(standings).toEqual([{ where: { type: 'text' } }])
	})

	test('are checked once, and that nobody shows them is said', () => {
		expect(messages(document)).toEqual([])
		expect(messages(documentOf([SHARED, { id: 'a', title: 'A', lines: [list('m', '')] }]))).toEqual([
			'On a shelf: No screen shows these lines yet. Add a line to one: Lines of On a shelf.'
		])
	})

	test.each<[string, ScreenInput[], string]>([
		['lines that are gone', [hosts()[0] as ScreenInput], 'the lines that it stands for are gone'],
		[
			'a screen that stands by itself',
			[{ ...SHARED, stands: null }, hosts()[0] as ScreenInput],
			'the lines that it stands for are gone'
		],
		[
			'shared lines within shared lines',
			[{ ...SHARED, lines: [{ id: 's', kind: 'shared', screen: 'g' }] }, hosts()[0] as ScreenInput],
			'cannot hold shared lines themselves'
		],
		[
			'a value that they do not take',
			[{ ...SHARED, lines: [list('l', '')] }, ...hosts()],
			'holds nothing that is called "Shelf"'
		]
	])('%s keep a release back', (_what, screens, words) => {
		expect(messages(documentOf(screens)).join('\n').toLowerCase()).toContain(words.toLowerCase())
	})

	test('that stand for each other are shown as nothing, and never without end', () => {
		const circle = documentOf([
			{ ...SHARED, lines: [{ id: 's', kind: 'shared', screen: 'g' }] },
			{ id: 'a', title: 'A', lines: [{ id: 'x', kind: 'shared', screen: 'g' }, list('m', '')] }
		])
		expect(allLines(withSharedLines(circle).screens[0]?.lines ?? []).map(({ id }) => id)).toEqual(['x', 'm'])
	})
})

describe('where an app begins', () => {
	const screens: ScreenInput[] = [
		{ id: 'a', title: 'A', lines: [list('l', '')] },
		{ id: 'b', title: 'B', first: [CREW], lines: [list('m', '')] },
		{ id: 'c', title: 'C', begins: 'me.name = "Imke"', stands: 'by link only', lines: [list('n', '')] }
	]
	const begins = (person: number) => openScreen(store, place(documentOf(screens), person)).screen?.id

	test('goes by a condition before it goes by a role', () => {
		expect([IMKE, BO].map(begins)).toEqual(['c', 'b'])
	})

	test('is checked before a release, as a formula over nobody’s row', () => {
		const wrong = screens.map((screen) => (screen.id === 'c' ? { ...screen, begins: 'shelf = "A"' } : screen))
		expect(messages(documentOf(wrong)).join('\n')).toContain('Screen C')
		expect(messages(documentOf(screens))).toEqual([])
	})
})

describe('a way to a screen that reads something', () => {
	const target = (starts: string): ScreenInput => ({
		...{ id: 't', title: 'Target' },
		lines: [{ id: 'h', kind: 'hold', what: 'a text', holds: 'shelf', starts }, list('l', 'shelf = here.shelf')]
	})
	const button: Line = { id: 'b', kind: 'button', label: 'Go', does: { kind: 'open', screen: 't' } }
	const from = (line: Line): ScreenInput => ({ id: 'f', title: 'From', lines: [line] })
	const given: Line = { ...button, lines: [{ id: 'w', kind: 'with', value: '"A"', as: 'shelf' }] }

	test('is said where it gives nothing of that, and nothing there begins as something', () => {
		expect(messages(documentOf([from(button), target('')]))).toEqual([
			'From, line 1: "Target" reads here.shelf, and this opens it without one. Give it: With … as shelf; or say there what it starts as.'
		])
		expect(messages(documentOf([from(given), target('')]))).toEqual([])
		expect(messages(documentOf([from(button), target('"A"')]))).toEqual([])
	})

	test('is sound where the screen sets it itself', () => {
		const sets: Line = { ...given, id: 's', does: { kind: 'set' } }
		const { lines, ...rest } = target('')
		expect(messages(documentOf([from(button), { ...rest, lines: [...lines, sets] }]))).toEqual([])
	})
})
