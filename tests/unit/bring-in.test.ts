/**
 * Files as they come: the demo's register, open data from vega-datasets (airports.csv and seattle-weather.csv, both of
 * US federal origin) and nine more of other shapes, and files that are damaged, empty, locked or not what they say.
 */
import Database from 'better-sqlite3'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { describe, expect, test } from 'vitest'
import { AppError } from '$lib/core/app-error.ts'
import { cellReader, type ImportPlan } from '$lib/core/exchange/plan.ts'
import { textKey } from '$lib/core/text/key.ts'
import { KEEPER, openScratch } from '../support/scratch-store.ts'
import { bringIn } from '$lib/server/sources/bring-in.ts'
import { type Batch } from '$lib/server/sources/batch-writer.ts'
import { beginImport, finishImport, writeBatch } from '$lib/server/sources/import-table.ts'
import { inspectFile } from '$lib/server/sources/inspect.ts'
import type { Column } from '$lib/core/model/table.ts'
import { registerRows, writeRegister } from '../../demo/register.ts'
import { randomFrom } from '../../demo/random.ts'

const folder = mkdtempSync(join(tmpdir(), 'tin-shed-files-'))
const datasets = fileURLToPath(new URL('../../node_modules/vega-datasets/data', import.meta.url))

function given(name: string, content: string | Uint8Array): string {
	const path = join(folder, name)
	writeFileSync(path, content)
	return path
}

async function inspect(name: string, content: string | Uint8Array) {
	return inspectFile({ path: given(name, content), name })
}

async function refusal(name: string, content: string | Uint8Array): Promise<string> {
	try {
		await inspect(name, content)
	} catch (error) {
		if (error instanceof AppError) return error.message
		throw error
	}
	throw new Error('Expected a refusal, got none')
}

describe('the register', () => {
	test('title rows, day-first dates, a stray spelling, a comma decimal, a blank column: all told', async () => {
		const path = join(folder, 'register.xlsx')
		await writeRegister(path, registerRows(randomFrom(1871), '2026-11-23'))
		const found = await inspectFile({ path, name: 'register.xlsx' })
		expect([found.sheet, found.headingRow, found.firstRow, found.rowCount]).toEqual(['Register 2026', 2, 3, 264])
		const types = Object.fromEntries(found.columns.map((column) => [column.name, column.type]))
		expect(types).toEqual({
			Code: 'code',
			Harbour: 'choice',
			Type: 'choice',
			Depth: 'decimal',
			Position: 'place',
			'Last look': 'date',
			Chain: 'whole number',
			'Chain read': 'decimal',
			Holder: 'text',
			'Holder phone': 'phone',
			Arrears: 'money',
			Note: 'choice',
			'Old ref': 'text'
		})
		const doubts = found.columns.flatMap((column) => column.doubts.map((doubt) => [column.name, doubt.kind]))
		expect(doubts).toEqual([
			['Type', 'spelling'],
			['Depth', 'other writing']
		])
		expect(found.columns.find((column) => column.name === 'Old ref')?.blank).toBe(true)
		expect(found.label).toBe(0)
	})
})

describe('open data', () => {
	test('airports', async () => {
		const found = await inspectFile({ path: join(datasets, 'airports.csv'), name: 'airports.csv' })
		const types = Object.fromEntries(found.columns.map((column) => [column.name, column.type]))
		expect(found.rowCount).toBe(readFileSync(join(datasets, 'airports.csv'), 'utf8').trim().split('\n').length - 1)
		expect(types).toMatchObject({ iata: 'text', name: 'text', latitude: 'decimal', longitude: 'decimal' })
	})

	test('weather', async () => {
		const found = await inspectFile({ path: join(datasets, 'seattle-weather.csv'), name: 'seattle-weather.csv' })
		const types = Object.fromEntries(found.columns.map((column) => [column.name, column.type]))
		expect(types).toMatchObject({ date: 'date', precipitation: 'decimal', temp_max: 'decimal', weather: 'choice' })
		expect(found.columns.find((column) => column.name === 'weather')?.choices).toEqual([
			'drizzle',
			'rain',
			'sun',
			'snow',
			'fog'
		])
	})
})

/** What a person who looked at each file says its columns are; a sample of shapes: long, wide, nested, tabbed, messy. */
const OPEN_DATA: readonly (readonly [file: string, rows: number, types: Record<string, string>])[] = [
	[
		'birdstrikes.csv',
		10_000,
		{
			'Flight Date': 'date',
			'Effect Amount of damage': 'choice',
			'Cost Repair': 'whole number',
			'Airport Name': 'text'
		}
	],
	['movies.json', 3_201, { 'Release Date': 'date', 'MPAA Rating': 'choice', 'IMDB Rating': 'decimal', Title: 'text' }],
	['unemployment.tsv', 3_218, { id: 'whole number', rate: 'decimal' }],
	['zipcodes.csv', 42_049, { zip_code: 'text', latitude: 'decimal', city: 'text' }],
	['github.csv', 955, { time: 'date and time', count: 'whole number' }],
	['stocks.csv', 560, { symbol: 'choice', date: 'date', price: 'money' }],
	['monarchs.json', 12, { name: 'text', start: 'whole number', commonwealth: 'yes/no' }],
	['la-riots.csv', 63, { death_date: 'date', gender: 'choice', latitude: 'decimal', address: 'text' }],
	['earthquakes.json', 1_707, { url: 'web address', mag: 'decimal', id: 'text' }]
]

test.each(OPEN_DATA)('open data: %s, %i rows', async (name, rows, types) => {
	const found = await inspectFile({ path: join(datasets, name), name })
	expect(found.rowCount).toBe(rows)
	expect(Object.fromEntries(found.columns.map((column) => [column.name, column.type]))).toMatchObject(types)
})

test('a word for none is an answer where it stands among words, and blank among numbers', async () => {
	const text = `damage,cost\n${Array.from({ length: 12 }, (_each, i) => `${i % 3 ? 'None' : 'Minor'},${i % 4 ? i : 'none'}`).join('\n')}\n`
	const found = await inspect('strikes.csv', text)
	expect(found.columns.map((column) => [column.type, column.choices, column.doubts])).toEqual([
		['choice', ['Minor', 'None'], []],
		['whole number', undefined, []]
	])
})

test('several choices in a cell are told from a few words that come again, with semicolons between', async () => {
	const found = [
		'Worn shackle; Stiff swivel',
		'worn shackle',
		'Chafed riser;Stiff swivel',
		'Chafed riser',
		'Stiff swivel'
	]
	const rows = [...found, ...found].map((cell, i) => `NH-0${i},${cell}`)
	const { columns } = await inspect('findings.csv', `Code,Findings\n${rows.join('\n')}\n`)
	expect(columns[1]).toMatchObject({
		type: 'several choices',
		choices: ['Worn shackle', 'Stiff swivel', 'Chafed riser'],
		doubts: []
	})
	const remarks = found.map((cell, i) => `NH-0${i},${cell} on dive ${i}`)
	const free = await inspect('remarks.csv', `Code,Remark\n${remarks.join('\n')}\n`)
	expect(free.columns[1]?.type).toBe('text')
})

describe('what cannot be read is refused in plain words', () => {
	test.each([
		['nothing.csv', '', 'is empty'],
		['marks.csv', '\ufeff', 'is empty'],
		['blank.csv', '\n\n , \n', 'is empty'],
		['damaged.xlsx', 'PK\x03\x04 and then nothing of the kind', 'is damaged'],
		['really.xlsx', new Uint8Array(Array.from({ length: 60 }, (_byte, i) => i % 8)), 'it is not'],
		['old.xls', new Uint8Array([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1, 1, 2, 3]), 'is of an old kind of file'],
		[
			'picture.csv',
			new Uint8Array(Array.from({ length: 300 }, (_each, i) => (i * 37) % 31)),
			'is no text, workbook, JSON or SQLite file'
		]
	])('%s', async (name, content, said) => {
		expect(await refusal(name, content)).toContain(said)
	})
})

describe('ragged and unusual text', () => {
	test.each([
		['semicolons and commas', 'Preis;Menge\n"1.234,56";3\n0,99;4\n', ['Preis', 'Menge'], 2],
		['a separator that is said', 'sep=;\na;b\n1;2\n', ['a', 'b'], 1],
		['quoted line breaks', 'a,b\n"one\ntwo",3\n', ['a', 'b'], 1],
		['ragged rows', 'a,b,c\n1,2\n1,2,3\n', ['a', 'b', 'c'], 2],
		['headings that repeat or are missing', 'a,a,,b\n1,2,3,4\n', ['a', 'a 2', 'Column 3', 'b'], 1],
		['UTF-16', Buffer.from('\ufeffName\tOrt\r\nÄ\tÖ\r\n', 'utf16le'), ['Name', 'Ort'], 1],
		['Windows-1252', Buffer.from('Name,Ort\nM\xfcller,K\xf6ln\n', 'latin1'), ['Name', 'Ort'], 1]
	])('%s', async (what, content, names, rows) => {
		const found = await inspect(`${what}.csv`, content)
		expect(found.columns.map((column) => column.name)).toEqual(names)
		expect(found.rowCount).toBe(rows)
	})
})

describe('cells', () => {
	const reader = (
		type: Column['type'],
		extra: Partial<Column> = {},
		fixes: [string, string | null][] = [],
		decimal: '.' | ',' = '.'
	) => {
		const column = { id: 1, name: 'x', type, ...extra } as Column
		const plan = {
			from: 0,
			name: 'x',
			type: type as 'text',
			include: true,
			writing: { dates: 'day first' as const, decimal },
			fixes
		}
		return cellReader(plan, column)
	}
	test.each([
		['day first', reader('date'), '03/04/2026', '2026-04-03'],
		['a date with a midnight', reader('date'), '2026-04-03T00:00:00', '2026-04-03'],
		['a comma decimal that was settled', reader('decimal', { places: 1 }, [['1,4', '1.4']]), '1,4', 14],
		[
			'a misspelling that was settled',
			reader('choice', { choices: ['Trot', 'Swinging'] }, [['Swingng', 'Swinging']]),
			'Swingng',
			2
		],
		['money in minor units, rounded half away from zero', reader('money'), '£1,234.505', 123451],
		['money in brackets is owed', reader('money'), '(7.25)', -725],
		['a share', reader('percent'), '12.5 %', 1250],
		['a decimal comma of the whole column', reader('decimal', { places: 2 }, [], ','), '1.234,56', 123456],
		['words for nothing', reader('decimal'), 'n/a', null]
	])('%s', (_what, read, text, stored) => {
		expect(read(text)).toEqual({ value: stored, unread: false })
	})
	test('what cannot be read is blank and counted', () => {
		expect(reader('date')('31/02/2026')).toEqual({ value: null, unread: true })
	})
})

describe('rows that go in', () => {
	/** Brings a text in as it is proposed, and gives what lies in the store. */
	async function bring(name: string, content: string, change: (plan: ImportPlan) => void = () => undefined) {
		const path = given(name, content)
		const found = await inspectFile({ path, name })
		const { sheet, headingRow, firstRow, label } = found
		const columns = found.columns.map(({ name, type, choices, writing }, from) => ({
			...{ from, name, type: type as 'text', include: true, writing, fixes: [] },
			...(choices ? { choices: [...choices] } : {})
		}))
		const plan: ImportPlan = { sheet, headingRow, firstRow, label, tableName: name, columns }
		change(plan)
		const now = Date.parse('2026-11-28T12:00:00Z')
		const store = openScratch({ now, tables: [] })
		store.db.exec(`INSERT OR IGNORE INTO role_held (person, role) VALUES (${KEEPER}, 2)`)
		const actor = { person: KEEPER }
		const begun = beginImport(store, { plan, actor })
		const keys = new Set<string>()
		const write = (batch: Batch) => {
			for (const column of batch.columns) keys.add(column.key)
			return Promise.resolve(writeBatch(store, batch))
		}
		const watch = { onProgress: () => undefined, isStopped: () => false }
		const brought = await bringIn({ path, name, plan, begun, now, person: KEEPER }, write, watch)
		finishImport(store, { begun, plan, file: name, rows: brought.rows, actor, now })
		const [first] = begun.columns
		const key = first?.type === 'long text' ? 'NULL' : `c${first?.id}k`
		const rows = store.db.prepare(`SELECT c${first?.id} AS value, ${key} AS key FROM t${begun.table} ORDER BY n`).all()
		store.db.close()
		return { rows: rows as { value: string | null; key: string | null }[], keys }
	}

	test('every key is the text’s own, whether the store makes it or it is handed over', async () => {
		// Pieces of plain ASCII and others take turns: a word that is not plain stands in every 20,000th row.
		const texts = Array.from({ length: 60_000 }, (_row, i) =>
			i % 20_000 === 9_999 ? `Ängel ΣΊΣΥΦΟΣ ${i}` : `Buoy ${i}`
		)
		const { rows, keys } = await bring('keys.csv', `Remark,No\n${texts.map((text, i) => `${text},${i}`).join('\n')}\n`)
		expect(rows.map((row) => row.value)).toEqual(texts)
		expect(rows.filter((row) => row.key !== textKey(row.value ?? ''))).toEqual([])
		expect(keys).toEqual(new Set(['lower', 'given', 'none']))
	})

	test('a fix that is not plain has its own key in a file that is', async () => {
		const { rows, keys } = await bring('fix.csv', 'Code,No\nAnge,1\nBoje,2\n', (plan) => {
			for (const column of plan.columns.slice(0, 1)) Object.assign(column, { type: 'text', fixes: [['Ange', 'ÄNGE']] })
		})
		expect(rows).toEqual([
			{ value: 'ÄNGE', key: 'änge' },
			{ value: 'Boje', key: 'boje' }
		])
		expect(keys.has('lower')).toBe(false)
	})

	test('a quoted cell over many pieces is one cell', async () => {
		const long = 'a "line"\n'.repeat(11_000)
		const { rows } = await bring('long.csv', `Remark,No\n"${long.replaceAll('"', '""')}",1\nshort,2\n`, (plan) => {
			for (const column of plan.columns.slice(0, 1)) column.type = 'long text'
		})
		expect(rows.map((row) => row.value?.length)).toEqual([long.trim().length, 5])
	})

	test('foreign keys of a database become references once both tables are in; one that would lose a value does not', async () => {
		const path = join(folder, 'stores.db')
		const db = new Database(path)
		db.pragma('foreign_keys = OFF')
		db.exec(`
			CREATE TABLE lettings (slip TEXT PRIMARY KEY, locker REFERENCES lockers, gone INTEGER REFERENCES lockers (number), pair TEXT, FOREIGN KEY (slip, pair) REFERENCES lockers (harbour, number));
			CREATE TABLE lockers (number INTEGER PRIMARY KEY, harbour TEXT);
			INSERT INTO lockers VALUES (11, 'Ness Hythe'), (12, 'Gull Stair');
			INSERT INTO lettings VALUES ('A', 11, 11, 'x'), ('B', 12, 99, 'x');`)
		db.close()
		const now = Date.parse('2026-11-28T12:00:00Z')
		const store = openScratch({ now, tables: [] })
		store.db.exec(`INSERT OR IGNORE INTO role_held (person, role) VALUES (${KEEPER}, 2)`)
		const actor = { person: KEEPER }
		for (const sheet of ['lettings', 'lockers']) {
			const found = await inspectFile({ path, name: 'stores.db', sheet })
			const columns = found.columns.map(({ name, type, writing }, from) => ({
				...{ from, name, type: type as 'text', include: true, writing, fixes: [] }
			}))
			const plan = { sheet, headingRow: 0, firstRow: 1, tableName: sheet, label: found.label, columns }
			const begun = beginImport(store, { plan, actor })
			const write = (batch: Batch) => Promise.resolve(writeBatch(store, batch))
			const watch = { onProgress: () => undefined, isStopped: () => false }
			const { rows, references } = await bringIn(
				{ path, name: 'stores.db', plan, begun, now, person: KEEPER },
				write,
				watch
			)
			finishImport(store, { begun, plan, file: 'stores.db', rows, references, actor, now })
		}
		const lettings = [...store.workspace().catalogue.tables.values()].find((table) => table.name === 'lettings')
		expect(lettings?.columns.map(({ name, type }) => [name, type])).toEqual([
			['slip', 'text'],
			['locker', 'reference'],
			['gone', 'whole number'],
			['pair', 'text']
		])
		store.db.close()
	})

	test('a quote in the wrong place is told by its row, in whichever piece of the file it stands (RFC 4180, 2.5)', async () => {
		const rows = Array.from({ length: 20_000 }, (_row, i) => (i === 15_000 ? `"Buoy"${i},"x"` : `Buoy ${i},y`))
		expect((await inspect('quotes.csv', `Remark,No\n${rows.join('\n')}\n`)).damaged).toEqual([15_002])
		expect((await inspect('sound.csv', 'Remark,No\n"Buoy ""1""",1\n')).damaged).toEqual([])
	})
})
