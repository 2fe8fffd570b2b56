/** Open formats in and out. What goes out is read back by the way in, and by libraries of their own. */
import Database from 'better-sqlite3'
import ExcelJS from 'exceljs'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, test } from 'vitest'
import { defuse } from '$lib/core/exchange/write-csv.ts'
import type { WireRow } from '$lib/core/query/wire.ts'
import type { FileHead } from '$lib/server/exports/file-cell.ts'
import { FILE_FORMATS, type MadeFormat } from '$lib/core/exchange/file-formats.ts'
import { beginFile } from '$lib/server/exports/make-file.ts'
import { bringIn } from '$lib/server/sources/bring-in.ts'
import { type Batch } from '$lib/server/sources/batch-writer.ts'
import { inspectFile } from '$lib/server/sources/inspect.ts'

/** All formats but CSV, which is streamed. */
const MADE = Object.keys(FILE_FORMATS).filter((each) => !each.startsWith('csv')) as MadeFormat[]

const folder = mkdtempSync(join(tmpdir(), 'tin-shed-formats-'))

function given(name: string, content: string | Uint8Array): { path: string; name: string } {
	const path = join(folder, name)
	writeFileSync(path, content)
	return { path, name }
}

const TAKEN: FileHead & { readonly rows: readonly WireRow[] } = {
	name: 'Moorings',
	columns: [
		{ id: 1, name: 'Code', type: 'code' },
		{ id: 2, name: 'Depth', type: 'decimal', places: 1, unit: 'm' },
		{ id: 3, name: 'Last look', type: 'date' },
		{ id: 4, name: 'Harbour', type: 'reference', to: 5 },
		{ id: 5, name: 'Sunk', type: 'yes/no' },
		{ id: 6, name: 'Kept', type: 'text' }
	],
	rows: [
		row('a', { c1: '007', c2: 4.5, c3: '2026-03-12', c4: { id: 'x', label: 'Ness Hythe' }, c5: true, c6: 'a' }),
		row('b', { c1: 'NH-002', c2: null, c3: null, c4: { hidden: true }, c5: false }),
		row('c', { c1: 'NH-003', c2: -1, c3: '1999-12-31', c4: null, c5: null, c6: 'say "so",\ntwice' })
	]
}

/** In two pages, as it is made. */
async function makeFile(format: MadeFormat, path: string): Promise<void> {
	const { rows, ...head } = TAKEN
	const file = await beginFile({ ...head, format, path })
	await file.add(rows.slice(0, 2))
	await file.add(rows.slice(2))
	await file.end()
}

function row(id: string, cells: WireRow['cells']): WireRow {
	return { id, rev: 1, cells }
}

describe('a table goes out and comes in again', () => {
	test.each(MADE)('as %s', async (format) => {
		const path = join(folder, `moorings.${format}`)
		await makeFile(format, path)
		const found = await inspectFile({ path, name: `moorings.${format}` })
		expect([found.sheet, found.rowCount]).toEqual(
			['Moorings', 3].map((each) => (each === 'Moorings' && format === 'json' ? 'moorings' : each))
		)
		expect(found.columns.map((column) => column.name)).toEqual(TAKEN.columns.map((column) => column.name))
		const types = Object.fromEntries(found.columns.map((column) => [column.name, column.type]))
		expect(types).toMatchObject({ Depth: 'decimal', 'Last look': 'date' })
		// Leading noughts are not lost on the way.
		expect(found.head.slice(found.firstRow).map((cells) => cells[0])).toEqual(['007', 'NH-002', 'NH-003'])
		// What its reader did not see is nowhere in the file.
		expect(found.head[found.firstRow + 1]?.[3]).toBe('')
	})

	test('XLSX keeps dates as dates and numbers as numbers (read by exceljs)', async () => {
		const path = join(folder, 'read.xlsx')
		await makeFile('xlsx', path)
		const book = new ExcelJS.Workbook()
		await book.xlsx.readFile(path)
		const second = book.worksheets[0]?.getRow(2)
		expect(second?.getCell(3).value).toEqual(new Date('2026-03-12'))
		expect(second?.getCell(2).value).toBe(4.5)
		expect(book.worksheets[0]?.getRow(1).getCell(2).value).toBe('Depth (m)')
	})

	test('JSON of no rows is an empty list, and of several pages one list (RFC 8259)', async () => {
		const empty = join(folder, 'empty.json')
		await (await beginFile({ name: 'Moorings', columns: TAKEN.columns, format: 'json', path: empty })).end()
		expect(JSON.parse(readFileSync(empty, 'utf8'))).toEqual([])
		const path = join(folder, 'read.json')
		await makeFile('json', path)
		const records = JSON.parse(readFileSync(path, 'utf8')) as { Code: string }[]
		expect(records.map((record) => record.Code)).toEqual(['007', 'NH-002', 'NH-003'])
	})

	test('SQLite holds a table of the same name (read by SQLite itself)', async () => {
		const path = join(folder, 'read.sqlite')
		await makeFile('sqlite', path)
		const db = new Database(path, { readonly: true })
		expect(db.prepare('SELECT "Code", "Depth", "Sunk" FROM "Moorings" ORDER BY rowid').raw().all()).toEqual([
			['007', 4.5, 1],
			['NH-002', null, 0],
			['NH-003', -1, null]
		])
		db.close()
	})
})

test.each([
	['=1+1', "'=1+1"],
	['@cmd', "'@cmd"],
	['-12.5', '-12.5'],
	['-12-3', "'-12-3"],
	['-5%', '-5%'],
	['plain', 'plain']
])('a cell that a spreadsheet would run is made plain (OWASP, CSV Injection): %s', (text, wanted) => {
	expect(defuse(text)).toBe(wanted)
})

describe('records', () => {
	test('JSON: what is nested gets a name with dots, lists are joined (RFC 8259)', async () => {
		const json = JSON.stringify([
			{ code: 'A', at: { lat: 50.1, lon: -4.2 }, tags: ['steel', 'new'] },
			{ code: 'B', extra: null, deep: { a: { b: 1 } } }
		])
		const found = await inspectFile(given('list.json', json))
		expect(found.columns.map((column) => column.name)).toEqual([
			'code',
			'at.lat',
			'at.lon',
			'tags',
			'extra',
			'deep.a.b'
		])
		expect(found.head[1]).toEqual(['A', '50.1', '-4.2', 'steel; new', '', ''])
		expect(found.rowCount).toBe(2)
	})

	test('NDJSON: a record a line, and the line that is none is named', async () => {
		const found = await inspectFile(given('lines.ndjson', '{"a":1}\n{"a":2}\n'))
		expect(found.rowCount).toBe(2)
		await expect(inspectFile(given('bad.ndjson', '{"a":1}\nnot\n'))).rejects.toThrow('line 2 is no record')
	})

	test('an object of lists is a sheet for each', async () => {
		const found = await inspectFile(given('two.json', '{"berths":[{"no":1}],"crews":[{"name":"x"}],"made":"2026"}'))
		expect(found.sheets).toEqual(['berths', 'crews'])
	})
})

test('a sheet of more columns than a table takes is refused, however few cells it has', async () => {
	const book = new ExcelJS.Workbook()
	book.addWorksheet('Wide').getCell('AAA100000').value = 'far away'
	const bytes = new Uint8Array(await book.xlsx.writeBuffer())
	await expect(inspectFile(given('wide.xlsx', bytes))).rejects.toThrow(
		'wide.xlsx has 703 columns, and a table takes at most 500.'
	)
})

describe('a database', () => {
	const path = join(folder, 'stores.db')
	const db = new Database(path)
	db.exec(`
		CREATE TABLE item (id INTEGER PRIMARY KEY, code TEXT, price REAL, large INTEGER, picture BLOB);
		INSERT INTO item VALUES (1, '0042', 1.5, 9007199254740993, x'00ff'), (2, 'B', NULL, 1, NULL);
		CREATE TABLE supplier (name TEXT);
		CREATE VIEW leaks AS SELECT load_extension('x');
		INSERT INTO supplier VALUES ('Chandlery');`)
	db.close()

	test('its tables are sheets, its key is the label, digits past 2^53 stay exact, views are not run', async () => {
		const found = await inspectFile({ path, name: 'stores.db' })
		expect(found.sheets).toEqual(['item', 'supplier'])
		expect(found.label).toBe(0)
		expect(found.head[1]).toEqual(['1', '0042', '1.5', '9007199254740993', ''])
	})

	test('what of it is no table, or no value of one, is said', async () => {
		const odd = join(folder, 'odd.db')
		const made = new Database(odd)
		made.pragma('journal_mode = WAL')
		made.exec(`
			CREATE TABLE chain (code TEXT, metres REAL, fathoms REAL AS (metres / 1.8288), twice REAL AS (metres * 2) STORED, photo BLOB);
			INSERT INTO chain VALUES ('C1', 18.288, x'00ff'), ('C2', 1.5, NULL);
			CREATE TABLE empty (name TEXT, day TEXT);
			CREATE VIEW short AS SELECT * FROM chain WHERE metres < 5;
			CREATE VIRTUAL TABLE words USING fts5(code);`)
		made.close()
		const found = await inspectFile({ path: odd, name: 'odd.db' })
		expect(found.sheets).toEqual(['chain', 'empty'])
		expect(found.head[1]).toEqual(['C1', '18.288', '10', '36.576', ''])
		expect(found.notes).toEqual([
			'short asks the tables again, and is left aside.',
			'words is kept by a part of the database that is not opened here, and is left aside.',
			'Its latest changes may still lie in odd.db-wal beside it. Where another program writes this file, close that program first, and bring the file in again.',
			'fathoms, twice: computed by the database, and brought in as what it gives now.',
			'photo: 1 value of bytes, such as pictures, is left aside.'
		])
		// 18.288 could be a thousand and more in another's writing; a database leaves no doubt.
		expect(found.columns.flatMap(({ doubts }) => doubts)).toEqual([])
		const empty = await inspectFile({ path: odd, name: 'odd.db', sheet: 'empty' })
		expect([empty.rowCount, empty.columns.map(({ name, blank }) => [name, blank])]).toEqual([
			0,
			[
				['name', false],
				['day', false]
			]
		])
	})

	test('a damaged one is refused in words', async () => {
		const bytes = readFileSync(path)
		bytes.fill(7, 100, 3000)
		await expect(inspectFile(given('bad.db', bytes))).rejects.toThrow('bad.db is a database of SQLite, and damaged.')
	})
})

describe('a long text is read in pieces', () => {
	test('quoted line breaks and characters across the cuts come whole', async () => {
		const line = (i: number) => `${i},"é${'ü'.repeat(40)}\r\n""${i}""",x`
		const rows = Array.from({ length: 60_000 }, (_line, i) => line(i))
		const file = given('long.csv', `no,text,end\r\n${rows.join('\r\n')}\r\n`)
		const found = await inspectFile(file)
		expect(found.rowCount).toBe(60_000)
		const batches: Batch[] = []
		const plan = {
			sheet: '',
			headingRow: 0,
			firstRow: 1,
			tableName: 'long',
			label: 0,
			columns: ['no', 'text', 'end'].map((name, from) => ({
				from,
				name,
				type: from === 0 ? ('whole number' as const) : ('long text' as const),
				include: true,
				writing: { dates: 'day first' as const, decimal: '.' as const },
				fixes: []
			}))
		}
		const begun = {
			table: 9,
			timeZone: 'UTC',
			columns: plan.columns.map(({ name, type }, i) => ({ id: i + 1, name, type }))
		}
		const brought = await bringIn(
			{ ...file, plan, begun, now: 0, person: 1 },
			async (batch) => void batches.push(batch),
			{ onProgress: () => undefined, isStopped: () => false }
		)
		expect(brought).toEqual({ rows: 60_000, unread: [], unreadCount: 0, references: [] })
		const values = batches.flatMap((batch) => batch.values)
		expect(values.slice(-3)).toEqual([59_999, `é${'ü'.repeat(40)}\n"59999"`, 'x'])
		expect(values.filter((_value, i) => i % 3 === 0)).toEqual(Array.from({ length: 60_000 }, (_row, i) => i))
	})

	test('the one odd value among very many different ones is still found', async () => {
		const rows = Array.from({ length: 40_000 }, (_row, i) => (i === 39_000 ? 'n/k' : `${i}.${i % 10}`))
		const found = await inspectFile(given('odd.csv', `depth\n${rows.join('\n')}\n`))
		expect(found.columns[0]?.type).toBe('decimal')
		expect(found.columns[0]?.doubts).toContainEqual({ kind: 'unreadable', text: 'n/k', rows: [39_002] })
	})
})
