/** Values that are put into a row at a press, marks that it is given, and counts that are kept on a row which belongs to it. */
import { beforeEach, describe, expect, test } from 'vitest'
import { APP_FORMAT, appSchema, type AppDocument, type ScreenInput } from '$lib/core/app/document.ts'
import { checkApp } from '$lib/core/app/check-app.ts'
import type { ShownLine } from '$lib/core/requests/screens.ts'
import { openScreen } from '$lib/server/apps/open-screen.ts'
import { addUp, putValue, rate } from '$lib/server/apps/use-app.ts'
import { takeBack } from '$lib/server/logbook/take-back.ts'
import { saveWorkspace } from '$lib/server/structure/save.ts'
import type { Store } from '$lib/server/store/store.ts'
import { accessLine } from '../support/access-line.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'

const NOW = Date.parse('2026-11-30T09:30:00Z')
const [ITEMS, NAME, PACK, GRADE, SEEN, LEFT, KIND] = [2, 20, 21, 22, 23, 24, 25]
const [PICKS, ITEM, DAY, PICKED] = [3, 30, 31, 32]
const [CREW, CLERKS] = [10, 11]
const [IMKE, BO] = [2, 3]
const [ROPE, PAINT, SECRET] = [1, 2, 3]

let store: Store

beforeEach(() => {
	const every = (role: number, table: number, verbs: ('see' | 'add' | 'change')[]) =>
		accessLine({ id: `${role} ${table}`, table, role, verbs })
	store = openScratch({
		now: NOW,
		roles: [
			{ id: CREW, name: 'Crew', includes: [] },
			{ id: CLERKS, name: 'Clerks', includes: [] }
		],
		lines: [
			accessLine({ id: 'c', table: ITEMS, role: CREW, verbs: ['see', 'change'], where: 'name <> "Secret"' }),
			every(CREW, PICKS, ['see', 'add', 'change']),
			every(CLERKS, ITEMS, ['see']),
			every(CLERKS, PICKS, ['see'])
		],
		tables: [
			{
				...{ id: ITEMS, name: 'items', keepers: [KEEPER], label: NAME },
				columns: [
					{ id: NAME, name: 'name', type: 'text' },
					{ id: PACK, name: 'pack', type: 'whole number' },
					{ id: GRADE, name: 'grade', type: 'whole number' },
					{ id: SEEN, name: 'seen', type: 'date' },
					{ id: LEFT, name: 'left', type: 'date and time' },
					{ id: KIND, name: 'kind', type: 'text' }
				]
			},
			{
				...{ id: PICKS, name: 'picks', keepers: [KEEPER], label: ITEM },
				columns: [
					{ id: ITEM, name: 'item', type: 'reference', to: ITEMS, reverseName: 'picks' },
					{ id: DAY, name: 'day', type: 'date' },
					{ id: PICKED, name: 'picked', type: 'whole number' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (2, 0, 0, 'Imke', 'imke'), (3, 0, 0, 'Bo', 'bo');
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21) VALUES
			(1, 0, 0, 'Rope', 'rope', 50), (2, 0, 0, 'Paint', 'paint', 2), (3, 0, 0, 'Secret', 'secret', 9);
		INSERT INTO role_held (person, role) VALUES (${IMKE}, ${CREW}), (${BO}, ${CLERKS})`)
})

type Line = ScreenInput['lines'][number]
const SHEET: Line = { id: 'sheet', kind: 'record', table: ITEMS, columns: [PACK] }
const TODAY: Line = {
	...{ id: 'today', kind: 'tally', table: PICKS, column: PICKED, by: 'pack', less: 'takes it away too' },
	...{ of: ITEM, key: DAY, is: 'TODAY()' }
}
const LINES: Line[] = [
	SHEET,
	{ id: 'seen', kind: 'put', table: ITEMS, column: SEEN },
	{ id: 'left', kind: 'put', table: ITEMS, column: LEFT, label: 'Gone' },
	{ id: 'kind', kind: 'put', table: ITEMS, column: KIND, to: '"big " & name' },
	{ id: 'grade', kind: 'rating', table: ITEMS, column: GRADE, most: 5, label: 'How good' },
	TODAY
]
const LIST: Line = {
	...{ id: 'list', kind: 'list', table: ITEMS, where: '', sort: [], columns: [NAME], opens: null },
	lines: [
		{ ...TODAY, id: 'pick' },
		{ id: 'again', kind: 'put', table: ITEMS, column: SEEN, label: 'Seen' }
	]
}

function documentOf(screens: ScreenInput[]): AppDocument {
	const none = { about: '', colour: 'sea' as const, routines: [], signoffs: [] }
	return appSchema.parse({ format: APP_FORMAT, name: 'Stores', screens, ...none })
}

const DOCUMENT = documentOf([
	{ id: 'a', title: 'Item', lines: LINES },
	{ id: 'b', title: 'Items', lines: [LIST] }
])
const at = (person: number, line = '') => ({
	...{ app: 1, draft: true, document: DOCUMENT, actor: { person }, now: NOW, screen: 'a', line }
})
const id = (n: number) => store.ids.toId(ITEMS, n)
const cellOf = (column: number, n: number) => store.pluck(`SELECT c${column} FROM t2 WHERE n = ${n}`)
const picks = () => store.db.prepare('SELECT c30, c31, c32 FROM t3 ORDER BY n').raw().all()

function shown(person: number, n: number): readonly ShownLine[] {
	return openScreen(store, { ...at(person), row: id(n) }).screen?.lines ?? []
}

describe('what is put into a row', () => {
	const put = (person: number, line: string, n: number) => putValue(store, { ...at(person, line), row: id(n) })

	test.each([
		['seen', SEEN, '2026-11-30'],
		['left', LEFT, '2026-11-30T09:30:00.000Z'],
		['kind', KIND, 'big Rope']
	])('%s is what the line says, or the moment of the press', (line, column, value) => {
		const { entry } = put(IMKE, line, ROPE)
		expect(cellOf(column, ROPE)).toBe(value)
		takeBack(store, { entry: entry ?? 0, actor: { person: IMKE }, now: NOW })
		expect(cellOf(column, ROPE)).toBe(null)
	})

	test('is refused as any change is', () => {
		expect(() => put(BO, 'seen', ROPE)).toThrow()
		expect(() => put(IMKE, 'seen', SECRET)).toThrow('not there, or not for you to see')
		expect([ROPE, SECRET].map((n) => cellOf(SEEN, n))).toEqual([null, null])
	})
})

describe('a mark', () => {
	const give = (person: number, mark: number | null, n = ROPE) =>
		rate(store, { ...at(person, 'grade'), row: id(n), mark })

	test('is given, changed and taken back', () => {
		give(IMKE, 4)
		expect(cellOf(GRADE, ROPE)).toBe(4)
		expect(shown(IMKE, ROPE).find(({ kind }) => kind === 'rating')).toMatchObject({ mark: 4, most: 5 })
		give(IMKE, null)
		expect(cellOf(GRADE, ROPE)).toBe(null)
	})

	test('goes no higher than the line says, and is given by nobody who may not', () => {
		expect(() => give(IMKE, 6)).toThrow('from 1 to 5')
		expect(() => give(BO, 3)).toThrow()
		expect(() => give(IMKE, 3, SECRET)).toThrow()
		expect([ROPE, SECRET].map((n) => cellOf(GRADE, n))).toEqual([null, null])
	})
})

describe('a count on a row that belongs to the one that is shown', () => {
	const press = (person: number, n: number, less = false) => addUp(store, { ...at(person, 'today'), row: id(n), less })

	test('makes the row that is missing, and counts on it from then on', () => {
		press(IMKE, ROPE)
		expect(picks()).toEqual([[ROPE, '2026-11-30', 50]])
		press(IMKE, ROPE)
		press(IMKE, ROPE, true)
		press(IMKE, PAINT)
		expect(picks()).toEqual([
			[ROPE, '2026-11-30', 50],
			[PAINT, '2026-11-30', 2]
		])
	})

	test('keeps a row for each day', () => {
		store.db.exec(`INSERT INTO t3 (n, made_at, changed_at, c30, c31, c32) VALUES (9, 0, 0, ${ROPE}, '2026-11-29', 7)`)
		press(IMKE, ROPE)
		expect(picks()).toEqual([
			[ROPE, '2026-11-29', 7],
			[ROPE, '2026-11-30', 50]
		])
	})

	test('takes the row away again that it made, by who may remove it; to others that is not offered', () => {
		expect(press(IMKE, PAINT).entry).toBe(null)
		const { document } = store.workspace()
		const removes = accessLine({ id: 'r', table: PICKS, role: CREW, verbs: ['remove'] })
		saveWorkspace(store, { ...document, lines: [...document.lines, removes] }, { now: NOW, by: null })
		const { entry } = press(IMKE, ROPE)
		takeBack(store, { entry: entry ?? 0, actor: { person: IMKE }, now: NOW })
		expect(picks()).toEqual([[PAINT, '2026-11-30', 2]])
	})

	test('makes none where nothing tells it from others, or what its line names is not there', () => {
		const sheet = (line: Line) => documentOf([{ id: 'a', title: 'Item', lines: [SHEET, line] }])
		const blank = { ...TODAY, is: 'seen' } as Line
		expect(() => addUp(store, { ...at(IMKE, 'today'), document: sheet(blank), row: id(ROPE), less: false })).toThrow(
			'could not be worked out'
		)
		// A draft that is half written is shown all the same, without what cannot be.
		for (const line of [blank, { ...TODAY, of: DAY }, { ...TODAY, key: 99 }] as Line[]) {
			const { screen } = openScreen(store, { ...at(IMKE), document: sheet(line), row: id(ROPE) })
			expect(screen?.lines.map(({ kind }) => kind)).toEqual(['record'])
		}
		expect(picks()).toEqual([])
	})

	test('makes none for who may add none, nor for a row that is not seen', () => {
		expect(() => press(BO, ROPE)).toThrow()
		expect(() => press(IMKE, SECRET)).toThrow('not there, or not for you to see')
		expect(picks()).toEqual([])
	})
})

test('what can be done is offered to who can do it, on the sheet and in a list', () => {
	const offered = (person: number) =>
		shown(person, ROPE).flatMap((line) => {
			if (line.kind === 'button' || line.kind === 'rating') return [line.label]
			return line.kind === 'tally' ? [`${line.label} ${line.amount} ${line.value}`] : []
		})
	expect(offered(IMKE)).toEqual(['seen', 'Gone', 'kind', 'How good', 'picked 50 null'])
	expect(offered(BO)).toEqual([])
	expect(() => shown(IMKE, SECRET)).not.toThrow()
	const actions = (person: number) => {
		const [list] = openScreen(store, { ...at(person), screen: 'b' }).screen?.lines ?? []
		return list?.kind === 'list' ? list.actions.map(({ label }) => label) : []
	}
	expect(actions(IMKE)).toEqual(['+ picked', '− picked', 'Seen'])
	expect(actions(BO)).toEqual([])
})

describe('before a release it is said', () => {
	const found = (...lines: Line[]) =>
		checkApp(documentOf([{ id: 'a', title: 'A', lines: [SHEET, ...lines] }]), store.workspace())
			.filter(({ place }) => place === 'A, line 2')
			.map(({ message }) => message)
			.join(' ')
	const tally = TODAY as Extract<Line, { kind: 'tally' }>

	test.each<[string, Line, string]>([
		['nothing of a sound count', tally, ''],
		['that a number holds no time', { id: 'x', kind: 'put', table: ITEMS, column: PACK }, 'pack holds no time'],
		['that a formula is wrong', { id: 'x', kind: 'put', table: ITEMS, column: KIND, to: 'nema' }, 'nema'],
		['that a text holds no marks', { id: 'x', kind: 'rating', table: ITEMS, column: NAME, most: 5 }, 'no marks'],
		['how far marks go', { id: 'x', kind: 'rating', table: ITEMS, column: GRADE, most: 50 }, 'between 2 and 10'],
		['that a count needs a reference', { ...tally, of: DAY }, 'by a reference'],
		['that what tells its row is half said', { ...tally, is: '' }, 'Say both'],
		['that its amount is no number', { ...tally, by: 'name' }, 'adds a number']
	])('%s', (_says, line, words) => {
		if (words === '') expect(found(line)).toBe('')
		else expect(found(line)).toContain(words)
	})
})
