/** A table with a row and a cell that divers must not see, an app over it, and the ways in which it can be asked. */
import * as XLSX from '@e965/xlsx'
import Database from 'better-sqlite3'
import { expect, type APIRequestContext } from '@playwright/test'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

export const ROW_SECRET = 'Gannet'
export const CELL_SECRET = '987.65'
const ONE_DOT = Buffer.from(
	'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==',
	'base64'
)

export interface Wrecks {
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
export async function makeWrecks(builder: APIRequestContext): Promise<Wrecks> {
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
		{ name: 'Photo', type: 'photo' },
		{ name: 'Grade', type: 'whole number' },
		{ name: 'Note', type: 'text' },
		{ name: 'Raised', type: 'date' },
		{ name: 'Gone', type: 'date' },
		{ name: 'Lies', type: 'place' },
		{ name: 'Sank', type: 'place' }
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
	const kept = { kind: 'except', columns: [of['Worth'], of['Grade'], of['Gone'], of['Sank']] }
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
	const heron = await add({
		Name: 'Heron',
		Harbour: 'Ness',
		Worth: 987.65,
		Grade: 7,
		Raised: '1990-01-02',
		Sank: '50.7, -4.7',
		Gone: '1990-01-05'
	})
	const petrel = await add({ Name: 'Petrel', Harbour: 'Ness', Worth: 1234.5 })
	const given = await builder.put(`/files/${of['Photo']}?name=gannet.png`, { data: ONE_DOT })
	const { token } = (await given.json()) as { token: string }
	const gannet = await add({
		Name: 'Gannet',
		Harbour: 'Varrow',
		Worth: 44,
		Raised: '1990-01-03',
		Lies: '50.9, -4.9',
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

const MEASURED = { measure: { of: 'count', column: null }, where: '', once: '', opens: null, who: [] }
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
		{ id: 'named', kind: 'filter', table, column: of['Name'], holds: 'called', label: '', who: [] },
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
		list('was', { asOf: 'TODAY()', columns: [of['Name'], worth] }),
		list('grouped', { group: worth }),
		list('found', { finds: [worth, of['Twin name']], filters: [worth] }),
		list('summed', { totals: [worth] }),
		list('noted', {
			lines: [{ id: 'notes', kind: 'put', table, column: of['Note'], to: 'Name & " " & Worth', label: 'Note', who: [] }]
		}),
		{ ...MEASURED, id: 'worth-figure', kind: 'figure', label: 'worth', measure: { of: 'sum', column: worth }, table },
		{ ...MEASURED, id: 'names-chart', kind: 'chart', table, by: { column: of['Name'], step: null } },
		{ ...MEASURED, id: 'worth-bands', kind: 'chart', table, by: { column: worth, step: 'bands' } },
		{
			...{ ...MEASURED, id: 'raised-days', kind: 'chart', table },
			...{ by: { column: of['Raised'], step: 'days' }, as: 'as a calendar' }
		},
		{ id: 'worth-dots', kind: 'scatter', table, where: '', up: worth, across: of['Grade'], who: [] },
		{ ...MEASURED, id: 'dear-chart', kind: 'chart', table, by: { column: of['Dear'], step: null } },
		{
			...{ id: 'lanes', kind: 'board', table, where: '', by: of['Harbour'], columns: [of['Name'], worth] },
			...{ sums: worth, who: [], lines: [] }
		},
		{
			...{ id: 'diary', kind: 'calendar', table, where: '', by: of['Raised'], until: of['Gone'] },
			...{ columns: [of['Name']], who: [], lines: [] }
		},
		{ id: 'lie', kind: 'map', table, where: '', at: of['Lies'], columns: [of['Name']], who: [], lines: [] },
		{ id: 'sank', kind: 'map', table, where: '', at: of['Sank'], columns: [of['Name']], who: [], lines: [] },
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
		{ ...TALLY, id: 'of-twin', table, column: worth, of: of['Twin'] },
		{ id: 'graded', kind: 'rating', table, column: of['Grade'], most: 9, label: '', who: [] }
	]
	const stands = [{ id: 'stands', kind: 'shared', screen: 'g', who: [], lines: [] }]
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
		// Lines that are written once, and stand on a screen of their own by one line.
		{
			...{ kind: 'put', home: 'screens', id: 'g', after: 'r' },
			own: { id: 'g', title: 'Group', stands: 'only as lines of other screens' }
		},
		...putsOf('g', [list('shared', { columns: [of['Name'], worth] })], null),
		{ kind: 'put', home: 'screens', id: 's', own: { id: 's', title: 'Sharing' }, after: 'g' },
		...putsOf('s', stands, null),
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

export const NARROWED = { find: '', filters: [] as object[] }
export const screenOf: (line: string) => Ask = (line) => async (api, wrecks) => {
	const lists = await listsOf(await (await api.get(`/app/${wrecks.app}/w/__data.json`)).text())
	return JSON.stringify(lists[line] ?? 'absent')
}
/** A calendar in the month in which wrecks were raised. */
export const inDiary: Ask = async (api, { app }) =>
	(await api.get(`/app/${app}/w/__data.json?h.when-diary=1990-01`)).text()
export const listOf =
	(line: string, more: (wrecks: Wrecks) => object): Ask =>
	async (api, wrecks) => {
		const data = { line, narrowing: NARROWED, ...more(wrecks) }
		return (await api.post(`/app/${wrecks.app}/w/list`, { data })).text()
	}

/** What a form makes of a twin that is chosen. */
export const judged =
	(twin: 'heron' | 'petrel' | 'gannet'): Ask =>
	async (api, wrecks) => {
		const cells = [{ column: wrecks.of['Twin'], value: { id: wrecks[twin] } }]
		return (await api.post(`/app/${wrecks.app}/w/form`, { data: { kind: 'judge', line: 'ask', cells } })).text()
	}

/** A screen of one row, its lines as they are read again. */
export const ofRow: Ask = async (api, { app, heron }) => {
	const data = { kind: 'again', tables: null, release: null, known: {}, lists: {}, row: heron }
	return (await api.post(`/app/${app}/r/lines`, { data })).text()
}

/** A value put into a row, as it stands there then; it is taken back. */
export const putIn: Ask = async (api, { app, table, of, petrel }) => {
	const act = (data: object) => api.post(`/app/${app}/w/do`, { data })
	const pressed = await act({ kind: 'press all', presses: [{ kind: 'put', line: 'notes', row: petrel }] })
	const [done] = (await pressed.json()) as { entry?: number }[]
	const page = (await (await api.get(`/rows/${table}?row=${petrel}`)).json()) as {
		rows: { cells: Record<string, unknown> }[]
	}
	await act({ kind: 'take back', entry: done?.entry })
	return JSON.stringify(page.rows[0]?.cells[`c${of['Note']}`] ?? null)
}

export const gives: Ask = async (api, { app, heron }) =>
	(await api.post(`/app/${app}/w/lines`, { data: { kind: 'give', line: 'gives', row: heron } })).text()
export const again: Ask = async (api, { app }) => {
	const data = { kind: 'again', tables: null, release: null, known: {}, lists: {} }
	return (await api.post(`/app/${app}/w/lines`, { data })).text()
}

export const offered: Ask = async (api, { app }) => {
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

export type Ask = (api: APIRequestContext, wrecks: Wrecks) => Promise<string>

export const text: (path: (wrecks: Wrecks) => string) => Ask = (path) => async (api, wrecks) =>
	(await api.get(path(wrecks))).text()

export const cellOf =
	(row: 'heron' | 'petrel', column: string): Ask =>
	async (api, wrecks) => {
		const answer = await api.get(`/rows/${wrecks.table}?row=${wrecks[row]}`)
		const page = (await answer.json()) as { rows: { cells: Record<string, unknown> }[] }
		return JSON.stringify(page.rows[0]?.cells[`c${wrecks.of[column]}`] ?? 'absent')
	}

export const filtered = (filter: (of: Wrecks['of']) => object): Ask =>
	text(({ table, of }) => `/rows/${table}/anchors?filters=${encodeURIComponent(JSON.stringify([filter(of)]))}`)

/** The names of rows in the order in which they come. */
export const order =
	(sort: (of: Wrecks['of']) => string): Ask =>
	async (api, { table, of }) => {
		const page = (await (await api.get(`/rows/${table}?sort=${sort(of)}`)).json()) as {
			rows: { cells: Record<string, string> }[]
		}
		return page.rows.map((row) => row.cells[`c${of['Name']}`]).join(' ')
	}

export const workbook =
	(format: string): Ask =>
	async (api, { table }) => {
		const book = XLSX.read(await (await api.get(`/export/${table}?format=${format}`)).body(), { type: 'buffer' })
		return JSON.stringify(Object.values(book.Sheets).map((sheet) => XLSX.utils.sheet_to_json(sheet)))
	}

export const database: Ask = async (api, { table }) => {
	const file = join(mkdtempSync(join(tmpdir(), 'tin-shed-leak-')), 'out.db')
	writeFileSync(file, await (await api.get(`/export/${table}?format=sqlite`)).body())
	const db = new Database(file, { readonly: true })
	const names = db.prepare(`SELECT name FROM sqlite_schema WHERE type = 'table'`).pluck().all() as string[]
	const rows = names.flatMap((name) => db.prepare(`SELECT * FROM "${name}"`).all())
	db.close()
	return JSON.stringify(rows)
}
