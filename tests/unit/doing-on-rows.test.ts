/** What staff do on rows of a screen at one press, what is added up of them, and which screens they are offered. */
import { beforeEach, describe, expect, test } from 'vitest'
import { APP_FORMAT, appSchema, type AppDocument, type ScreenInput } from '$lib/core/app/document.ts'
import { checkApp } from '$lib/core/app/check-app.ts'
import type { ShownLine } from '$lib/core/requests/screens.ts'
import type { LineEntry } from '$lib/core/workspace/document.ts'
import { addAppFrom } from '$lib/server/apps/apps.ts'
import { releaseApp } from '$lib/server/apps/release-app.ts'
import { findAnything } from '$lib/server/apps/find-anything.ts'
import { BUILDER } from '$lib/server/rights/system-roles.ts'
import { openScreen } from '$lib/server/apps/open-screen.ts'
import { addUp, changeRecord, tick } from '$lib/server/apps/use-app.ts'
import { saveWorkspace } from '$lib/server/structure/save.ts'
import { takeBack } from '$lib/server/logbook/take-back.ts'
import type { Store } from '$lib/server/store/store.ts'
import { accessLine } from '../support/access-line.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'

const NOW = Date.parse('2026-11-29T12:00:00Z')
const [ITEMS, NAME, STOCK, PACK, PRICE, DONE] = [2, 20, 21, 22, 23, 24]
const [CREW, CLERKS] = [10, 11]
const [IMKE, BO] = [2, 3]
const [ROPE, PAINT, TAR, SECRET] = [1, 2, 3, 4]

const line = (id: string, role: number, parts: Partial<LineEntry>) => accessLine({ id, table: ITEMS, role, ...parts })

let store: Store

beforeEach(() => {
	store = openScratch({
		now: NOW,
		roles: [
			{ id: BUILDER, name: 'Builders', includes: [] },
			{ id: CREW, name: 'Crew', includes: [] },
			{ id: CLERKS, name: 'Clerks', includes: [] }
		],
		lines: [
			line('c', CREW, { where: 'name <> "Secret"', columns: { kind: 'except', columns: [PRICE] } }),
			line('p', CREW, { where: 'name = "Rope" OR name = "Tar"', columns: { kind: 'only', columns: [PRICE] } }),
			line('w', CREW, { verbs: ['change'], where: 'name <> "Tar"', columns: { kind: 'only', columns: [STOCK, DONE] } }),
			line('k', CLERKS, {})
		],
		tables: [
			{
				...{ id: ITEMS, name: 'items', keepers: [KEEPER], label: NAME },
				columns: [
					{ id: NAME, name: 'name', type: 'text' },
					{ id: STOCK, name: 'in stock', type: 'whole number' },
					{ id: PACK, name: 'pack', type: 'whole number' },
					{ id: PRICE, name: 'price', type: 'money' },
					{ id: DONE, name: 'counted', type: 'yes/no' }
				]
			}
		]
	})
	store.db.exec(`
		INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (2, 0, 0, 'Imke', 'imke'), (3, 0, 0, 'Bo', 'bo');
		INSERT INTO t2 (n, made_at, changed_at, c20, c20k, c21, c22, c23, c24) VALUES
			(1, 0, 0, 'Rope', 'rope', NULL, 50, 1010, NULL), (2, 0, 0, 'Paint', 'paint', 3, 2, 2020, NULL),
			(3, 0, 0, 'Tar', 'tar', 9, 1, 3030, NULL), (4, 0, 0, 'Secret', 'secret', 7, 1, 40000, NULL);
		INSERT INTO role_held (person, role) VALUES (${IMKE}, ${CREW}), (${BO}, ${CLERKS})`)
})

const LIST: ScreenInput['lines'][number] = {
	...{ id: 'list', kind: 'list', table: ITEMS, where: '', sort: [], columns: [NAME, STOCK], opens: null },
	...{ ticks: DONE, totals: [STOCK, PRICE], filters: [NAME] },
	lines: [{ id: 'one', kind: 'tally', table: ITEMS, column: STOCK, less: 'takes it away too' }]
}
const SHEET: ScreenInput['lines'][number] = {
	...{ id: 'sheet', kind: 'record', table: ITEMS, columns: [PACK], across: 'in two columns' },
	lines: [
		{ id: 'p1', kind: 'part', title: 'How many', columns: [STOCK] },
		{ id: 'p2', kind: 'part', title: 'Money', columns: [PRICE], who: [CLERKS] },
		{ id: 'pack', kind: 'tally', table: ITEMS, column: STOCK, by: 'pack' }
	]
}
const SCREENS: ScreenInput[] = [
	{ id: 'a', title: 'Items', label: 'Shelf', icon: 'stock', lines: [LIST] },
	{ id: 'b', title: 'One', lines: [SHEET] },
	{ id: 'c', title: 'Clerks’', who: [CLERKS], first: [CLERKS], lines: [{ ...LIST, id: 'other' }] },
	{ id: 'd', title: 'By link', stands: 'by link only', lines: [{ ...LIST, id: 'third' }] }
]

function documentOf(screens: ScreenInput[]): AppDocument {
	const none = { about: '', colour: 'sea' as const, routines: [], signoffs: [] }
	return appSchema.parse({ format: APP_FORMAT, name: 'Stores', screens, ...none })
}

const place = (person: number, screen: string) => ({
	...{ app: 1, draft: true, document: documentOf(SCREENS), actor: { person }, now: NOW, screen }
})
const id = (n: number) => store.ids.toId(ITEMS, n)
const stockOf = (n: number) => store.pluck<number>(`SELECT c21 FROM t2 WHERE n = ${n}`)

function shown<K extends ShownLine['kind']>(person: number, screen: string, kind: K, row?: number) {
	const at = row === undefined ? {} : { row: id(row) }
	const lines = openScreen(store, { ...place(person, screen), ...at }).screen?.lines ?? []
	return lines.filter((each): each is Extract<ShownLine, { kind: K }> => each.kind === kind)
}

describe('a set amount', () => {
	const add = (person: number, n: number, less = false) =>
		addUp(store, { ...place(person, 'a'), line: 'one', row: id(n), less })

	test('counts on what stands there now: a blank as nothing, two at once both', () => {
		add(IMKE, ROPE)
		expect(stockOf(ROPE)).toBe(1)
		// Both had the screen open with the same number.
		add(IMKE, ROPE)
		add(IMKE, ROPE, true)
		add(IMKE, ROPE)
		expect(stockOf(ROPE)).toBe(2)
	})

	test('may be worked out on the row, and is taken back', () => {
		const pressed = addUp(store, { ...place(IMKE, 'b'), line: 'pack', row: id(ROPE), less: false })
		expect(stockOf(ROPE)).toBe(50)
		takeBack(store, { entry: pressed.entry ?? 0, actor: { person: IMKE }, now: NOW })
		expect(stockOf(ROPE)).toBe(null)
	})

	test('is counted back, whatever others have counted since', () => {
		const pressed = addUp(store, { ...place(IMKE, 'b'), line: 'pack', row: id(PAINT), less: false })
		add(IMKE, PAINT)
		takeBack(store, { entry: pressed.entry ?? 0, actor: { person: IMKE }, now: NOW })
		expect(stockOf(PAINT)).toBe(4)
	})

	test('is refused as any change is: by who may not, on a row that is not seen, where it only adds', () => {
		expect(() => add(IMKE, TAR)).toThrow()
		expect(() => add(BO, ROPE)).toThrow()
		expect(() => add(IMKE, SECRET)).toThrow('not there, or not for you to see')
		expect(() => addUp(store, { ...place(IMKE, 'b'), line: 'pack', row: id(ROPE), less: true })).toThrow('only adds')
		expect([ROPE, TAR, SECRET].map(stockOf)).toEqual([null, 9, 7])
	})

	test('is neither offered nor taken on a number that is not seen: it would begin from nothing', () => {
		const money = { id: 'money', kind: 'tally' as const, table: ITEMS, column: PRICE }
		const document = documentOf([{ id: 'm', title: 'Money', lines: [{ ...SHEET, lines: [money] }] }])
		const { document: workspace } = store.workspace()
		const write = line('pw', CREW, { verbs: ['change'], columns: { kind: 'only', columns: [PRICE] } })
		saveWorkspace(store, { ...workspace, lines: [...workspace.lines, write] }, { now: NOW, by: null })
		const at = { ...place(IMKE, 'm'), document }
		const press = (n: number) => addUp(store, { ...at, line: 'money', row: id(n), less: false })
		press(ROPE)
		expect(() => press(PAINT)).toThrow('You do not see the number')
		expect([ROPE, PAINT].map((n) => store.pluck(`SELECT c23 FROM t2 WHERE n = ${n}`))).toEqual([1110, 2020])
		const lines = openScreen(store, { ...at, row: id(PAINT) }).screen?.lines ?? []
		expect(lines).toMatchObject([{ tallies: [] }])
	})

	test('is offered where it can be pressed, with how much it is', () => {
		expect(shown(IMKE, 'a', 'list')[0]?.actions.map(({ label }) => label)).toEqual(['+1 in stock', '−1 in stock'])
		expect(shown(BO, 'a', 'list')[0]?.actions).toEqual([])
		const tallies = (person: number, row: number) => shown(person, 'b', 'record', row)[0]?.tallies
		expect(tallies(IMKE, ROPE)).toMatchObject([{ amount: '50', value: null, takesAway: false }])
		expect(tallies(IMKE, TAR)).toEqual([])
		expect(tallies(BO, ROPE)).toEqual([])
	})
})

describe('the box of a row', () => {
	const set = (person: number, n: number, on: boolean, listed = 'list') =>
		tick(store, { ...place(person, listed === 'list' ? 'a' : 'b'), line: listed, row: id(n), on })
	const doneOf = (n: number) => store.pluck<number>(`SELECT c24 FROM t2 WHERE n = ${n}`)

	test('is saved as it is ticked, and taken back', () => {
		set(IMKE, ROPE, true)
		expect(doneOf(ROPE)).toBe(1)
		const { entry } = set(IMKE, ROPE, false)
		expect(doneOf(ROPE)).toBe(0)
		takeBack(store, { entry: entry ?? 0, actor: { person: IMKE }, now: NOW })
		expect(doneOf(ROPE)).toBe(1)
	})

	test('is refused to who may not, and where there is none', () => {
		expect(() => set(IMKE, TAR, true)).toThrow()
		expect(() => set(BO, ROPE, true)).toThrow()
		expect(() => set(IMKE, ROPE, true, 'sheet')).toThrow('no longer there')
		expect(shown(IMKE, 'a', 'list')[0]?.ticks?.name).toBe('counted')
		expect(shown(BO, 'a', 'list')[0]?.ticks).toBe(null)
	})
})

describe('what is added up', () => {
	const totals = (person: number, text?: string) => {
		const filters = text === undefined ? [] : [{ column: NAME, is: 'equal' as const, text }]
		const narrowed = { list: { find: '', filters } }
		const lines = openScreen(store, { ...place(person, 'a'), narrowed }).screen?.lines ?? []
		const [list] = lines.filter((each) => each.kind === 'list')
		return list?.totals.map(({ column, sum, unseen }) => [column.name, sum, unseen])
	}

	test('are the rows and cells that the reader sees, and how many cells are kept back of those rows', () => {
		expect(totals(BO)).toEqual([
			['in stock', 19, 0],
			['price', 460.6, 0]
		])
		expect(totals(IMKE)).toEqual([
			['in stock', 12, 0],
			['price', 40.4, 1]
		])
	})

	test('is added up for each group of the list too, under the same sight', () => {
		const groups = (person: number, filters: object[] = []) => {
			const document = documentOf([{ id: 's', title: 'S', lines: [{ ...LIST, group: PACK }] }])
			const narrowed = { list: { find: '', filters } } as never
			const asked = { app: 1, draft: true, document, screen: 's', actor: { person }, now: NOW, narrowed }
			const [list] = openScreen(store, asked).screen?.lines ?? []
			if (list?.kind !== 'list') throw new Error('Expected a list')
			return list.groups?.counts.map(({ value, rows, sums }) => [value, rows, ...sums]).toSorted()
		}
		expect(groups(BO)).toEqual([
			[1, 2, 'in stock 16', 'price £430.30'],
			[2, 1, 'in stock 3', 'price £20.20'],
			// Blanks come to nought, as at the foot.
			[50, 1, 'in stock 0', 'price £10.10']
		])
		// Of the row that she does not see nothing is in it, nor of a price that is kept back.
		expect(groups(IMKE)).toEqual([
			[1, 1, 'in stock 9', 'price £30.30'],
			[2, 1, 'in stock 3'],
			[50, 1, 'in stock 0', 'price £10.10']
		])
		expect(groups(BO, [{ column: NAME, is: 'equal', text: 'Tar' }])).toEqual([[1, 1, 'in stock 9', 'price £30.30']])
	})

	test('follows what the list is narrowed down to', () => {
		expect(totals(IMKE, 'Tar')).toEqual([
			['in stock', 9, 0],
			['price', 30.3, 0]
		])
		expect(totals(IMKE, 'Secret')).toEqual([
			['in stock', 0, 0],
			['price', 0, 0]
		])
	})
})

describe('a sheet in parts', () => {
	test('shows each column once, and no part to who it is not for', () => {
		const names = (person: number) =>
			shown(person, 'b', 'record', ROPE).map(({ columns, parts, isWide }) => [
				isWide,
				columns.map(({ name }) => name),
				parts.map((part) => [part.title, ...part.columns.map(({ name }) => name)])
			])
		expect(names(BO)).toEqual([[true, ['name', 'pack'], [['How many', 'in stock'], ['Money', 'price']]]]) // prettier-ignore
		expect(names(IMKE)).toEqual([[true, ['name', 'pack'], [['How many', 'in stock']]]])
	})

	test('lets what stands in a part be changed, and nothing that it does not show', () => {
		const change = (column: number, value: number | boolean) =>
			changeRecord(store, { ...place(IMKE, 'b'), line: 'sheet', row: id(PAINT), cells: [{ column, value }] })
		change(STOCK, 5)
		change(DONE, true)
		expect(stockOf(PAINT)).toBe(5)
		expect(store.pluck(`SELECT c24 FROM t2 WHERE n = ${PAINT}`)).toBe(null)
	})
})

describe('screens', () => {
	const opened = (person: number, screen?: string) => openScreen(store, { ...place(person, ''), screen })

	test('stand in the navigation by their own word and icon, those by link only do not', () => {
		expect(opened(IMKE).screens).toEqual([{ id: 'a', title: 'Shelf', icon: 'stock' }])
		expect(opened(IMKE, 'd').screen?.title).toBe('By link')
	})

	test('are offered to whom they are for, and each begins with its own', () => {
		expect(opened(IMKE).screen?.id).toBe('a')
		expect(() => opened(IMKE, 'c')).toThrow('not there, or not for you')
		expect(opened(BO).screens.map(({ id }) => id)).toEqual(['a', 'c'])
		expect(opened(BO).screen?.id).toBe('c')
	})
})

test('what is found by a few letters are rows of lists that are for somebody, as those lists stand', () => {
	const listed = (id: string, more: object) => ({ ...LIST, id, finds: [NAME], opens: 'b', ...more })
	const screens = [
		{ id: 'a', title: 'Items', lines: [listed('one', { where: 'name <> "Tar"' })] },
		{
			id: 'h',
			title: 'Hidden',
			lines: [{ id: 's', kind: 'section', title: '', who: [CLERKS], lines: [listed('two', {})] }]
		},
		// Nothing is chosen yet that this list goes by.
		{
			id: 'w',
			title: 'Waits',
			lines: [listed('three', { where: 'name = here.item.name' }), listed('four', { holds: 'item', opens: null })]
		},
		{ id: 'b', title: 'One', lines: [SHEET] }
	] as ScreenInput[]
	const actor = { person: KEEPER }
	store.db.exec(`INSERT INTO role_held (person, role) VALUES (${KEEPER}, ${BUILDER})`)
	const app = addAppFrom(store, { document: documentOf(screens), actor, now: NOW })
	releaseApp(store, { app, note: '', actor, now: NOW })
	const found = (person: number, text: string) =>
		findAnything(store, { text, actor: { person }, now: NOW }).map(({ where }) => where)
	expect(found(IMKE, 'Rope')).toEqual(['Stores, Items'])
	expect(found(IMKE, 'Tar')).toEqual([])
	expect(found(BO, 'Tar')).toEqual(['Stores, Hidden'])
	expect([found(IMKE, 'Secret'), found(BO, 'Secret').length]).toEqual([[], 1])
})

test('what opens a screen that is for others is not offered', () => {
	const hidden: ScreenInput = { ...SCREENS[1], id: 'b', title: 'One', who: [CLERKS], lines: [SHEET] }
	const button = { id: 'go', kind: 'button' as const, label: 'Go', does: { kind: 'open' as const, screen: 'c' } }
	const first: ScreenInput = { id: 'a', title: 'Items', lines: [{ ...LIST, opens: 'b' } as typeof LIST, button] }
	const document = documentOf([first, hidden, SCREENS[2] as ScreenInput])
	const opened = (person: number) => openScreen(store, { ...place(person, 'a'), document }).screen?.lines ?? []
	expect(opened(BO)).toMatchObject([{ opens: 'b' }, { kind: 'button' }])
	expect(opened(IMKE)).toMatchObject([{ opens: null }])
})

test('what cannot work is said before a release', () => {
	const { catalogue, lines, roles } = store.workspace()
	const found = (screens: ScreenInput[]) =>
		checkApp(documentOf(screens), { catalogue, lines, roles }).map(({ message }) => message)
	expect(found(SCREENS)).toEqual([])
	const list = { ...LIST, ticks: NAME, totals: [NAME], lines: [{ id: 't', kind: 'tally', table: ITEMS, column: NAME }] }
	expect(found([{ id: 'x', title: 'X', who: [99], lines: [list as ScreenInput['lines'][number]] }])).toEqual([
		'A role that the screen is for is gone.',
		'A box ticks a yes/no column. Choose such a one.',
		'What is added up at the foot is no column of numbers.',
		'name is no number. Choose a column of numbers or money.'
	])
	expect(found([{ ...SCREENS[1], id: 'y', title: 'Y', first: [CREW], lines: [SHEET] }])).toEqual([
		'It shows a row, so nobody can begin with it. Let them begin with a list.'
	])
	const bad = { id: 't', kind: 'tally' as const, table: ITEMS, column: STOCK, by: '"much"' }
	expect(found([{ id: 'z', title: 'Z', lines: [bad] }])).toEqual(['It adds a number; its formula gives none.'])
})
