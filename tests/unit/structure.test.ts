import { beforeEach, describe, expect, test } from 'vitest'
import { APP_FORMAT, appSchema, type AppInput } from '$lib/core/app/document.ts'
import type { CellInput } from '$lib/core/query/change.ts'
import { addAppFrom, readDraft } from '$lib/server/apps/apps.ts'
import { releaseApp } from '$lib/server/apps/release-app.ts'
import { findLiveApp } from '$lib/server/releases/live.ts'
import { KEEPER, openScratch, PEOPLE_TABLE } from '../support/scratch-store.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { countRows, readRows } from '$lib/server/rows/read.ts'
import type { Store } from '$lib/server/store/store.ts'
import {
	convertColumn,
	changeColumn,
	changeTable,
	previewConversion,
	previewRemoval,
	removeColumn,
	returnColumn,
	setKeepers
} from '$lib/server/structure/change-columns.ts'
import { putTableBack, usesOfColumn } from '$lib/server/structure/restructure.ts'
import { saveWorkspace } from '$lib/server/structure/save.ts'
import { addColumn, setFormula, toReference } from '$lib/server/structure/tables.ts'

const NOW = Date.parse('2026-11-23T12:00:00Z')
const HARBOURS = 2
const MOORINGS = 3
const by = { actor: { person: KEEPER }, now: NOW }
const context = { ...by, through: 'grid' as const }

const APP = appSchema.parse({
	format: APP_FORMAT,
	name: 'Care',
	about: '',
	colour: 'sea',
	screens: [
		{
			id: 's',
			title: 'Due',
			lines: [
				{
					id: 'l',
					kind: 'list',
					table: MOORINGS,
					where: "Depth > 2 and 'not in use' <> TRUE",
					sort: [{ column: 31, descending: false }],
					columns: [30, 31],
					opens: null
				}
			]
		}
	],
	routines: [
		{
			id: 'r',
			name: 'Tell',
			start: { kind: 'rows', table: MOORINGS, when: 'added', where: 'Depth > 5' },
			steps: [
				{
					id: 't',
					kind: 'send',
					to: '"a@varrow.example"',
					subject: 'New {{',
					body: 'It is {Depth} deep at {Harbour.Name}'
				}
			]
		}
	],
	signoffs: []
} satisfies AppInput)

let store: Store

beforeEach(() => {
	store = openScratch({
		now: NOW,
		tables: [
			{
				id: HARBOURS,
				name: 'Harbours',
				keepers: [KEEPER],
				label: 20,
				columns: [
					{ id: 20, name: 'Name', type: 'text' },
					{ id: 21, name: 'Deepest', type: 'computed', formula: 'MAX(moorings.Depth)' }
				]
			},
			{
				id: MOORINGS,
				name: 'Moorings',
				keepers: [KEEPER],
				label: 30,
				columns: [
					{ id: 30, name: 'Code', type: 'code' },
					{ id: 31, name: 'Depth', type: 'decimal', places: 1 },
					{ id: 32, name: 'Harbour', type: 'reference', to: HARBOURS },
					{ id: 33, name: 'not in use', type: 'yes/no' },
					{ id: 34, name: 'Twice', type: 'computed', formula: 'depth * 2 + COUNT(Harbour.moorings)' },
					{ id: 35, name: 'Notes', type: 'text' }
				]
			}
		],
		roles: [{ id: 1, name: 'Everyone', includes: [] }],
		lines: [
			{
				id: 'a',
				table: MOORINGS,
				role: 1,
				verbs: ['see'],
				where: 'Depth < 30',
				columns: { kind: 'only', columns: [30, 31, 35] }
			}
		]
	})
	addAppFrom(store, { document: APP, ...by })
	store.db.prepare(`INSERT INTO role_held (person, role) VALUES (?, 2)`).run(KEEPER)
})

const add = (table: number, cells: Record<number, CellInput>) =>
	changeRows(
		store,
		[
			{ kind: 'add', table, cells: Object.entries(cells).map(([column, value]) => ({ column: Number(column), value })) }
		],
		context
	)[0]?.row ?? ''
const cellsOf = (row: string, table = MOORINGS) => readRows(store, by.actor, { table, row }, NOW).rows[0]?.cells ?? {}
const formulaOf = (table: number, column: number) =>
	store
		.workspace()
		.document.tables.find((each) => each.id === table)
		?.columns.find((each) => each.id === column)?.formula

describe('a new name keeps every formula right', () => {
	test('of a column: in computed columns, lines, screens, routines and messages', () => {
		const row = add(MOORINGS, { 30: 'VQ-001', 31: 4 })
		changeColumn(store, { ...by, table: MOORINGS, column: 31, words: { name: 'Depth at low water' } })
		expect(formulaOf(MOORINGS, 34)).toBe('Depth at low water * 2 + COUNT(Harbour.moorings)')
		expect(formulaOf(HARBOURS, 21)).toBe('MAX(moorings.Depth at low water)')
		expect(store.workspace().document.lines[0]?.where).toBe('Depth at low water < 30')
		const { document } = readDraft(store, 1)
		expect(document.screens[0]?.lines[0]).toMatchObject({ where: "Depth at low water > 2 and 'not in use' <> TRUE" })
		expect(document.routines[0]?.start).toMatchObject({ where: 'Depth at low water > 5' })
		expect(document.routines[0]?.steps[0]).toMatchObject({
			subject: 'New {{',
			body: 'It is {Depth at low water} deep at {Harbour.Name}'
		})
		expect(cellsOf(row)).toMatchObject({ c31: 4, c34: 8 })
	})

	test('that would be misread stands in quotes', () => {
		changeColumn(store, { ...by, table: MOORINGS, column: 31, words: { name: 'in metres, at low' } })
		expect(formulaOf(MOORINGS, 34)).toBe("'in metres, at low' * 2 + COUNT(Harbour.moorings)")
	})

	test('of a table: the sets that are called after it', () => {
		changeTable(store, { ...by, table: MOORINGS, words: { name: 'Berths' } })
		expect(formulaOf(HARBOURS, 21)).toBe('MAX(berths.Depth)')
		expect(formulaOf(MOORINGS, 34)).toBe('depth * 2 + COUNT(Harbour.berths)')
		expect(store.db.prepare('SELECT count(*) FROM "table Berths"').pluck().get()).toBe(0)
	})

	test('of a set', () => {
		changeColumn(store, { ...by, table: MOORINGS, column: 32, words: { reverseName: 'places to lie' } })
		expect(formulaOf(HARBOURS, 21)).toBe('MAX(places to lie.Depth)')
	})

	test('in releases too: an old one, put back, still works', () => {
		releaseApp(store, { app: 1, note: '', ...by })
		expect(findLiveApp(store, 1)?.document.screens[0]?.lines[0]).toMatchObject({ columns: [30, 31] })
		changeColumn(store, { ...by, table: MOORINGS, column: 31, words: { name: 'Deep' } })
		expect(findLiveApp(store, 1)?.document.screens[0]?.lines[0]).toMatchObject({
			where: "Deep > 2 and 'not in use' <> TRUE"
		})
	})

	test('that is taken is refused', () => {
		const taken = () => changeColumn(store, { ...by, table: MOORINGS, column: 31, words: { name: 'CODE' } })
		expect(taken).toThrow('Moorings has a column called "CODE" already.')
	})

	test('is not for somebody who does not keep the table', () => {
		const other = { actor: { person: 99 }, now: NOW }
		const change = () => changeColumn(store, { ...other, table: MOORINGS, column: 31, words: { name: 'Deep' } })
		expect(change).toThrow('This table is not there, or is kept by somebody else.')
	})
})

describe('taking a column out', () => {
	test('says what names it, and is refused while something needs it', () => {
		expect(usesOfColumn(store, MOORINGS, 31)).toEqual([
			{ place: 'Harbours, Deepest', needs: true },
			{ place: 'Moorings, Twice', needs: true },
			{ place: 'A line of access to Moorings', needs: true },
			{ place: 'Care: Screen Due', needs: true },
			{ place: 'Care: Routine Tell', needs: true }
		])
		expect(() => removeColumn(store, { ...by, table: MOORINGS, column: 31 })).toThrow(
			'These cannot do without it: Harbours, Deepest'
		)
	})

	test('takes it off the lines that show it, and putting it back brings its values', () => {
		const row = add(MOORINGS, { 30: 'VQ-001', 35: 'Sound' })
		expect(previewRemoval(store, { ...by, table: MOORINGS, column: 35 })).toEqual({ uses: [], filled: 1 })
		removeColumn(store, { ...by, table: MOORINGS, column: 35 })
		expect(cellsOf(row)).not.toHaveProperty('c35')
		expect(store.workspace().document.lines[0]?.columns).toEqual({ kind: 'only', columns: [30, 31] })
		returnColumn(store, { ...by, table: MOORINGS, column: 35 })
		expect(cellsOf(row)).toMatchObject({ c35: 'Sound' })
	})
})

describe('another type', () => {
	test('shows what cannot be read, converts the rest, and can be put back', () => {
		const rows = ['12', '3.5', 'deep'].map((text, i) => add(MOORINGS, { 30: `A${i}`, 35: text }))
		expect(previewConversion(store, { ...by, table: MOORINGS, column: 35, type: 'decimal' })).toEqual({
			read: 2,
			blank: 0,
			unread: [{ text: 'deep', rows: 1 }]
		})
		const { version } = store.workspace()
		const id = convertColumn(store, { ...by, table: MOORINGS, column: 35, type: 'decimal' })
		expect(rows.map((row) => cellsOf(row)[`c${id}`])).toEqual([12, 3.5, null])
		putTableBack(store, { ...by, table: MOORINGS, version })
		expect(rows.map((row) => cellsOf(row)['c35'])).toEqual(['12', '3.5', 'deep'])
	})

	test('text becomes a choice of what stands there', () => {
		const row = add(MOORINGS, { 30: 'A', 35: 'Sound' })
		add(MOORINGS, { 30: 'B', 35: 'Watch' })
		const id = convertColumn(store, { ...by, table: MOORINGS, column: 35, type: 'choice' })
		expect(cellsOf(row)[`c${id}`]).toBe('Sound')
		expect(
			store
				.workspace()
				.catalogue.tables.get(MOORINGS)
				?.columns.find((each) => each.id === id)?.choices
		).toEqual(['Sound', 'Watch'])
	})

	test('that a formula cannot use is refused, and nothing has changed', () => {
		const change = () => convertColumn(store, { ...by, table: MOORINGS, column: 31, type: 'text' })
		expect(change).toThrow('MAX needs numbers, but this is a text.')
	})

	test('a reference takes the places of the text it was made of', () => {
		add(HARBOURS, { 20: 'Ness Hythe' })
		const row = add(MOORINGS, { 30: 'NH-001', 35: 'ness hythe' })
		const id = toReference(store, { ...by, table: MOORINGS, column: 35, to: HARBOURS, fixes: [] })
		expect(cellsOf(row)[`c${id}`]).toMatchObject({ label: 'Ness Hythe' })
		expect(store.workspace().document.lines[0]?.columns).toEqual({ kind: 'only', columns: [30, 31, id] })
	})
})

describe('putting a table back', () => {
	test('undoes a formula', () => {
		const { version } = store.workspace()
		setFormula(store, { ...by, table: MOORINGS, column: 34, formula: 'Depth + 1' })
		putTableBack(store, { ...by, table: MOORINGS, version })
		expect(formulaOf(MOORINGS, 34)).toBe('depth * 2 + COUNT(Harbour.moorings)')
	})

	test('is refused when somebody has changed it since', () => {
		const { version } = store.workspace()
		changeColumn(store, { ...by, table: MOORINGS, column: 35, words: { about: 'What was seen' } })
		changeColumn(store, { ...by, table: MOORINGS, column: 35, words: { name: 'Seen' } })
		expect(() => putTableBack(store, { ...by, table: MOORINGS, version })).toThrow('changed again since')
	})
})

describe('rules', () => {
	test('a default fills what was left blank, as the system', () => {
		changeColumn(store, { ...by, table: MOORINGS, column: 35, words: { otherwise: '"seen " & TODAY()' } })
		expect(cellsOf(add(MOORINGS, { 30: 'A' }))).toMatchObject({ c35: 'seen 2026-11-23' })
		expect(cellsOf(add(MOORINGS, { 30: 'B', 35: null }))).toMatchObject({ c35: 'seen 2026-11-23' })
		expect(cellsOf(add(MOORINGS, { 30: 'C', 35: 'typed' }))).toMatchObject({ c35: 'typed' })
	})

	test('a numbering counts up, and by the year', () => {
		changeColumn(store, { ...by, table: MOORINGS, column: 35, words: { numbering: 'M-{year}-{0000}' } })
		expect([add(MOORINGS, { 30: 'A' }), add(MOORINGS, { 30: 'B' })].map((row) => cellsOf(row)['c35'])).toEqual([
			'M-2026-0001',
			'M-2026-0002'
		])
		const bad = () => changeColumn(store, { ...by, table: MOORINGS, column: 35, words: { numbering: 'M-{day}-{00}' } })
		expect(bad).toThrow('one group of noughts in braces')
	})

	test('a check speaks in the builder’s words; a blank is let through unless the check asks for blanks', () => {
		const checks = [
			{ formula: 'Depth < 40', message: 'Depth is in metres, up to 40.' },
			{ formula: 'not (Code = "Z") or not ISBLANK(Depth)', message: 'Z needs a depth.' }
		]
		changeTable(store, { ...by, table: MOORINGS, words: { checks } })
		expect(() => add(MOORINGS, { 30: 'A', 31: 41 })).toThrow('Depth is in metres, up to 40.')
		expect(add(MOORINGS, { 30: 'A' })).not.toBe('')
		expect(() => add(MOORINGS, { 30: 'Z' })).toThrow('Z needs a depth.')
	})

	test('a default may read only what its writer holds', () => {
		const otherwise = 'FIRST(SORT(Harbour.moorings; Code)).Code'
		expect(() => changeColumn(store, { ...by, table: MOORINGS, column: 35, words: { otherwise } })).not.toThrow()
		const people = () => changeColumn(store, { ...by, table: PEOPLE_TABLE, column: 1, words: { otherwise: '"x"' } })
		expect(people).not.toThrow()
	})

	test('a column that holds a value twice cannot become unique', () => {
		add(MOORINGS, { 30: 'A', 35: 'same' })
		add(MOORINGS, { 30: 'B', 35: 'Same' })
		const unique = () => changeColumn(store, { ...by, table: MOORINGS, column: 35, words: { unique: true } })
		expect(unique).toThrow('more than once')
	})
})

describe('what a change of structure must not do', () => {
	test('show a column to those it was kept from, after it was taken out and put back', () => {
		const { document } = store.workspace()
		const columns = { kind: 'except' as const, columns: [35] }
		saveWorkspace(
			store,
			{ ...document, lines: [{ id: 'b', table: MOORINGS, role: 1, verbs: ['see'], where: '', columns }] },
			{ now: NOW, by: KEEPER }
		)
		removeColumn(store, { ...by, table: MOORINGS, column: 35 })
		returnColumn(store, { ...by, table: MOORINGS, column: 35 })
		expect(store.workspace().document.lines[0]?.columns).toEqual(columns)
	})

	test('turn one choice into another when their order changes, there and back', () => {
		const rows = ['Sound', 'Watch', 'Replace'].map((text, i) => add(MOORINGS, { 30: `A${i}`, 35: text }))
		const id = convertColumn(store, { ...by, table: MOORINGS, column: 35, type: 'choice' })
		const stand = () => rows.map((row) => cellsOf(row)[`c${id}`])
		expect(stand()).toEqual(['Sound', 'Watch', 'Replace'])
		const { version } = store.workspace()
		const choose = (choices: string[]) =>
			changeColumn(store, { ...by, table: MOORINGS, column: id, words: { choices } })
		// Offered as they were found, in the order of the alphabet: Replace, Sound, Watch. One is renamed, two change places.
		choose(['Replace now', 'Watch', 'Sound', 'New'])
		expect(stand()).toEqual(['Sound', 'Watch', 'Replace now'])
		putTableBack(store, { ...by, table: MOORINGS, version })
		expect(stand()).toEqual(['Sound', 'Watch', 'Replace'])
	})

	test('turn several choices into others when their order and words change', () => {
		const texts = ['Rope, Chain', 'Chain', 'Shackle, Rope']
		const rows = texts.map((text, i) => add(MOORINGS, { 30: `A${i}`, 35: text }))
		const id = convertColumn(store, { ...by, table: MOORINGS, column: 35, type: 'several choices' })
		const stand = () => rows.map((row) => cellsOf(row)[`c${id}`])
		expect(stand()).toEqual(['Chain; Rope', 'Chain', 'Rope; Shackle'])
		const choose = (choices: string[]) =>
			changeColumn(store, { ...by, table: MOORINGS, column: id, words: { choices } })
		choose(['Rope', 'Chain', 'Shackle, large'])
		expect(stand()).toEqual(['Rope; Chain', 'Chain', 'Rope; Shackle, large'])
		expect(() => choose(['Rope', 'Shackle, large'])).toThrow('Rows still hold one of the choices')
		expect(() => choose(['Rope; tarred', 'Chain', 'Shackle, large'])).toThrow('has a semicolon')
		const count = (where: string) =>
			countRows(store, { person: KEEPER }, { table: MOORINGS, where: [where], limit: 10 }, NOW)
		const column = store
			.workspace()
			.catalogue.tables.get(MOORINGS)
			?.columns.find((each) => each.id === id)
		expect(count(`"chain" in ${column?.name}`)).toBe(2)
		expect(count(`not ("rope" in ${column?.name})`)).toBe(1)
	})

	test('drop a choice that a row holds', () => {
		add(MOORINGS, { 30: 'A', 35: 'Sound' })
		add(MOORINGS, { 30: 'B', 35: 'Watch' })
		const id = convertColumn(store, { ...by, table: MOORINGS, column: 35, type: 'choice' })
		const drop = () => changeColumn(store, { ...by, table: MOORINGS, column: id, words: { choices: ['Sound'] } })
		expect(drop).toThrow('Rows still hold one of the choices that would go.')
	})

	test('leave a kept value as it was when a column it reads changes its type, or its formula', () => {
		addColumn(store, { ...by, table: MOORINGS, column: { name: 'Said', type: 'computed', formula: '"is " & Notes' } })
		addColumn(store, {
			...by,
			table: MOORINGS,
			column: { name: 'Said twice', type: 'computed', formula: 'Said & "!"' }
		})
		const [said, twice] = ['Said', 'Said twice'].map(
			(name) =>
				store
					.workspace()
					.catalogue.tables.get(MOORINGS)
					?.columns.find((each) => each.name === name)?.id ?? 0
		)
		const row = add(MOORINGS, { 30: 'A', 35: '007' })
		expect(cellsOf(row)).toMatchObject({ [`c${said}`]: 'is 007', [`c${twice}`]: 'is 007!' })
		convertColumn(store, { ...by, table: MOORINGS, column: 35, type: 'whole number' })
		expect(cellsOf(row)).toMatchObject({ [`c${said}`]: 'is 7', [`c${twice}`]: 'is 7!' })
		setFormula(store, { ...by, table: MOORINGS, column: said ?? 0, formula: '"was " & Notes' })
		expect(cellsOf(row)).toMatchObject({ [`c${twice}`]: 'was 7!' })
	})

	test('give another meaning to a formula by a name that is taken for a set', () => {
		changeColumn(store, { ...by, table: MOORINGS, column: 32, words: { reverseName: 'places' } })
		const rename = () => changeColumn(store, { ...by, table: HARBOURS, column: 20, words: { name: 'places' } })
		expect(rename).toThrow('would mean something else. Choose another.')
	})

	test('change who keeps the table when it is put back', () => {
		const { version, document } = store.workspace()
		changeColumn(store, { ...by, table: MOORINGS, column: 35, words: { about: 'What was seen' } })
		putTableBack(store, { ...by, table: MOORINGS, version })
		expect(store.workspace().document.tables[2]?.keepers).toEqual(document.tables[2]?.keepers)
	})
})

test('a numbering goes on from what stands there already', () => {
	add(MOORINGS, { 30: 'A', 35: 'M-2026-0041' })
	add(MOORINGS, { 30: 'B', 35: 'M-2025-0099' })
	changeColumn(store, { ...by, table: MOORINGS, column: 35, words: { numbering: 'M-{year}-{0000}' } })
	expect(cellsOf(add(MOORINGS, { 30: 'C' }))).toMatchObject({ c35: 'M-2026-0042' })
})

describe('who keeps a table', () => {
	const keep = (keepers: number[], actor = by.actor) => setKeepers(store, { table: MOORINGS, keepers, actor, now: NOW })

	beforeEach(() => {
		store.db.exec(`
			INSERT INTO t1 (n, made_at, changed_at, c1, c1k) VALUES (2, 0, 0, 'Jory', 'jory'), (3, 0, 0, 'Imke', 'imke');
			INSERT INTO role_held (person, role) VALUES (2, 2)`)
	})

	test('is said by a keeper: a builder joins, and may then leave it to themselves', () => {
		add(MOORINGS, { 30: 'NH-001', 31: 40 })
		const seen = () => readRows(store, { person: 2 }, { table: MOORINGS }, NOW).rows.length
		expect(seen()).toBe(0)
		keep([KEEPER, 2])
		expect(seen()).toBe(1)
		keep([2], { person: 2 })
		expect(() => keep([KEEPER])).toThrow(/kept by somebody else/)
	})

	test('is never nobody, nor somebody who is no builder', () => {
		expect(() => keep([])).toThrow(/Somebody must keep/)
		expect(() => keep([KEEPER, 3])).toThrow(/Imke is no builder/)
		expect(() => keep([2], { person: 2 })).toThrow(/kept by somebody else/)
	})
})
