/**
 * Channel by channel: what leaves by each way there is. Every channel is first shown to work for somebody who may, by the
 * same request, and then to give nothing to somebody who may not. The secrets are a row (Gannet, at another harbour) and a
 * cell (what Heron is worth).
 *
 * Not built yet, and so without a channel: offline copies. Channels that are tested elsewhere: open pages from which a right
 * is taken, `desk.test.ts`; messages, composed with their recipient's sight, `tests/unit/message-sight.test.ts`; conditions
 * that are tried, what a formula says of its reader, the Lookout's list, what a button sends, rows that are guessed,
 * `tests/unit/builder-holds.test.ts` and `guessing.test.ts`; a Lookout on a phone, `follow-look.test.ts`; pictures of an app,
 * `more-lines.test.ts`; searches that somebody keeps and sample rows, `tests/unit/addresses-and-searches.test.ts` and `samples.test.ts`; visitors, streams that outlive their session, drafts on a shared
 * tablet, `hostile.test.ts`.
 */
import * as XLSX from '@e965/xlsx'
import Database from 'better-sqlite3'
import { expect, test, type APIRequestContext } from '@playwright/test'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { numbersOfPeople, signInAs } from './asking.ts'

const ROW_SECRET = 'Gannet'
const CELL_SECRET = '987.65'
const ONE_DOT = Buffer.from(
	'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==',
	'base64'
)

interface Wrecks {
	readonly table: number
	/** Columns by name. */
	readonly of: Readonly<Record<string, number>>
	readonly heron: string
	readonly petrel: string
	readonly gannet: string
	/** The number of an app over them. */
	readonly app: number
}

/** A table that Saskia keeps; who manages the trust sees all of it, divers those at Ness, without what they are worth. */
async function makeWrecks(builder: APIRequestContext): Promise<Wrecks> {
	const post = async (path: string, data: unknown): Promise<never> => {
		const answer = await builder.post(path, { data })
		expect(answer.status(), await answer.text()).toBe(200)
		return (await answer.json()) as never
	}
	const made = async (step: unknown): Promise<number> =>
		((await post('/bench/structure', step)) as { made: number }).made
	const name = `Wrecks ${Date.now()}`
	const columns = [
		{ name: 'Name', type: 'text', unique: true },
		{ name: 'Harbour', type: 'choice', choices: ['Ness', 'Varrow'] },
		{ name: 'Worth', type: 'money' },
		{ name: 'Photo', type: 'photo' }
	]
	const table = await made({ kind: 'table', name, columns })
	const column = (entry: object) => made({ kind: 'column', table, column: entry })
	await column({ name: 'Twin', type: 'reference', to: table, reverseName: 'twins' })
	await column({ name: 'Twin name', type: 'computed', formula: 'Twin.Name' })
	await column({ name: 'Twin worth', type: 'computed', formula: 'Twin.Worth' })
	await column({ name: 'Twin count', type: 'computed', formula: 'COUNT(twins)' })
	await column({ name: 'All worth', type: 'computed', formula: 'SUM(twins.Worth)' })
	await column({ name: 'Dear', type: 'computed', formula: 'Worth > 900' })
	const of = columnsOf(table)
	const line = (id: string, role: string, verbs: string[], where: string, scope: object) => ({
		...{ id, table, role: roleNumber(role), verbs, where, columns: scope }
	})
	const kept = { kind: 'except', columns: [of['Worth']] }
	const version = Number(versionNow())
	const lines = [
		line('m', 'Trust manager', ['see', 'add', 'change'], '', { kind: 'all' }),
		line('d', 'Divers', ['see', 'add', 'change'], 'Harbour = "Ness"', kept)
	]
	const saved = await builder.put(`/bench/lines/${table}`, { data: { lines, version } })
	expect(saved.status(), await saved.text()).toBe(200)
	const add = async (cells: Record<string, unknown>): Promise<string> => {
		const list = Object.entries(cells).map(([of_, value]) => ({ column: of[of_], value }))
		return ((await post(`/rows/${table}`, { kind: 'add', cells: list })) as { row: string }).row
	}
	const heron = await add({ Name: 'Heron', Harbour: 'Ness', Worth: 987.65 })
	const petrel = await add({ Name: 'Petrel', Harbour: 'Ness', Worth: 1234.5 })
	const given = await builder.put(`/files/${of['Photo']}?name=gannet.png`, { data: ONE_DOT })
	const { token } = (await given.json()) as { token: string }
	const gannet = await add({
		Name: 'Gannet',
		Harbour: 'Varrow',
		Worth: 44,
		Twin: { id: heron },
		Photo: { file: token }
	})
	const cells = [
		{ column: of['Twin'], value: { id: gannet } },
		{ column: of['Worth'], value: 987.65 }
	]
	await post(`/rows/${table}`, { kind: 'change', row: heron, cells })
	const app = await makeWreckApp(builder, table, of)
	return { table, of, heron, petrel, gannet, app }
}

const TALLY = { kind: 'tally', by: '', less: null, of: null, key: null, is: '', label: '', who: [] }

/** Lists that mark, group, order and are narrowed down by what divers do not see. */
async function makeWreckApp(builder: APIRequestContext, table: number, of: Wrecks['of']): Promise<number> {
	const name = `Wrecks ${Date.now()}`
	const form = { name, about: '', colour: 'sea', table: String(table) }
	const made = await builder.post('/bench/new', { form, maxRedirects: 0 })
	const app = Number(/\/bench\/(\d+)\//.exec((await made.text()) + (made.headers()['location'] ?? ''))?.[1])
	const { body, version } = stored((db) =>
		db.prepare(`SELECT body, version FROM document WHERE kind = ? ORDER BY version DESC LIMIT 1`).get(`app ${app}`)
	) as { body: string; version: number }
	const worth = of['Worth'] ?? 0
	const list = (id: string, more: object) => ({
		...{ id, kind: 'list', table, where: '', sort: [], columns: [of['Name']], opens: null, who: [], lines: [] },
		...{ of: null, as: null, group: null, finds: [], filters: [], limit: null, empty: '', ...more }
	})
	const lines = [
		{ id: 'twinned', kind: 'filter', table, column: of['Twin'], holds: 'twin', label: '', who: [] },
		{ id: 'least-worth', kind: 'hold', what: 'a number', rows: null, holds: 'least', starts: '', who: [] },
		list('dearer', { where: 'Worth > here.least' }),
		list('given', {
			lines: [
				{
					...{ id: 'gives', kind: 'button', label: 'Give', does: { kind: 'set' }, icon: null, who: [] },
					lines: [
						{ id: 'gives-1', kind: 'with', value: 'Twin.Name', as: 'name', who: [] },
						{ id: 'gives-2', kind: 'with', value: 'Worth', as: 'least', who: [] }
					]
				}
			]
		}),
		{ id: 'words', kind: 'search', holds: 'name', label: '', sample: '', who: [] },
		list('marked', { lines: [{ id: 'm', kind: 'mark', word: 'dear', tone: 'past', where: 'Worth > 900', who: [] }] }),
		list('grouped', { group: worth }),
		list('found', { finds: [worth, of['Twin name']], filters: [worth] }),
		list('summed', { totals: [worth] }),
		{ id: 'pick', kind: 'choose', table, where: '', holds: 'wreck', label: '', who: [] },
		list('least', { sort: [{ column: worth, descending: true }], limit: 1 }),
		list('twins', { of: of['Twin'] }),
		{
			...{ id: 'ask', kind: 'form', table, columns: [of['Name']], thanks: '' },
			lines: [
				{ id: 'twin', kind: 'entry', column: of['Twin'], from: 'Worth > 1000' },
				{ id: 'photo', kind: 'entry', column: of['Photo'], when: 'Twin.Worth > 900' },
				{ id: 'name', kind: 'shown', value: 'Twin.Name', label: 'Twin' },
				{ id: 'worth', kind: 'shown', value: 'Twin.Worth', label: 'Worth' }
			]
		}
	]
	const one = [
		{ id: 'sheet', kind: 'record', table, columns: [of['Name']], held: '', across: null, who: [] },
		{ ...TALLY, id: 'own', table, column: worth },
		{ ...TALLY, id: 'of-twin', table, column: worth, of: of['Twin'] }
	]
	const was = (JSON.parse(body) as { screens: (Nested & { title: string })[] }).screens
	const edits = [
		{ kind: 'put', home: 'screens', id: 'w', own: { id: 'w', title: 'Wrecks' }, after: null },
		...putsOf('w', lines, null),
		// One that is not opened from a row, in which words are looked for.
		{ kind: 'put', home: 'screens', id: 'v', own: { id: 'v', title: 'Found' }, after: 'w' },
		...putsOf('v', [list('sought', { finds: [worth, of['Twin name']], opens: 'w' })], null),
		// Of one row: a number of its own, and one of a row that belongs to it.
		{ kind: 'put', home: 'screens', id: 'r', own: { id: 'r', title: 'One' }, after: 'v' },
		...putsOf('r', one, null),
		...was.map(({ lines = [], ...own }) => ({
			...{ kind: 'remove', home: 'screens', id: own.id, was: own },
			holds: idsOf(lines)
		}))
	]
	expect((await builder.patch(`/bench/${app}/draft`, { data: { version, edits } })).status()).toBe(200)
	await builder.post(`/bench/${app}/release?/release`, { form: { note: '' } })
	return app
}

interface Nested {
	readonly id: string
	readonly lines?: readonly Nested[]
}

const idsOf = (lines: readonly Nested[]): string[] => lines.flatMap(({ id, lines = [] }) => [id, ...idsOf(lines)])
/** Lines put into a screen, each before those that it holds. */
const putsOf = (screen: string, all: readonly Nested[], within: string | null): object[] =>
	all.flatMap(({ lines = [], ...own }, at) => [
		{ kind: 'put', home: { screen, within }, id: own.id, own, after: all[at - 1]?.id ?? null },
		...putsOf(screen, lines, own.id)
	])

const NARROWED = { find: '', filters: [] as object[] }
const screenOf: (line: string) => Ask = (line) => async (api, wrecks) => {
	const lists = await listsOf(await (await api.get(`/app/${wrecks.app}/w/__data.json`)).text())
	return JSON.stringify(lists[line] ?? 'absent')
}
const listOf =
	(line: string, more: (wrecks: Wrecks) => object): Ask =>
	async (api, wrecks) => {
		const data = { line, narrowing: NARROWED, ...more(wrecks) }
		return (await api.post(`/app/${wrecks.app}/w/list`, { data })).text()
	}

/** What a form makes of a twin that is chosen. */
const judged =
	(twin: 'heron' | 'petrel' | 'gannet'): Ask =>
	async (api, wrecks) => {
		const cells = [{ column: wrecks.of['Twin'], value: { id: wrecks[twin] } }]
		return (await api.post(`/app/${wrecks.app}/w/form`, { data: { kind: 'judge', line: 'ask', cells } })).text()
	}

/** A screen of one row, its lines as they are read again. */
const ofRow: Ask = async (api, { app, heron }) => {
	const data = { kind: 'again', tables: null, release: null, known: {}, lists: {}, row: heron }
	return (await api.post(`/app/${app}/r/lines`, { data })).text()
}

const gives: Ask = async (api, { app, heron }) =>
	(await api.post(`/app/${app}/w/lines`, { data: { kind: 'give', line: 'gives', row: heron } })).text()
const again: Ask = async (api, { app }) => {
	const data = { kind: 'again', tables: null, release: null, known: {}, lists: {} }
	return (await api.post(`/app/${app}/w/lines`, { data })).text()
}

const offered: Ask = async (api, { app }) => {
	const asked = { kind: 'choices', line: 'ask', cells: [], entry: 'twin', starts: '', own: [] }
	return (await api.post(`/app/${app}/w/form`, { data: asked })).text()
}

/** The lists of a page as its script would read them, by line: what the numbers in such an answer stand for is put in. */
function listsOf(answer: string): Record<string, unknown> {
	const found: Record<string, unknown> = {}
	const { nodes } = JSON.parse(answer) as { nodes: ({ data?: unknown[] } | null)[] }
	for (const { data } of nodes.filter((node) => node?.data).map((node) => ({ data: node?.data ?? [] }))) {
		const unfold = (at: number): unknown => {
			const value = data[at]
			if (Array.isArray(value)) return value.map((each) => unfold(each as number))
			if (typeof value !== 'object' || value === null) return value
			return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, unfold(inner as number)]))
		}
		const page = unfold(0) as { main?: { screen?: { lines: { id: string }[] } } }
		for (const line of page.main?.screen?.lines ?? []) found[line.id] = line
	}
	return found
}

function stored<T>(ask: (db: Database.Database) => T): T {
	const db = new Database('test-results/workspace/workspace.db', { readonly: true })
	try {
		return ask(db)
	} finally {
		db.close()
	}
}

const DOCUMENT = `SELECT version, body FROM document WHERE kind = 'workspace' ORDER BY version DESC LIMIT 1`
type Named = { id: number; name: string }
const documentNow = () => stored((db) => db.prepare(DOCUMENT).get() as { version: number; body: string })
const versionNow = () => documentNow().version
const parsed = () => JSON.parse(documentNow().body) as { roles: Named[]; tables: (Named & { columns: Named[] })[] }
const roleNumber = (name: string) => parsed().roles.find((role) => role.name === name)?.id ?? 0
const columnsOf = (table: number) =>
	Object.fromEntries(
		parsed()
			.tables.find((each) => each.id === table)
			?.columns.map((column) => [column.name, column.id]) ?? []
	)

type Ask = (api: APIRequestContext, wrecks: Wrecks) => Promise<string>

const text: (path: (wrecks: Wrecks) => string) => Ask = (path) => async (api, wrecks) =>
	(await api.get(path(wrecks))).text()

const cellOf =
	(row: 'heron' | 'petrel', column: string): Ask =>
	async (api, wrecks) => {
		const answer = await api.get(`/rows/${wrecks.table}?row=${wrecks[row]}`)
		const page = (await answer.json()) as { rows: { cells: Record<string, unknown> }[] }
		return JSON.stringify(page.rows[0]?.cells[`c${wrecks.of[column]}`] ?? 'absent')
	}

const filtered = (filter: (of: Wrecks['of']) => object): Ask =>
	text(({ table, of }) => `/rows/${table}/anchors?filters=${encodeURIComponent(JSON.stringify([filter(of)]))}`)

/** The names of rows in the order in which they come. */
const order =
	(sort: (of: Wrecks['of']) => string): Ask =>
	async (api, { table, of }) => {
		const page = (await (await api.get(`/rows/${table}?sort=${sort(of)}`)).json()) as {
			rows: { cells: Record<string, string> }[]
		}
		return page.rows.map((row) => row.cells[`c${of['Name']}`]).join(' ')
	}

const workbook =
	(format: string): Ask =>
	async (api, { table }) => {
		const book = XLSX.read(await (await api.get(`/export/${table}?format=${format}`)).body(), { type: 'buffer' })
		return JSON.stringify(Object.values(book.Sheets).map((sheet) => XLSX.utils.sheet_to_json(sheet)))
	}

const database: Ask = async (api, { table }) => {
	const file = join(mkdtempSync(join(tmpdir(), 'tin-shed-leak-')), 'out.db')
	writeFileSync(file, await (await api.get(`/export/${table}?format=sqlite`)).body())
	const db = new Database(file, { readonly: true })
	const names = db.prepare(`SELECT name FROM sqlite_schema WHERE type = 'table'`).pluck().all() as string[]
	const rows = names.flatMap((name) => db.prepare(`SELECT * FROM "${name}"`).all())
	db.close()
	return JSON.stringify(rows)
}

/** Asked alike by both; `tells` is in the answer of who may, and in no answer of who may not. */
const CHANNELS: readonly [channel: string, ask: Ask, tells: string][] = [
	['list, a row', text(({ table }) => `/rows/${table}`), ROW_SECRET],
	['list, a cell', text(({ table }) => `/rows/${table}`), CELL_SECRET],
	['one row by its id', text(({ table, gannet }) => `/rows/${table}?row=${gannet}`), ROW_SECRET],
	['count', text(({ table }) => `/rows/${table}/anchors`), '"count":3'],
	['search in rows', filtered((of) => ({ column: of['Name'], is: 'contains', text: 'anne' })), '"count":1'],
	['search in any column', filtered(() => ({ column: 0, is: 'contains', text: '987' })), '"count":2'],
	['filter by an unseen column', filtered((of) => ({ column: of['Worth'], is: 'at least', text: '900' })), '"count":2'],
	[
		'filter: an unseen column is filled',
		filtered((of) => ({ column: of['Worth'], is: 'filled', text: '' })),
		'"count":3'
	],
	[
		'filter by what is computed from it',
		filtered((of) => ({ column: of['Dear'], is: 'equal', text: 'yes' })),
		'"count":2'
	],
	['sort order', order((of) => `-${of['Worth']}`), 'Petrel Heron'],
	['sort order by what is computed', order((of) => `-${of['All worth']},${of['Name']}`), 'Gannet Heron'],
	['the label of a reference', cellOf('heron', 'Twin'), ROW_SECRET],
	['a computed column through a reference, a row', cellOf('heron', 'Twin name'), ROW_SECRET],
	['a computed column through a reference, a cell', cellOf('heron', 'Twin worth'), '44'],
	['a count over a backReference reference', cellOf('heron', 'Twin count'), '1'],
	['a sum over a backReference reference', cellOf('heron', 'All worth'), '44'],
	['a computed column of a cell', cellOf('heron', 'Dear'), 'true'],
	['choices to refer to', text(({ table }) => `/options/${table}?starts=Ga`), ROW_SECRET],
	['export: CSV, a row', text(({ table }) => `/export/${table}`), ROW_SECRET],
	['export: CSV, a cell', text(({ table }) => `/export/${table}`), CELL_SECRET],
	['export: CSV, defused', text(({ table }) => `/export/${table}?format=csv+defused`), ROW_SECRET],
	['export: JSON, a row', text(({ table }) => `/export/${table}?format=json`), ROW_SECRET],
	['export: JSON, a cell', text(({ table }) => `/export/${table}?format=json`), CELL_SECRET],
	['export: XLSX, a row', workbook('xlsx'), ROW_SECRET],
	['export: XLSX, a cell', workbook('xlsx'), CELL_SECRET],
	['export: ODS, a row', workbook('ods'), ROW_SECRET],
	['export: ODS, a cell', workbook('ods'), CELL_SECRET],
	['export: SQLite, a row', database, ROW_SECRET],
	['export: SQLite, a cell', database, CELL_SECRET],
	[
		'export as filtered by an unseen column',
		text(({ table, of }) => {
			const filters = JSON.stringify([{ column: of['Worth'], is: 'at least', text: '900' }])
			return `/export/${table}?filters=${encodeURIComponent(filters)}`
		}),
		'Petrel'
	],
	['groups: the values of a column', text(({ table, of }) => `/rows/${table}/groups?column=${of['Name']}`), ROW_SECRET],
	[
		'groups: the label of a reference',
		text(({ table, of }) => `/rows/${table}/groups?column=${of['Twin']}`),
		ROW_SECRET
	],
	[
		'chart: the values of an unseen column',
		text(({ table, of }) => `/rows/${table}/groups?column=${of['Worth']}`),
		CELL_SECRET
	],
	[
		'chart: what is computed from it',
		text(({ table, of }) => `/rows/${table}/groups?column=${of['Dear']}`),
		'"value":true'
	],
	[
		'chart: how many rows there are',
		text(({ table, of }) => `/rows/${table}/groups?column=${of['Harbour']}`),
		'"rows":3'
	],
	[
		'groups as filtered by an unseen column',
		text(({ table, of }) => {
			const filters = JSON.stringify([{ column: of['Worth'], is: 'at least', text: '900' }])
			return `/rows/${table}/groups?column=${of['Name']}&filters=${encodeURIComponent(filters)}`
		}),
		'Petrel'
	],
	// Lines of a screen over what divers do not see.
	['a mark over an unseen cell', screenOf('marked'), '"flags":[0]'],
	['the groups of a list by an unseen cell', screenOf('grouped'), CELL_SECRET],
	[
		'words looked for in an unseen cell',
		listOf('found', () => ({ narrowing: { ...NARROWED, find: '1234' } })),
		'Petrel'
	],
	[
		'words looked for in what is computed of it',
		listOf('found', () => ({ narrowing: { ...NARROWED, find: ROW_SECRET } })),
		'Heron'
	],
	[
		'a list narrowed down by an unseen cell',
		listOf('found', ({ of }) => ({
			narrowing: { find: '', filters: [{ column: of['Worth'], is: 'at least', text: '1000' }] }
		})),
		'Petrel'
	],
	[
		'the values that a list can be narrowed down to',
		async (api, { app, of }) => {
			const data = { line: 'found', column: of['Worth'], narrowing: NARROWED }
			return (await api.post(`/app/${app}/w/values`, { data })).text()
		},
		CELL_SECRET
	],
	['a sum at the foot of a list', screenOf('summed'), '"sum":2266.15'],
	['the rows that one is chosen among', screenOf('pick'), ROW_SECRET],
	['the values of a column that one is chosen among', screenOf('twinned'), ROW_SECRET],
	[
		'a condition on an unseen cell, with a number from the address',
		listOf('dearer', () => ({ held: { least: '1000' } })),
		'Petrel'
	],
	['what a button gives: a row it points to', gives, ROW_SECRET],
	['what a button gives: an unseen cell', gives, CELL_SECRET],
	['a number that a press adds to', ofRow, CELL_SECRET],
	['a number on a row that belongs to the one shown', ofRow, '"value":44'],
	['a screen that is read again, a row', again, ROW_SECRET],
	['a screen that is read again, a cell', again, CELL_SECRET],
	['rows found by a few letters of an unseen cell', text(() => '/find?q=1234'), 'Petrel'],
	['rows found by what is computed of an unseen row', text(() => `/find?q=${ROW_SECRET}`), 'Heron'],
	['what belongs to an unseen row', listOf('twins', ({ gannet }) => ({ row: gannet })), 'Heron'],
	['a form: a value of the row that it points to', judged('petrel'), '£1,234.50'],
	['a form: what its condition reads there', judged('petrel'), '"unasked":[]'],
	['a form: a row that is not theirs to point to', judged('gannet'), ROW_SECRET],
	['a form: what it offers by an unseen column', offered, 'Petrel'],
	['history of a row', text(({ table, gannet }) => `/history/${table}?row=${gannet}`), ROW_SECRET],
	['history of a cell', text(({ table, heron }) => `/history/${table}?row=${heron}`), CELL_SECRET],
	['a photo by its address', text(({ of, gannet }) => `/files/${of['Photo']}?row=${gannet}`), 'PNG']
]

let wrecks: Wrecks
let may: APIRequestContext
let mayNot: APIRequestContext

test.beforeAll(async () => {
	const numbers = numbersOfPeople()
	const as = (name: string) => signInAs({ name }, numbers.get(name) ?? 0)
	const builder = await as('Saskia Holm')
	wrecks = await makeWrecks(builder)
	await builder.dispose()
	;[may, mayNot] = await Promise.all([as('Jutta Carrow'), as('Imke Dahl')])
})
test.afterAll(() => Promise.all([may.dispose(), mayNot.dispose()]))

for (const [channel, ask, tells] of CHANNELS) {
	test(`${channel}: tells who may, and not who may not`, async () => {
		expect(await ask(may, wrecks)).toContain(tells)
		expect(await ask(mayNot, wrecks)).not.toContain(tells)
	})
}

test('an order by what is not seen is no order: rising and falling are the same', async () => {
	const rising = await order((of) => `${of['Worth']}`)(mayNot, wrecks)
	const falling = await order((of) => `-${of['Worth']}`)(mayNot, wrecks)
	expect(rising).toBe(falling)
	expect(await order((of) => `${of['Worth']}`)(may, wrecks)).not.toBe(
		await order((of) => `-${of['Worth']}`)(may, wrecks)
	)
})

/** A row that is not seen, and one that there never was: the same status and the same words. */
const SAME_AS_NONE: readonly [what: string, ask: (api: APIRequestContext, row: string) => Promise<unknown>][] = [
	['read', (api, row) => api.get(`/rows/${wrecks.table}?row=${row}`)],
	[
		'change',
		(api, row) =>
			api.post(`/rows/${wrecks.table}`, {
				data: { kind: 'change', row, cells: [{ column: wrecks.of['Name'], value: 'Mine' }] }
			})
	],
	['remove', (api, row) => api.post(`/rows/${wrecks.table}`, { data: { kind: 'remove', row } })],
	['history', (api, row) => api.get(`/history/${wrecks.table}?row=${row}`)],
	['photo', (api, row) => api.get(`/files/${wrecks.of['Photo']}?row=${row}`)],
	[
		'refer to it by id',
		(api, row) =>
			api.post(`/rows/${wrecks.table}`, {
				data: { kind: 'change', row: wrecks.petrel, cells: [{ column: wrecks.of['Twin'], value: { id: row } }] }
			})
	]
]

for (const [what, ask] of SAME_AS_NONE) {
	test(`error texts, guessed ids: to ${what} a row that is not seen is answered like one that there never was`, async () => {
		const said = async (row: string) => {
			const answer = (await ask(mayNot, row)) as Awaited<ReturnType<APIRequestContext['get']>>
			return [answer.status(), await answer.text()]
		}
		const [unseen, none] = [await said(wrecks.gannet), await said('AAAAAAAAAAAAAAAAAAAAAA')]
		expect(unseen).toEqual(none)
		expect(JSON.stringify(unseen)).not.toContain(ROW_SECRET)
	})
}

test('a reference by name finds an unseen row no more than one that is not there', async () => {
	const set = async (match: string) => {
		const cells = [{ column: wrecks.of['Twin'], value: { match } }]
		const answer = await mayNot.post(`/rows/${wrecks.table}`, { data: { kind: 'change', row: wrecks.petrel, cells } })
		return [answer.status(), (await answer.text()).replaceAll(match, 'it')]
	}
	expect(await set(ROW_SECRET)).toEqual(await set('Nobody'))
})

test('a value that an unseen row has cannot be used, without a word of that row; of a seen one it is said', async () => {
	const add = async (api: APIRequestContext, name: string) => {
		const cells = [
			{ column: wrecks.of['Name'], value: name },
			{ column: wrecks.of['Harbour'], value: 'Ness' }
		]
		return (await api.post(`/rows/${wrecks.table}`, { data: { kind: 'add', cells } })).text()
	}
	expect(await add(mayNot, ROW_SECRET)).toContain('This value cannot be used.')
	expect(await add(mayNot, 'Heron')).toContain('another row has this value already')
	expect(await add(may, ROW_SECRET)).toContain('another row has this value already')
})

test('ids are not guessable: neighbours share nothing, and one of another table is none here', async () => {
	const ids = [wrecks.heron, wrecks.petrel, wrecks.gannet]
	for (const id of ids) expect(id).toMatch(/^[\w-]{22}$/)
	for (const [one, other] of [ids.slice(0, 2), ids.slice(1)] as [string, string][]) {
		const same = [...one].filter((character, i) => character === other[i]).length
		expect(same).toBeLessThan(8)
	}
	const answer = await may.get(`/rows/101?row=${wrecks.heron}`)
	expect(((await answer.json()) as { rows: unknown[] }).rows).toEqual([])
})

test('cached pages: nothing that was asked for somebody may be kept by a cache', async () => {
	const { table, heron, gannet, of } = wrecks
	for (const path of [
		`/rows/${table}`,
		`/rows/${table}/anchors`,
		`/rows/${table}/groups?column=${of['Name']}`,
		`/options/${table}`,
		`/export/${table}`,
		`/history/${table}?row=${heron}`,
		`/files/${of['Photo']}?row=${gannet}`,
		'/app/1/all/__data.json',
		'/app/1/all'
	])
		expect((await may.get(path)).headers()['cache-control'], path).toContain('no-store')
})
