/** What tables are for, and the screens that are made from them: the tables of a harbour trust, a lending shed, a hall. */
import { describe, expect, test } from 'vitest'
import type { Column, Table } from '../../model/table.ts'
import { BRITISH } from '../../model/writing.ts'
import { checkApp } from '../check-app.ts'
import { allLines } from '../lines/tree.ts'
import { appSchema } from '../document.ts'
import { classOf, knownBy, type MadeColumn, type MadeTable } from './classify.ts'
import { makeApp, makeScreens } from './make-app.ts'

let columns = 0
const column = (name: string, type: MadeColumn['type'], more: Partial<MadeColumn> = {}): MadeColumn => ({
	...{ id: ++columns, name, type },
	...more
})
const to = (name: string, table: number, required = true) => column(name, 'reference', { to: table, required })

function table(id: number, name: string, parts: Partial<MadeTable> & { columns: MadeColumn[] }): MadeTable {
	return { id, name, people: false, rows: 200, label: parts.columns[0]?.id ?? 0, ...parts }
}

const [PEOPLE, HARBOURS, MOORINGS, INSPECTIONS, REQUESTS, ITEMS, WORK, STOCK, SKILLS] = [1, 2, 3, 4, 5, 6, 7, 8, 9]

const TRUST = [
	table(PEOPLE, 'People', { people: true, columns: [column('Name', 'text'), column('Email', 'email')] }),
	table(HARBOURS, 'Harbours', { rows: 3, columns: [column('Name', 'text'), column('Place', 'place')] }),
	table(MOORINGS, 'Moorings', {
		columns: [
			column('Code', 'code'),
			to('Harbour', HARBOURS),
			column('Type', 'choice', { choices: ['Trot', 'Swinging'] }),
			column('Next due', 'computed', { shows: 'date' }),
			column('Position', 'place'),
			column('due soon', 'computed', { shows: 'yesno', condition: true })
		]
	}),
	table(INSPECTIONS, 'Inspections', {
		columns: [
			column('Number', 'code'),
			column('Date', 'date', { required: true }),
			to('Mooring', MOORINGS),
			column('Verdict', 'choice', { choices: ['Sound', 'Watch', 'Out of use'] }),
			column('Photo', 'photo')
		]
	}),
	table(REQUESTS, 'Spend requests', {
		columns: [column('What', 'text'), to('Asked by', PEOPLE), column('Needed by', 'date'), column('Total', 'money')]
	}),
	table(ITEMS, 'Spend items', {
		columns: [to('Request', REQUESTS), column('Item', 'text'), column('Price', 'money')]
	}),
	table(WORK, 'Work orders', {
		columns: [
			column('What', 'text'),
			to('Mooring', MOORINGS),
			column('State', 'choice', { choices: ['Raised', 'Planned', 'Done'] }),
			column('Due', 'date'),
			column('Until', 'date')
		]
	}),
	table(STOCK, 'Stock', {
		columns: [column('Item', 'text'), to('Harbour', HARBOURS), column('In stock', 'whole number')]
	}),
	table(SKILLS, 'Skills', { columns: [to('Diver', PEOPLE), to('Harbour', HARBOURS)] })
]

test.each([
	['People', 'people'],
	['Harbours', 'choices'],
	['Moorings', 'register'],
	['Inspections', 'log'],
	['Spend requests', 'work'],
	['Spend items', 'lines'],
	['Work orders', 'work'],
	// What belongs to one of three harbours is found by itself.
	['Stock', 'register'],
	['Skills', 'link']
])('%s are %s', (name, kind) => {
	const found = TRUST.find((each) => each.name === name)
	expect(found && classOf(found, TRUST)).toBe(kind)
})

test('a name is what a row is known by before its number', () => {
	const [number, name] = [column('No', 'code'), column('Name of boat', 'text')]
	expect(knownBy(table(20, 'Boats', { columns: [number, name] }))).toEqual([name, number])
	const code = column('Code', 'code')
	expect(knownBy(table(21, 'Berths', { columns: [code, column('Length', 'decimal')] }))).toEqual([code])
})

describe('an app of them', () => {
	let next = 0
	const chosen = TRUST.map(({ id }) => id)
	const app = makeApp({ name: 'Trust', about: '', colour: 'sea' }, { chosen, all: TRUST, newId: () => `i${++next}` })
	const screen = (title: string) => app.screens.find((each) => each.title === title)
	const kinds = (title: string) => allLines(screen(title)?.lines ?? []).map(({ kind }) => kind)

	test('is a valid document with each id once', () => {
		expect(appSchema.safeParse(app).success).toBe(true)
		const ids = app.screens.flatMap(({ id, lines }) => [id, ...allLines(lines).map((line) => line.id)])
		expect(new Set(ids).size).toBe(ids.length)
	})

	test('passes the check before a release, but for what no line of access lets anybody do', () => {
		const tables = TRUST.map((each): Table => {
			const own = each.columns.map((column): Column => ({
				...column,
				type: column.type === 'computed' ? 'date' : column.type
			}))
			return { ...each, columns: own, keepers: [], checks: [], backReferences: [] }
		})
		const [people] = tables
		const catalogue = people && {
			timeZone: 'UTC',
			writing: BRITISH,
			people,
			tables: new Map(tables.map((each) => [each.id, each]))
		}
		const found = catalogue ? checkApp(app, { catalogue, lines: [], roles: [] }) : []
		expect(found.filter(({ weight }) => weight === 'mistake')).toEqual([])
		expect(found.filter(({ message }) => !message.startsWith('No line of access'))).toEqual([])
	})

	test('has work before registers before logs, and no screens of what only serves others', () => {
		const inNavigation = app.screens.filter(({ stands, lines }) => stands === null && lines[0]?.kind !== 'record')
		expect(inNavigation.map(({ title }) => title)).toEqual([
			...['Spend requests', 'Work orders', 'Moorings', 'Stock', 'Inspections'],
			// What happens is written down at once, from the navigation of a phone too.
			'Add an inspection'
		])
	})

	test('shows rows as they fit', () => {
		expect(kinds('Work orders')).toEqual(
			expect.arrayContaining(['tabs', 'list', 'board', 'calendar', 'mark', 'button'])
		)
		expect(kinds('Inspections')).toEqual(expect.arrayContaining(['tabs', 'list', 'chart']))
		expect(kinds('Moorings')).toEqual(expect.arrayContaining(['tabs', 'list', 'calendar', 'map', 'chart']))
		expect(kinds('Inspections')).not.toContain('calendar')
		expect(kinds('Stock')).toEqual(['heading', 'list', 'button'])
	})

	test('keeps what belongs to a row on its sheet and in its form', () => {
		const sheet = screen('Mooring')?.lines ?? []
		const lists = sheet.flatMap((line) => (line.kind === 'list' ? [line.table] : []))
		expect(lists).toEqual([INSPECTIONS, WORK])
		expect(kinds('Add a spend request')).toContain('items')
		expect(kinds('Spend request')).toEqual(['record', 'heading', 'list', 'fold', 'form'])
	})

	test('says what is past due only where it is known when that ends', () => {
		const marks = (title: string) =>
			allLines(screen(title)?.lines ?? []).flatMap((line) => (line.kind === 'mark' ? [line.where] : []))
		expect(marks('Moorings')[0]).toBe('Next due < TODAY()')
		expect(marks('Work orders')[0]).toBe('State <> "Done" and Due < TODAY()')
		expect(marks('Spend requests')).toEqual([])
	})

	test('takes the second of two dates for the end of a span, and a lone one for when it is due', () => {
		const calendarOf = (dates: string[]) => {
			const columns = [column('What', 'text'), ...dates.map((name) => column(name, 'date'))]
			const jobs = table(30, 'Jobs', { columns })
			const screens = makeScreens({ chosen: [30], all: [jobs], newId: () => `i${++next}` })
			const [calendar] = allLines(screens[0]?.lines ?? []).filter((line) => line.kind === 'calendar')
			const nameOf = (id: number | null | undefined) => columns.find((each) => each.id === id)?.name
			return [nameOf(calendar?.by), nameOf(calendar?.until)]
		}
		expect(calendarOf(['Day', 'Until'])).toEqual(['Day', 'Until'])
		expect(calendarOf(['Valid until'])).toEqual(['Valid until', undefined])
		expect(calendarOf(['Raised', 'Due'])).toEqual(['Due', undefined])
	})

	test('is looked through where there is much, and narrowed down by what has few values', () => {
		const [list] = allLines(screen('Moorings')?.lines ?? []).filter((line) => line.kind === 'list')
		const names = (ids: readonly number[]) =>
			ids.map((id) => TRUST.flatMap((each) => each.columns).find((each) => each.id === id)?.name)
		expect([names(list?.finds ?? []), names(list?.filters ?? []), names(list?.columns ?? [])]).toEqual([
			['Code'],
			['Harbour', 'Type'],
			['Code', 'Next due', 'Harbour', 'Type']
		])
	})
})

test('a table that serves others has screens where it alone is chosen', () => {
	let next = 0
	const screens = makeScreens({ chosen: [HARBOURS], all: TRUST, newId: () => `i${++next}` })
	expect(screens.map(({ title }) => title)).toEqual(['Harbours', 'Harbour', 'Add a harbour'])
})
