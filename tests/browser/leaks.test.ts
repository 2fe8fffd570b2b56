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
 * tablet, `hostile.test.ts`; bundles and coasts, which only builders ask for, `matrix.test.ts` and `tests/unit/bundles.test.ts`; calls in
 * an order, `tests/unit/map.test.ts`; values of routines, calls of other programs, closed browsers, letters and links outside,
 * `tests/unit/routine-values.test.ts`, `other-programs.test.ts`, `devices.test.ts`, `outside-asks.test.ts`; rows in the bin that a
 * routine reads, `removed-starts.test.ts`; codes that are scanned, `scans.test.ts`.
 */
import { expect, test, type APIRequestContext } from '@playwright/test'
import { numbersOfPeople, signInAs } from './asking.ts'
import {
	ROW_SECRET,
	CELL_SECRET,
	type Wrecks,
	makeWrecks,
	NARROWED,
	screenOf,
	listOf,
	inDiary,
	judged,
	ofRow,
	putIn,
	gives,
	again,
	offered,
	type Ask,
	text,
	cellOf,
	filtered,
	order,
	workbook,
	database
} from './wrecks.ts'

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
	['a board, a row', screenOf('lanes'), ROW_SECRET],
	['a board, a cell', screenOf('lanes'), CELL_SECRET],
	['a calendar, a row', inDiary, '"3 Jan 1990"'],
	['a calendar, an unseen last day', inDiary, '2 Jan 1990 until 5 Jan 1990'],
	['a map, a row', screenOf('lie'), '[50.9,-4.9]'],
	['a map, an unseen place', screenOf('sank'), '[50.7,-4.7]'],
	['a sum in a lane', screenOf('lanes'), '£2,222.15'],
	['a figure of an unseen cell', screenOf('worth-figure'), '£2,266.15'],
	['the rows behind a figure', listOf('worth-figure', () => ({})), ROW_SECRET],
	['a chart by what an unseen row holds', screenOf('names-chart'), ROW_SECRET],
	['a chart in bands of an unseen cell', screenOf('worth-bands'), '£900.00–£1,000.00'],
	['a chart by days, a row', screenOf('raised-days'), '3 Jan 1990: 1'],
	['a scatter of unseen cells', screenOf('worth-dots'), '"kind":"scatter"'],
	[
		'the rows behind a dot, by an unseen cell',
		listOf('worth-dots', ({ of }) => ({
			narrowing: { find: '', filters: [{ column: of['Worth'], is: 'below', text: '1000' }] }
		})),
		ROW_SECRET
	],
	['a chart by what is computed of an unseen cell', screenOf('dear-chart'), '"label":"yes"'],
	[
		'the rows behind a bar, by an unseen cell',
		listOf('dear-chart', ({ of }) => ({
			narrowing: { find: '', filters: [{ column: of['Dear'], is: 'equal', text: 'yes' }] }
		})),
		'Petrel'
	],
	['the rows that one is chosen among', screenOf('pick'), ROW_SECRET],
	['the values of a column that one is chosen among', screenOf('twinned'), ROW_SECRET],
	[
		'a condition on an unseen cell, with a number from the address',
		listOf('dearer', () => ({ held: { least: '1000' } })),
		'Petrel'
	],
	['the texts that one is chosen among', screenOf('named'), ROW_SECRET],
	['shared lines, a row', text(({ app }) => `/app/${app}/s/__data.json`), ROW_SECRET],
	['shared lines, a cell', text(({ app }) => `/app/${app}/s/__data.json`), CELL_SECRET],
	['a mark on a row', ofRow, '"mark":7'],
	['what a press puts into a row', putIn, 'Petrel 1234.5'],
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
	[
		'a table as it was, a row',
		text(({ table }) => `/rows/${table}/past?day=${new Date().toISOString().slice(0, 10)}`),
		ROW_SECRET
	],
	[
		'a table as it was, a cell',
		text(({ table }) => `/rows/${table}/past?day=${new Date().toISOString().slice(0, 10)}`),
		CELL_SECRET
	],
	[
		'a table as it was, found by an unseen cell',
		text(({ table, of }) => {
			const filters = JSON.stringify([{ column: of['Worth'], is: 'at least', text: '1000' }])
			return `/rows/${table}/past?day=${new Date().toISOString().slice(0, 10)}&filters=${encodeURIComponent(filters)}`
		}),
		'Petrel'
	],
	['a list as it was, a row', screenOf('was'), ROW_SECRET],
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
	[
		'press a button on',
		(api, row) =>
			api.post(`/app/${wrecks.app}/w/do`, {
				data: { kind: 'press all', presses: [{ kind: 'put', line: 'notes', row }] }
			})
	],
	['try to move', (api, row) => api.post(`/app/${wrecks.app}/w/do`, { data: { kind: 'moves', line: 'lanes', row } })],
	[
		'move',
		(api, row) => api.post(`/app/${wrecks.app}/w/do`, { data: { kind: 'move', line: 'lanes', row, to: 'Ness' } })
	],
	[
		'try to move to another day',
		(api, row) =>
			api.post(`/app/${wrecks.app}/w/do`, { data: { kind: 'moves', line: 'diary', row, to: ['1990-02-01'] } })
	],
	[
		'move to another day',
		(api, row) => api.post(`/app/${wrecks.app}/w/do`, { data: { kind: 'move', line: 'diary', row, to: '1990-02-01' } })
	],
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
