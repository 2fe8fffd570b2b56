/**
 * Who gets what, through every route that exists: each of the demo's people asks for every table, and what comes back is
 * compared with a calculation of its own, written by hand over the raw database.
 */
import Database from 'better-sqlite3'
import { expect, request, test, type APIRequestContext, type APIResponse } from '@playwright/test'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { PEOPLE, type DemoPerson } from '../../demo/people.ts'
import type { SavedBundle } from '../../src/lib/core/app/bundle.ts'
import { BASE, FILE, numbersOfPeople, signInAs } from './asking.ts'
import { has, keeps, MAY_SEE, readFacts, type Facts } from './matrix-oracle.ts'
import { ROUTES } from './matrix-routes.ts'

/** A list of a screen, asked as its page asks. */
const askList = (api: APIRequestContext, screen: string, line: string, more: object = {}) =>
	api.post(`${screen}/list`, { data: { line, narrowing: { find: '', filters: [] }, ...more } })
const askValues = (api: APIRequestContext, screen: string, line: string, column: number) =>
	api.post(`${screen}/values`, { data: { line, column, narrowing: { find: '', filters: [] } } })
const askAgain = (api: APIRequestContext, screen: string) =>
	api.post(`${screen}/lines`, { data: { kind: 'again', tables: null, release: null, known: {}, lists: {} } })
const askForm = (api: APIRequestContext, screen: string) =>
	api.post(`${screen}/form`, { data: { kind: 'judge', line: 'inspect-2', cells: [] } })

test('every route has its row in the matrix', () => {
	const found = readdirSync('src/routes', { recursive: true, withFileTypes: true })
		.filter((entry) => entry.isFile() && /^\+(server|page\.server|layout\.server)\.ts$/.test(entry.name))
		.map((entry) => entry.parentPath.replace(/^src\/routes\/?/, ''))
	expect([...new Set(found)].sort()).toEqual(Object.keys(ROUTES).sort())
})

/** How often what was changed in the workspace, and what of it waits to leave. */
function dump(): unknown[] {
	const db = new Database(FILE, { readonly: true })
	const counts = ['history', 'job', 'message', 'signoff_case'].map((name) =>
		db.prepare(`SELECT count(*), max(rowid) FROM ${name}`).raw().get()
	)
	db.close()
	return counts
}

interface Page {
	readonly rows: readonly { cells: Record<string, unknown> }[]
	readonly next: string | null
}

async function readAll(api: APIRequestContext, table: number): Promise<string[]> {
	const found: string[] = []
	let after = ''
	do {
		const page = (await (await api.get(`/rows/${table}?limit=1000${after}`)).json()) as Page
		for (const row of page.rows) found.push(JSON.stringify(row.cells))
		after = page.next === null ? '' : `&after=${page.next}`
	} while (after !== '')
	const anchors = (await (await api.get(`/rows/${table}/anchors`)).json()) as { count: number; anchors: string[] }
	expect(anchors.count, `rows that table ${table} is said to have`).toBe(found.length)
	expect(anchors.anchors.length).toBe(Math.floor(found.length / 1000))
	await checkGroups(api, table, found)
	return found
}

/** What is counted of each column is what its cells show. */
async function checkGroups(api: APIRequestContext, table: number, found: readonly string[]): Promise<void> {
	const rows = found.map((row) => JSON.parse(row) as Record<string, unknown>)
	for (const key of new Set(rows.flatMap((row) => Object.keys(row)))) {
		const answer = await api.get(`/rows/${table}/groups?column=${key.slice(1)}`)
		const groups = (await answer.json()) as {
			rows: number
			blank: number
			unseen: number
			by: string
			groups: { rows: number }[]
			values: number
		} | null
		if (groups === null) continue
		const shown = rows.filter((row) => key in row)
		// A cell in error counts as blank, as it does everywhere else.
		const isBlank = (cell: unknown) => cell === null || (typeof cell === 'object' && 'error' in cell)
		const blank = shown.filter((row) => isBlank(row[key])).length
		const said = [groups.rows, groups.unseen, groups.blank]
		expect(said, `column ${key} of table ${table}`).toEqual([rows.length, rows.length - shown.length, blank])
		const inGroups = groups.groups.reduce((sum, group) => sum + group.rows, 0)
		if (groups.by !== 'value' || groups.values <= groups.groups.length) expect(inGroups).toBe(shown.length - blank)
	}
}

/** Labels of the table that stand somewhere in a text. */
function labelsIn(text: string, labels: readonly string[]): string[] {
	// Cut at every quote and at the first comma of a line once, not searched through for each of two thousand labels.
	const quoted = new Set(text.split('"'))
	const leading = new Set(text.split('\n').map(firstCell))
	const isThere = (label: string) =>
		/["\\,\n]/.test(label)
			? text.includes(JSON.stringify(label)) || text.includes(`\n${label},`)
			: quoted.has(label) || leading.has(label)
	return labels.filter(isThere)
}

/** Those that are not among what may be. */
function unseen(labels: readonly string[], may: ReadonlySet<string>): string[] {
	return labels.filter((label) => !may.has(label))
}

/** What a line of CSV begins with. */
function firstCell(line: string): string {
	return line.startsWith('"') ? line.slice(1, line.indexOf('"', 1)) : line.slice(0, Math.max(0, line.indexOf(',')))
}

test('each person gets of each table what they may see, by every way there is', async () => {
	test.setTimeout(300_000)
	const facts = readFacts()
	const numbers = numbersOfPeople()
	const all: Readonly<Record<string, string[]>> = {
		Moorings: facts.moorings.map((row) => row.code),
		Inspections: facts.inspections.map((row) => row.title),
		'Spend requests': facts.requests.map((row) => row.title)
	}
	for (const person of PEOPLE) {
		const api = await signInAs(person, numbers.get(person.name) ?? 0)
		for (const [name, labels] of Object.entries(all)) {
			const table = facts.tables.get(name) ?? 0
			const may = new Set(MAY_SEE[name]?.(facts, person))
			const rows = (await readAll(api, table)).join('\n')
			const found = new Set(labelsIn(rows, labels))
			expect(unseen([...found], may), `${person.name} reads ${name}`).toEqual([])
			expect(unseen([...may], found), `${person.name} misses of ${name}`).toEqual([])
			const file = await api.get(`/export/${table}`)
			const csv = file.status() === 404 ? '' : (await file.text()).replaceAll('\r', '')
			const known = new Set(labels)
			const exported = csv.split('\n').filter((line) => known.has(firstCell(line)))
			expect(exported.length, `${person.name} exports ${name}`).toBe(may.size)
			const options = await (await api.get(`/options/${table}`)).text()
			expect(unseen(labelsIn(options, labels), may), `${person.name} is offered`).toEqual([])
		}
		await checkFinding(api, person, facts)
		await checkHistory(api, person, facts)
		await checkFiles(api, person)
		await checkScreens(api, person, facts)
		await checkColumns(api, person, facts)
		await checkBench(api, person)
		await checkPeople(api, person)
		await checkLogbook(api, person)
		await checkAsks(api, person)
		await api.dispose()
	}
})

let asked: string | undefined

/** What a diver is asked is nobody else's to read or to answer, not even its builder's. */
async function checkAsks(api: APIRequestContext, person: DemoPerson): Promise<void> {
	const [name, diver] = ['Imke Dahl', PEOPLE.find((each) => each.name === 'Imke Dahl') as DemoPerson]
	if (asked === undefined) {
		const own = await signInAs(diver, numbersOfPeople().get(name) ?? 0)
		asked = /\/waiting\/ask\/([\w-]+)/.exec(await (await own.get('/waiting', { headers: { accept: 'text/html' } })).text())?.[1] // prettier-ignore
		await own.dispose()
	}
	expect(asked, 'somebody is asked for something').toBeDefined()
	const isTheirs = person.name === name
	const page = await api.get(`/waiting/ask/${asked}`, { headers: { accept: 'text/html' } })
	expect(page.status(), `${person.name} opens it`).toBe(isTheirs ? 200 : 404)
	const list = await (await api.get('/waiting/__data.json')).text()
	expect(list.includes(String(asked)), `${person.name} is asked`).toBe(isTheirs)
	if (isTheirs) return
	const answer = await api.post('/waiting/answer', { data: { ask: asked, cells: [] } })
	expect(answer.status(), `${person.name} answers`).toBe(404)
}

/** Rows found by a few letters, through the lists of the apps: those that may be seen, and of those some. */
async function checkFinding(api: APIRequestContext, person: DemoPerson, facts: Facts): Promise<void> {
	const labels = facts.moorings.map((row) => row.code)
	const may = new Set(MAY_SEE['Moorings']?.(facts, person))
	for (const letters of new Set(labels.map((code) => code.slice(0, 2)))) {
		const found = labelsIn(await (await api.get(`/find?q=${letters}`)).text(), labels)
		expect(unseen(found, may), `${person.name} finds by ${letters}`).toEqual([])
		const isThere = [...may].some((code) => code.startsWith(letters))
		if (has(person, 'Divers') && isThere) expect(found.length, `${person.name} finds by ${letters}`).toBeGreaterThan(0)
	}
}

/** The history of a row of Varrow Quay: something for who sees the row, nothing for anybody else, by the same id. */
async function checkHistory(api: APIRequestContext, person: DemoPerson, facts: Facts): Promise<void> {
	const table = facts.tables.get('Inspections') ?? 0
	const known = await rowOfVarrowQuay(facts)
	const entries = (await (await api.get(`/history/${table}?row=${known.id}`)).json()) as unknown[]
	const may = MAY_SEE['Inspections']?.(facts, person).includes(known.title) ?? false
	expect(entries.length > 0, `${person.name} reads the history of ${known.title}`).toBe(may)
	// Of a past day nobody reads more than they may read today.
	const today = new Date().toISOString().slice(0, 10)
	const past = await (await api.get(`/rows/${table}/past?day=${today}`)).text()
	const all = facts.inspections.map(({ title }) => title)
	expect(unseen(labelsIn(past, all), new Set(MAY_SEE['Inspections']?.(facts, person))), `${person.name}: past`).toEqual(
		[]
	)
}

let varrow: { id: string; title: string } | undefined

/** An inspection of Varrow Quay, by the id that its keeper gets. */
async function rowOfVarrowQuay(facts: Facts): Promise<{ id: string; title: string }> {
	if (varrow) return varrow
	const keeper = await signInAs(PEOPLE.find(keeps) as DemoPerson, numbersOfPeople().get('Saskia Holm') ?? 0)
	const page = (await (await keeper.get(`/rows/${facts.tables.get('Inspections')}?limit=1000`)).json()) as {
		rows: { id: string; cells: Record<string, unknown> }[]
	}
	const wanted = facts.inspections.find((row) => row.harbour === 'Varrow Quay')?.title ?? ''
	const row = page.rows.find((each) => Object.values(each.cells).includes(wanted))
	await keeper.dispose()
	varrow = { id: row?.id ?? '', title: wanted }
	expect(varrow.id).not.toBe('')
	return varrow
}

/** The photo of an inspection of Varrow Quay, by its address: its bytes for who sees the row, nothing for anybody else. */
async function checkFiles(api: APIRequestContext, person: DemoPerson): Promise<void> {
	const { address, column } = await photoOfVarrowQuay()
	const answer = await api.get(address)
	const dives = has(person, 'Divers', 'Harbour masters') && person.harbour === 'Varrow Quay'
	const may = keeps(person) || has(person, 'Trust manager') || dives
	expect(answer.status(), `${person.name} asks for a photo of Varrow Quay`).toBe(may ? 200 : 404)
	const bytes = await answer.body()
	expect(bytes.subarray(1, 4).toString() === 'PNG', person.name).toBe(may)
	if (may) {
		expect(answer.headers()).toMatchObject({
			'content-type': 'image/png',
			'cache-control': 'no-store',
			'x-content-type-options': 'nosniff',
			'content-security-policy': "default-src 'none'; sandbox"
		})
	}
	const given = await api.put(`/files/${column}?name=photo.png`, { data: ONE_DOT })
	const mayGive = keeps(person) || has(person, 'Divers', 'Harbour masters')
	expect(given.status(), `${person.name} gives a photo in`).toBe(mayGive ? 200 : 403)
}

const ONE_DOT = Buffer.from(
	'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==',
	'base64'
)

let photo: { address: string; column: number } | undefined

/** Found by hand in the store; the id is asked of the keeper. */
async function photoOfVarrowQuay(): Promise<{ address: string; column: number }> {
	if (photo) return photo
	const keeper = await signInAs(PEOPLE.find(keeps) as DemoPerson, numbersOfPeople().get('Saskia Holm') ?? 0)
	const db = new Database(FILE, { readonly: true })
	const document = JSON.parse(
		String(db.prepare(`SELECT body FROM document WHERE kind = 'workspace' ORDER BY version DESC LIMIT 1`).pluck().get())
	) as { tables: { id: number; name: string; columns: { id: number; name: string }[] }[] }
	db.close()
	const table = document.tables.find((each) => each.name === 'Inspections')
	const column = table?.columns.find((each) => each.name === 'Photo')?.id ?? 0
	let after = ''
	let id: string | undefined
	while (id === undefined) {
		const page = (await (await keeper.get(`/rows/${table?.id}?limit=1000${after}`)).json()) as {
			rows: { id: string; cells: Record<string, unknown> }[]
			next: string | null
		}
		id = page.rows.find((row) => {
			const { file } = (row.cells[`c${column}`] ?? {}) as { file?: object }
			return file && JSON.stringify(row.cells).includes('"VQ-')
		})?.id
		if (id === undefined && page.next === null) throw new Error('Expected the demo to have a photo of Varrow Quay')
		after = `&after=${page.next}`
	}
	await keeper.dispose()
	return (photo = { address: `/files/${column}?row=${id}`, column })
}

/** Screens of the apps, first pages and further ones. */
async function checkScreens(api: APIRequestContext, person: DemoPerson, facts: Facts): Promise<void> {
	const may = new Set([
		...(MAY_SEE['Moorings']?.(facts, person) ?? []),
		...(MAY_SEE['Inspections']?.(facts, person) ?? []),
		...(MAY_SEE['Spend requests']?.(facts, person) ?? [])
	])
	const every = [
		...facts.moorings.map((row) => row.code),
		...facts.inspections.map((row) => row.title),
		...facts.requests.map((row) => row.title)
	]
	const paths = [
		'/app/1/due',
		'/app/1/all',
		'/app/1/inspections',
		'/app/2/requests',
		'/app/1',
		'/app/2',
		'',
		'/waiting',
		'/notices',
		'/post'
	].map((path) => `${path}/__data.json`)
	const asked: [string, Promise<APIResponse>][] = [
		...[...paths, '/app/1/all/export?line=all-2'].map((path): [string, Promise<APIResponse>] => [path, api.get(path)]),
		['the list of moorings', askList(api, '/app/1/all', 'all-2')],
		['moorings looked for', askList(api, '/app/1/all', 'all-2', { narrowing: { find: '-0', filters: [] } })],
		['the screen of moorings, read again', askAgain(api, '/app/1/all')],
		['the list of requests', askList(api, '/app/2/requests', 'requests-2')],
		['the harbours of moorings', askValues(api, '/app/1/all', 'all-2', facts.columns.get('Harbour') ?? 0)]
	]
	for (const [path, answer] of asked) {
		const text = await (await answer).text()
		if (person.name !== 'Saskia Holm' && person.name !== 'Jory Pendarrow' && person.name !== 'Ailith Brand') {
			expect(unseen(labelsIn(text, every), may), `${person.name} finds at ${path}`).toEqual([])
		}
	}
}

/** Columns that are kept back do not leave by any of these ways either. */
async function checkColumns(api: APIRequestContext, person: DemoPerson, facts: Facts): Promise<void> {
	if (!person.roles.every((role) => role === 'Divers')) return
	const table = facts.tables.get('Moorings') ?? 0
	// By a column that its list does not name nothing is narrowed, and nothing of it is told.
	const phone = facts.columns.get('Holder phone') ?? 0
	expect(await (await askValues(api, '/app/1/all', 'all-2', phone)).json()).toBeNull()
	const filters = [{ column: phone, is: 'contains', text: '01632' }]
	const [narrowed, whole] = await Promise.all([
		askList(api, '/app/1/all', 'all-2', { narrowing: { find: '', filters } }),
		askList(api, '/app/1/all', 'all-2')
	])
	expect(await narrowed.json()).toEqual(await whole.json())
	const texts = [
		(await readAll(api, table)).join('\n'),
		await (await api.get(`/export/${table}`)).text(),
		await (await api.get('/app/1/all/__data.json')).text()
	]
	for (const text of texts) expect(text, `${person.name} is sent no phone number`).not.toContain('01632 960')
}

/** People and roles are for stewards, builders, and who may pass a role on; nobody else is told of them, or gives any. */
async function checkPeople(api: APIRequestContext, person: DemoPerson): Promise<void> {
	const steward = has(person, 'Stewards')
	const told = steward || has(person, 'Builders', 'Harbour masters')
	const sheet = await api.get('/people/__data.json')
	expect((await sheet.text()).includes('Finance office'), `${person.name} opens People`).toBe(told)
	const page = (await (await api.get('/rows/1?limit=200')).json()) as { rows: { id: string }[] }
	for (const row of page.rows.slice(0, 2)) {
		const given = await api.post('/people/do', {
			data: { kind: 'give role', person: row.id, role: 104, mayPassOn: false }
		})
		if (!steward) expect(given.status(), `${person.name} gives Finance away`).toBe(403)
		const suspended = await api.post('/people/do', { data: { kind: 'suspend', person: row.id } })
		if (!steward) expect(suspended.status(), `${person.name} suspends somebody`).toBe(403)
		else await api.post('/people/do', { data: { kind: 'let back', person: row.id } })
		const marked = await api.post('/rows/1', {
			data: { kind: 'change', row: row.id, cells: [{ column: 3, value: null }] }
		})
		if (!steward) expect(marked.status(), `${person.name} changes a harbour`).toBe(403)
	}
}

/** The whole Logbook is the stewards'; builders read their own part of it on the Bench, without people's affairs. */
async function checkLogbook(api: APIRequestContext, person: DemoPerson): Promise<void> {
	const whole = await (await api.get('/logbook/__data.json')).text()
	expect(whole.includes('suspend'), `${person.name} reads the whole Logbook`).toBe(has(person, 'Stewards'))
	const own = await (await api.get('/bench/2/logbook/__data.json?find=suspend')).text()
	if (!has(person, 'Stewards')) expect(own, `${person.name} reads of a suspension`).not.toContain('let back')
	const seals = (await api.get('/logbook/check')).status()
	expect(seals, `${person.name} checks the seals`).toBe(has(person, 'Stewards', 'Builders') ? 200 : 403)
}

/** The Bench is shut to whoever is no builder; to builders it shows what they keep. */
async function checkBench(api: APIRequestContext, person: DemoPerson): Promise<void> {
	const statuses = [
		(await api.get('/bench/1/tables/__data.json')).status(),
		(await api.post('/bench/try', { data: { kind: 'condition', table: 101, text: 'TRUE', me: true } })).status(),
		(await api.post('/bench/looks', { data: { kind: 'begin', app: 1, person: 4 } })).status(),
		(await api.post('/bench/lines/101', { data: { lines: [] } })).status(),
		(await api.post('/bench/imports', { data: { undo: 101 } })).status(),
		(await api.get('/bench/1/bundle')).status(),
		(await api.post('/bench/bundles', { data: { kind: 'look', name: 'b', text: '{}' } })).status(),
		(await api.post('/bench/coasts', { data: { table: 101 } })).status(),
		(await api.get('/bench/1/routines/1', { headers: { accept: 'text/html' } })).status()
	]
	if (!has(person, 'Builders')) {
		for (const status of statuses.slice(1)) expect(status, person.name).toBe(403)
		expect(await (await api.get('/bench/1/tables/__data.json')).text()).not.toContain('VQ-001')
		return
	}
	// Jory builds too, but keeps nothing here: the lines of Moorings are not there for him.
	expect(statuses[3], person.name).toBe(keeps(person) ? 200 : 404)
	// No file was brought into it; who does not keep it is not told so much.
	expect(statuses[4], person.name).toBe(404)
	// A bundle holds the tables that its maker keeps, and of others not even how they are made.
	const bundle = (await (await api.get('/bench/1/bundle')).json()) as SavedBundle
	expect(bundle.tables.length > 0, person.name).toBe(keeps(person))
	if (!keeps(person)) expect(JSON.stringify([bundle.tables, bundle.access])).toBe('[[],[]]')
	for (const { name } of PEOPLE) expect(JSON.stringify(bundle.tables), person.name).not.toContain(name)
	// A run says of its row and of people only what is this builder's to see.
	const runs = await (await api.get('/bench/1/routines/__data.json?routine=due')).text()
	expect(/"[A-Z]{2}-\d{3}"/.test(runs), person.name).toBe(keeps(person))
}

test('without signing in nothing is told, and a request of another site does nothing', async () => {
	const api = await request.newContext({ baseURL: BASE })
	for (const path of [
		'/rows/101',
		'/export/101',
		'/options/101',
		'/events?tables=101',
		'/files/123?row=x',
		'/post/__data.json'
	]) {
		const answer = await api.get(path, { maxRedirects: 0, headers: { accept: 'application/json' } })
		expect(answer.status(), path).toBe(401)
	}
	// Nothing is taken without a site of one's own that it comes from.
	expect((await askList(api, '/app/1/all', 'all-2')).status()).toBe(403)
	const own = await request.newContext({
		baseURL: BASE,
		extraHTTPHeaders: { origin: BASE, accept: 'application/json' }
	})
	expect((await askList(own, '/app/1/all', 'all-2')).status()).toBe(401)
	expect((await askAgain(own, '/app/1/all')).status()).toBe(401)
	expect((await askValues(own, '/app/1/all', 'all-2', 1)).status()).toBe(401)
	expect((await askForm(own, '/app/1/inspect')).status()).toBe(401)
	await own.dispose()
	const { headers } = { headers: (await api.get('/sign-in')).headers() }
	expect(headers).toMatchObject({
		'x-content-type-options': 'nosniff',
		'referrer-policy': 'same-origin',
		'cross-origin-opener-policy': 'same-origin',
		'cross-origin-resource-policy': 'same-origin'
	})
	const policy = headers['content-security-policy'] ?? ''
	expect(policy).toMatch(/frame-ancestors 'self'/)
	expect(policy).toMatch(/script-src 'self' 'nonce-/)
	expect(policy.replace(/style-src-attr [^;]*/, '')).not.toContain('unsafe')
	const foreign = await api.post('/rows/101', {
		data: { kind: 'add', cells: [] },
		headers: { origin: 'http://elsewhere.example' }
	})
	expect(foreign.status()).toBe(403)
	// What is read whole must be short, also before anybody is known.
	const long = await api.post('/sign-in?/password', {
		form: { email: 'a@varrow.example', password: 'x'.repeat(9_000_000) },
		headers: { origin: BASE }
	})
	expect(long.status()).toBe(413)
	await api.dispose()
})

test('the documents of the demo hold no second way to the rows', () => {
	// SQL lives in the server's modules alone; a page or component that ran its own would be a second door.
	const files = ['src/routes', 'src/lib/ui'].flatMap((folder) =>
		readdirSync(folder, { recursive: true, withFileTypes: true })
			.filter((entry) => entry.isFile())
			.map((entry) => join(entry.parentPath, entry.name))
	)
	expect(files.length).toBeGreaterThan(50)
	for (const file of files) expect(readFileSync(file, 'utf8'), file).not.toMatch(/\.prepare\(|better-sqlite3/)
})

test('the Lookout shows what somebody sees, changes nothing but a copy, and is its builder’s alone', async () => {
	const facts = readFacts()
	const numbers = numbersOfPeople()
	const builder = await signInAs(PEOPLE.find(keeps) as DemoPerson, numbers.get('Saskia Holm') ?? 0)
	const { token } = (await (
		await builder.post('/bench/looks', { data: { kind: 'begin', app: 1, person: numbers.get('Imke Dahl') } })
	).json()) as { token: string }
	const imke = PEOPLE.find((person) => person.name === 'Imke Dahl') as DemoPerson
	const may = new Set(MAY_SEE['Moorings']?.(facts, imke))
	const codes = facts.moorings.map((row) => row.code)
	const asked: [string, Promise<APIResponse>][] = [
		['the screen', builder.get(`/as/${token}/all/__data.json`)],
		['the list', askList(builder, `/as/${token}/all`, 'all-2')],
		['the screen, read again', askAgain(builder, `/as/${token}/all`)],
		['the options', builder.get(`/options/${facts.tables.get('Moorings')}?as=${token}`)]
	]
	for (const [path, answer] of asked) {
		const text = await (await answer).text()
		const shown = labelsIn(text, codes)
		expect(shown.length, path).toBeGreaterThan(5)
		for (const code of shown) expect(may.has(code), `${code} at ${path}`).toBe(true)
		expect(text, path).not.toContain('01632 960')
	}
	const row = (
		(await (await builder.get(`/rows/${facts.tables.get('Moorings')}?limit=1`)).json()) as { rows: { id: string }[] }
	).rows[0]?.id
	// A row that Imke does not see cannot be changed as her, on a copy either.
	const unseen = await builder.post(`/as/${token}/sheet/do`, { data: { kind: 'press', line: 'sheet-2', row } })
	expect(unseen.status()).toBe(404)
	const list = (await (await askList(builder, `/as/${token}/all`, 'all-2')).json()) as { rows: { id: string }[] }
	const hers = list.rows[0]?.id ?? ''
	const before = dump()
	const tried = await builder.post(`/as/${token}/sheet/do`, { data: { kind: 'press', line: 'sheet-2', row: hers } })
	expect(tried.status()).toBe(200)
	expect(dump()).toEqual(before)
	// It shows in the Lookout, to this builder, and nowhere else.
	const sheet = (path: string) => builder.get(path).then((answer) => answer.text())
	expect(await sheet(`/as/${token}/sheet/__data.json?row=${hers}`)).toContain('"onCopy":')
	const copies = readdirSync('test-results/workspace/tries').filter((name) => name.endsWith('.db'))
	expect(copies).toHaveLength(1)
	const copy = new Database(join('test-results/workspace/tries', copies[0] ?? ''), { readonly: true })
	expect(copy.prepare(`SELECT count(*) FROM session`).pluck().get()).toBe(0)
	expect(copy.prepare(`SELECT person FROM history ORDER BY seq DESC LIMIT 1`).pluck().get()).toBe(
		numbers.get('Imke Dahl')
	)
	copy.close()
	expect((await builder.delete('/bench/looks')).status()).toBe(200)
	expect(readdirSync('test-results/workspace/tries')).toEqual([])
	const other = await signInAs(
		PEOPLE.find((person) => person.name === 'Jory Pendarrow') as DemoPerson,
		numbers.get('Jory Pendarrow') ?? 0
	)
	expect((await askList(other, `/as/${token}/all`, 'all-2')).status()).toBe(404)
	expect((await askAgain(other, `/as/${token}/all`)).status()).toBe(404)
	expect((await askValues(other, `/as/${token}/all`, 'all-2', 1)).status()).toBe(404)
	expect((await askForm(other, `/as/${token}/inspect`)).status()).toBe(404)
	// Jory may look as Imke himself, but at tables that he does not keep he sees no more than he may.
	const own = (await (
		await other.post('/bench/looks', { data: { kind: 'begin', app: 1, person: numbers.get('Imke Dahl') } })
	).json()) as { token: string }
	expect(labelsIn(await (await other.get(`/as/${own.token}/__data.json`)).text(), codes)).toEqual([])
	await Promise.all([builder.dispose(), other.dispose()])
})
