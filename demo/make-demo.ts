/**
 * Makes the demo workspace, from a seed: the trust's people, its tables and six years of inspections, its apps with
 * their releases, and what waits on whom. Rows go through the same doors as everybody's.
 *
 *     node build/threads/make-demo.js FOLDER
 */
import { mkdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import type { ImportPlan } from '../src/lib/core/exchange/plan.ts'
import type { ColumnEntry } from '../src/lib/core/workspace/document.ts'
import { addAppFrom, releaseApp } from '../src/lib/server/apps/apps.ts'
import { readKey } from '../src/lib/server/base/workspace-key.ts'
import { hashPassword } from '../src/lib/server/sign-in/passwords.ts'
import { putAccount } from '../src/lib/server/rights/accounts.ts'
import { giveRole } from '../src/lib/server/people/grants.ts'
import { addWay } from '../src/lib/server/joining/ways-in.ts'
import { addTeam, giveTeamRole, joinTeam } from '../src/lib/server/people/teams.ts'
import { changeRows } from '../src/lib/server/rows/change.ts'
import { decideCase, listCases, readCase } from '../src/lib/server/signoffs/cases.ts'
import { bringIn } from '../src/lib/server/sources/bring-in.ts'
import { beginImport, finishImport, writeBatch } from '../src/lib/server/sources/import-table.ts'
import { inspectFile } from '../src/lib/server/sources/inspect.ts'
import type { Store } from '../src/lib/server/store/store.ts'
import { openWriter } from '../src/lib/server/threads/open-writer.ts'
import {
	addFirstPerson,
	makeWorkspace,
	PEOPLE as PEOPLE_TABLE,
	PERSON_EMAIL,
	PERSON_NAME
} from '../src/lib/server/structure/make.ts'
import { changeColumn } from '../src/lib/server/structure/change-columns.ts'
import { openAsMe } from '../src/lib/server/people/open-as-me.ts'
import { saveWorkspace } from '../src/lib/server/structure/save.ts'
import { addColumn, addTable, toReference, type NewColumn } from '../src/lib/server/structure/tables.ts'
import { appSchema } from '../src/lib/core/app/document.ts'
import { mooringCare, spending } from './apps.ts'
import { DEMO_PASSWORD } from './password.ts'
import { drawChain, drawPontoons, drawSignature, giveAppPicture, giveDemoFile } from './photos.ts'
import { emailOf, HARBOURS, PEOPLE } from './people.ts'
import { randomFrom, type Random } from './random.ts'
import { stockColumns, stockLines, stores, takingColumns, takingLines } from './stores.ts'
import { fillQuay, fillStock } from './fill-tables.ts'
import {
	BERTH_TAKEN,
	berthColumns,
	berthLines,
	harbourNameLine,
	vouching,
	quayside,
	visitColumns,
	visitLines
} from './quayside.ts'
import { add, columnsOf } from './rows.ts'
import { registerRows, writeRegister } from './register.ts'
import * as demo from './tables.ts'

const DAY = 86_400_000
const SEED = 1871

export async function makeDemo(folder: string, now: number): Promise<void> {
	mkdirSync(folder, { recursive: true, mode: 0o700 })
	for (const name of ['workspace.db', 'workspace.db-wal', 'workspace.db-shm'])
		rmSync(join(folder, name), { force: true })
	rmSync(join(folder, 'files'), { recursive: true, force: true })
	const key = readKey(folder)
	const store = openWriter(join(folder, 'workspace.db'), key)
	// A demo may be made anew at any time: speed counts here, and a torn one is simply made again.
	store.db.pragma('synchronous = OFF')
	const random = randomFrom(SEED)
	const today = new Date(now).toISOString().slice(0, 10)

	const world = store.db.transaction(() => makePeople(store, now))()
	const hash = await hashPassword(DEMO_PASSWORD)
	for (const person of world.people.values()) putAccount(store, { person, hash })

	const file = join(folder, 'shared drive', 'Mooring register.xlsx')
	mkdirSync(join(folder, 'shared drive'), { recursive: true })
	await writeRegister(file, registerRows(random, today))
	const moorings = await bringInRegister(store, world, file, now - 400 * DAY)
	store.db.transaction(() => {
		const tables = makeTables(store, world, moorings, now)
		const filling = { ...world, now, seed: SEED }
		fillStock(store, tables.stock, filling)
		fillQuay(store, tables, filling)
		fillInspections(store, world, tables, { random, now, folder })
		makeApps(store, world, tables, { now, folder })
		fillRequests(store, world, tables, { random, now })
		deliverPast(store)
	})()
	store.db.pragma('synchronous = FULL')
	store.db.close()
}

interface World {
	/** Numbers of people by name. */
	readonly people: ReadonlyMap<string, number>
	readonly harbours: number
	/** Ids of harbours by name. */
	readonly harbourIds: ReadonlyMap<string, string>
	readonly builder: number
}

function makePeople(store: Store, now: number): World {
	makeWorkspace(store, { name: 'Varrow Sound Harbour Trust', timeZone: 'Europe/London', now })
	store.db.prepare(`INSERT INTO meta (key, value) VALUES ('demo', 'yes'), ('workspace id', 'varrow')`).run()
	const strangers = JSON.stringify(demo.STRANGERS)
	store.db.prepare(`INSERT INTO meta (key, value) VALUES ('stand-in strangers', ?)`).run(strangers)
	// The stand-in for a provider of sign-in: it keeps its client and secret to itself.
	store.db
		.prepare(
			`INSERT INTO provider (name, issuer, client_id, sealed_secret, made_at) VALUES ('Quay Pass', '', '', '', ?)`
		)
		.run(now)
	const people = new Map<string, number>()
	const first = { name: 'Ailith Brand', email: emailOf('Ailith Brand'), roles: [demo.ROLE_IDS.Stewards], now }
	const steward = addFirstPerson(store, first)
	people.set('Ailith Brand', steward)
	for (const person of PEOPLE) {
		if (people.has(person.name)) continue
		const id = add(
			store,
			steward,
			PEOPLE_TABLE,
			{ [PERSON_NAME]: person.name, [PERSON_EMAIL]: emailOf(person.name) },
			now
		)
		people.set(person.name, store.ids.fromId(PEOPLE_TABLE, id) ?? 0)
	}
	const builder = people.get('Saskia Holm') ?? 0
	const document = store.workspace().document
	saveWorkspace(store, { ...document, roles: [...document.roles, ...demo.DEMO_ROLES] }, { now, by: builder })
	giveRoles(store, people, { steward, now })
	return { people, builder, ...makeHarbours(store, people, builder, now) }
}

/** By the steward, by name; the finance office holds its role as a team. */
function giveRoles(
	store: Store,
	people: ReadonlyMap<string, number>,
	{ steward, now }: { steward: number; now: number }
): void {
	const by = { actor: { person: steward }, now }
	const team = addTeam(store, { name: 'Finance office', ...by })
	giveTeamRole(store, { team, role: demo.ROLE_IDS.Finance, ...by })
	for (const { name, roles } of PEOPLE) {
		const person = people.get(name) ?? 0
		for (const role of roles) {
			if (role === 'Finance') joinTeam(store, { team, person, ...by })
			else if (person !== steward)
				giveRole(store, { person, role: demo.ROLE_IDS[role], mayPassOn: role === 'Harbour masters', ...by })
		}
	}
}

function makeHarbours(store: Store, people: ReadonlyMap<string, number>, builder: number, now: number) {
	const actor = { person: builder }
	const harbours = addTable(store, { name: 'Harbours', columns: demo.HARBOUR_COLUMNS, actor, now })
	const column = columnsOf(store, harbours)
	const harbourIds = new Map<string, string>()
	for (const { name, master, controller } of HARBOURS) {
		const person = (who: string) => ({ id: store.ids.toId(PEOPLE_TABLE, people.get(who) ?? 0) })
		harbourIds.set(
			name,
			add(
				store,
				builder,
				harbours,
				{ [column('Name')]: name, [column('Master')]: person(master), [column('Controller')]: person(controller) },
				now
			)
		)
	}
	givePeopleHarbours(store, { people, harbours, harbourIds, now })
	return { harbours, harbourIds }
}

function givePeopleHarbours(
	store: Store,
	given: { people: ReadonlyMap<string, number>; harbours: number; harbourIds: ReadonlyMap<string, string>; now: number }
): void {
	const { document } = store.workspace()
	const column: ColumnEntry = { id: 3, name: 'Harbour', type: 'reference', to: given.harbours, reverseName: 'people' }
	const tables = document.tables.map((table) =>
		table.id === PEOPLE_TABLE ? { ...table, columns: [...table.columns, column] } : table
	)
	saveWorkspace(store, { ...document, tables }, { now: given.now, by: null })
	openColumnsToBuilders(store, given)
	const steward = given.people.get('Ailith Brand') ?? 0
	const lines = demo.harbourLines().map((line, i) => ({ ...line, id: `harbours ${i}`, table: given.harbours }))
	saveWorkspace(
		store,
		{ ...store.workspace().document, lines: [...document.lines, ...lines] },
		{ now: given.now, by: null }
	)
	for (const { name, harbour } of PEOPLE) {
		if (harbour === null) continue
		const row = store.ids.toId(PEOPLE_TABLE, given.people.get(name) ?? 0)
		const cells = [{ column: 3, value: { id: given.harbourIds.get(harbour) ?? '' } }]
		changeRows(store, [{ kind: 'change', table: PEOPLE_TABLE, row, cells }], {
			actor: { person: steward },
			now: given.now,
			through: 'demo'
		})
	}
}

/** Builders write lines by whose harbour, or whose address, though they see neither of everybody. */
function openColumnsToBuilders(
	store: Store,
	{ people, now }: { people: ReadonlyMap<string, number>; now: number }
): void {
	const actor = { person: people.get('Ailith Brand') ?? 0 }
	const { columns } = store.workspace().catalogue.people
	for (const { id, name } of columns) if (name !== 'Name') openAsMe(store, { column: id, open: true, actor, now })
}

async function bringInRegister(store: Store, world: World, path: string, now: number): Promise<number> {
	const name = 'Mooring register.xlsx'
	const found = await inspectFile({ path, name })
	const plan: ImportPlan = {
		sheet: found.sheet,
		headingRow: found.headingRow,
		firstRow: found.firstRow,
		tableName: 'Moorings',
		label: found.label,
		columns: found.columns.map((column, from) => ({
			from,
			name: column.name,
			type: column.type as ImportPlan['columns'][number]['type'],
			include: !column.blank,
			unit: column.unit,
			places: column.places,
			choices: column.choices ? [...column.choices] : undefined,
			writing: column.writing,
			fixes: column.doubts.flatMap((doubt): [string, string][] =>
				'proposed' in doubt ? [[doubt.text, doubt.proposed]] : []
			)
		}))
	}
	const actor = { person: world.builder }
	const begun = beginImport(store, { plan, actor })
	const watch = { onProgress: () => undefined, isStopped: () => false }
	const { rows } = await bringIn(
		{ path, name, plan, begun, now, person: world.builder },
		async (batch) => writeBatch(store, batch),
		watch
	)
	const { table } = finishImport(store, { begun, plan, file: name, rows, actor, now })
	const harbour = store
		.workspace()
		.catalogue.tables.get(table)
		?.columns.find((column) => column.name === 'Harbour')
	toReference(store, { table, column: harbour?.id ?? 0, to: world.harbours, fixes: [], actor, now })
	return table
}

interface Tables {
	readonly moorings: number
	readonly inspections: number
	readonly requests: number
	readonly items: number
	readonly stock: number
	readonly takings: number
	readonly berths: number
	readonly visits: number
}

function makeTables(store: Store, world: World, moorings: number, now: number): Tables {
	const by = { actor: { person: world.builder }, now }
	const inspections = addTable(store, { name: 'Inspections', columns: demo.inspectionColumns(moorings), ...by })
	changeColumn(store, {
		table: inspections,
		column: columnsOf(store, inspections)('Title'),
		words: { otherwise: 'Mooring.Code & " on " & Date' },
		...by
	})
	changeColumn(store, {
		table: inspections,
		column: columnsOf(store, inspections)('Diver'),
		words: { otherwise: 'me' },
		...by
	})
	const requests = addTable(store, { name: 'Spend requests', columns: demo.spendColumns(world.harbours), ...by })
	const items = addTable(store, { name: 'Spend items', columns: demo.SPEND_LINE_COLUMNS(requests), ...by })
	const stock = addTable(store, { name: 'Stock', columns: stockColumns(world.harbours), ...by })
	const takings = addTable(store, { name: 'Takings', columns: takingColumns(stock), ...by })
	changeColumn(store, {
		table: takings,
		column: columnsOf(store, takings)('Taking'),
		words: { otherwise: 'Item.Item & ", " & Day' },
		...by
	})
	const berths = addTable(store, { name: 'Berths', columns: berthColumns(world.harbours), ...by })
	const visits = addTable(store, { name: 'Visits', columns: visitColumns(world.harbours, berths), ...by })
	const compute = (name: string, formula: string, shown: Partial<NewColumn> = {}) =>
		addColumn(store, {
			table: moorings,
			column: { name, type: 'computed', formula, ...shown } satisfies NewColumn,
			...by
		})
	compute('Next due', 'EDATE(Last look; IF(Type = "Pontoon"; 24; 12))')
	compute('Worn', '(Chain - Chain read) / Chain * 100', { unit: '%', places: 1 })
	compute('Times inspected', 'COUNT(inspections)')
	compute('due soon', 'Next due <= TODAY() + 28', { condition: true })
	compute('in my harbour', 'Harbour = me.Harbour', { condition: true })
	const column = columnsOf(store, moorings)
	const named = new Map(
		['Last look', 'Chain read', 'Note', 'Code', 'Harbour', 'Holder', 'Holder phone', 'Arrears'].map((name) => [
			name,
			column(name)
		])
	)
	addColumn(store, { table: berths, column: BERTH_TAKEN, ...by })
	const document = vouching(store.workspace().document, BERTH_TAKEN.name)
	const place = (table: number, lines: ReturnType<typeof demo.harbourLines>) =>
		lines.map((line, i) => ({ ...line, table, id: `line ${table} ${i + 1}` }))
	const lines = [
		...place(moorings, demo.mooringLines(named)),
		...place(inspections, demo.inspectionLines()),
		...place(requests, demo.spendLines()),
		...place(items, demo.spendItemLines()),
		...place(stock, stockLines(columnsOf(store, stock))),
		...place(takings, takingLines()),
		...place(world.harbours, harbourNameLine(columnsOf(store, world.harbours))),
		...place(berths, berthLines()),
		...place(visits, visitLines())
	]
	saveWorkspace(store, { ...document, lines: [...document.lines, ...lines] }, { now, by: world.builder })
	return { moorings, inspections, requests, items, stock, takings, berths, visits }
}

interface Making {
	readonly random: Random
	readonly now: number
}

const REMARKS = [
	'Pin moused, no play.',
	'Links free, no necking.',
	'Swivel stiff, turned by hand.',
	'Riser worn at the third link.',
	'Chafe guard split.',
	'Sinker dragged a metre south.'
]

/** Some 1,900 inspections over six years, by the divers of each harbour; those of the last months have their pictures. */
function fillInspections(
	store: Store,
	world: World,
	{ moorings, inspections }: Tables,
	{ random, now, folder }: Making & { readonly folder: string }
): void {
	const column = columnsOf(store, inspections)
	const drawing = randomFrom(SEED + 1)
	const chains = Array.from({ length: 6 }, (_, i) => drawChain(drawing, i / 5))
	const picturesOf = (diver: number, verdict: string, at: number) => {
		const give = (name: string, columnId: number, body: Buffer) =>
			giveDemoFile(store, { folder, column: columnId, person: diver, name, body, now: at })
		const body = chains[verdict === 'Sound' ? drawing.below(2) : 2 + drawing.below(4)]
		return {
			...(body ? { [column('Photo')]: give('chain.png', column('Photo'), body) } : {}),
			[column('Signed')]: give('signed.png', column('Signed'), drawSignature(randomFrom(diver)))
		}
	}
	const rows = store.db
		.prepare(`SELECT m.n, m.c${columnsOf(store, moorings)('Code')} AS code FROM t${moorings} AS m ORDER BY m.n`)
		.all() as { n: number; code: string }[]
	for (const { n, code } of rows) {
		const harbour = HARBOURS.find((each) => code.startsWith(each.prefix))?.name
		const divers = PEOPLE.filter((person) => person.roles.includes('Divers') && person.harbour === harbour)
		const times = 6 + random.below(3)
		for (let i = 0; i < times; i++) {
			const at = now - Math.round((i + random.next()) * (2190 / times)) * DAY
			const diver = world.people.get(random.pick(divers).name) ?? 0
			const date = new Date(at).toISOString().slice(0, 10)
			const verdict = random.chance(0.72) ? 'Sound' : random.chance(0.7) ? 'Watch' : 'Replace'
			const cells = {
				[column('Title')]: `${code} on ${date}`,
				[column('Mooring')]: { id: store.ids.toId(moorings, n) },
				[column('Date')]: date,
				[column('Diver')]: { id: store.ids.toId(PEOPLE_TABLE, diver) },
				[column('Verdict')]: verdict,
				[column('Findings')]: verdict === 'Sound' ? null : drawing.pick(demo.FINDINGS),
				[column('Remark')]: verdict === 'Sound' ? null : random.pick(REMARKS)
			}
			const pictures = now - at < 120 * DAY ? picturesOf(diver, verdict, at + n) : {}
			add(store, Object.keys(pictures).length > 0 ? diver : world.builder, inspections, { ...cells, ...pictures }, at)
		}
	}
}

function makeApps(
	store: Store,
	world: World,
	tables: Tables,
	{ now, folder }: Pick<Making, 'now'> & { readonly folder: string }
): void {
	const by = { actor: { person: world.builder }, now: now - 300 * DAY }
	const { moorings, inspections, requests, items, stock, takings, berths, visits } = tables
	const care = mooringCare({
		moorings,
		mooring: columnsOf(store, moorings),
		inspections,
		inspection: columnsOf(store, inspections),
		harbours: world.harbours,
		harbour: columnsOf(store, world.harbours)
	})
	const spend = spending({ requests, request: columnsOf(store, requests), items, item: columnsOf(store, items) })
	const { harbours } = world
	const taking = columnsOf(store, takings)
	const shelves = stores({ stock, item: columnsOf(store, stock), harbours, takings, taking })
	const body = drawPontoons(randomFrom(SEED + 4))
	const given = { folder, person: world.builder, name: 'pontoons.png', body, now: by.now }
	const pontoons = giveAppPicture(store, given)
	const quay = quayside({ berths, visits, visit: columnsOf(store, visits), harbours, pontoons })
	for (const document of [care, spend, shelves, quay]) {
		const app = addAppFrom(store, { document: appSchema.parse(document), ...by })
		releaseApp(store, { app, note: 'First release', ...by })
	}
	openWays(store, world, now)
}

/** The moorings can be asked for at the door; new clerks get a code with their contract. */
function openWays(store: Store, world: World, now: number): void {
	const by = { actor: { person: world.people.get('Ailith Brand') ?? 0 }, now: now - 200 * DAY }
	const way = { app: 1, word: '', team: null, usesLeft: null, endsAt: null, asks: '', words: '' }
	addWay(store, {
		...way,
		kind: 'doorstep',
		role: demo.ROLE_IDS.Divers,
		asks: 'Which harbour do you dive at, and since when?',
		words: 'The harbour office looks at the door each morning. You are told as soon as somebody lets you in.',
		...by
	})
	addWay(store, { ...way, app: 4, kind: 'visitors', role: demo.ROLE_IDS['Visiting crews'], ...by })
	const endsAt = now + 120 * DAY
	addWay(store, {
		...way,
		kind: 'code',
		word: 'QUAY-2027',
		role: demo.ROLE_IDS['Berth clerks'],
		usesLeft: 20,
		endsAt,
		...by
	})
}

const WANTED = [
	'Crane hire, lift week',
	'25 mm chain, 4 × 30 m',
	'Swivels, 22 mm',
	'Antifoul for the workboat',
	'Pick-up buoys',
	'Shackles and mousing wire',
	'Diver’s drysuit seals',
	'Survey of the drying berths',
	'Fender timber',
	'Paint for leading marks',
	'Workboat service',
	'Tide gauge battery'
]

/** 140 spend requests; all but the last few weeks' are decided. */
function fillRequests(store: Store, world: World, { requests }: Tables, { random, now }: Making): void {
	const column = columnsOf(store, requests)
	const askers = PEOPLE.filter(
		(person) => person.harbour !== null && !person.roles.includes('Finance') && !person.roles.includes('Builders')
	)
	for (let i = 0; i < 140; i++) {
		const at = now - (140 - i) * 3 * DAY - random.below(2 * DAY)
		const asker = random.pick(askers)
		const title = `${random.pick(WANTED)} · ${String(i + 1).padStart(3, '0')}`
		const count = 1 + random.below(4)
		const each = (1 + random.below(180)) * 10
		const cells = {
			[column('What for')]: title,
			[column('Harbour')]: { id: world.harbourIds.get(asker.harbour ?? '') ?? '' },
			[column('Amount')]: count * each,
			[column('Cost code')]: random.pick(demo.COST_CODES),
			[column('Needed by')]: new Date(at + (10 + random.below(60)) * DAY).toISOString().slice(0, 10),
			[column('Why')]: random.pick([
				'Due before the spring tides.',
				'The old one was condemned by the diver.',
				'Cheaper now than after Easter.',
				'Holder has paid for the work already.'
			])
		}
		add(store, world.people.get(asker.name) ?? 0, requests, cells, at)
		if (i < 128) decide(store, world, { at: at + (1 + random.below(4)) * DAY, random })
	}
}

const COMMENTS = ['Agreed.', 'Cheaper than two tows.', 'Use what is in stores first.', 'Within budget.', '']

function decide(store: Store, world: World, { at, random }: { at: number; random: Random }): void {
	for (const name of ['Petra Nankivell', 'Anselm Roke']) {
		const actor = { person: world.people.get(name) ?? 0 }
		const [waiting] = listCases(store, { actor, now: at }).waiting
		if (!waiting) continue
		const { fingerprint } = readCase(store, { id: waiting.id, actor, now: at })
		const move = random.chance(0.85) ? 'approve' : 'decline'
		decideCase(store, { id: waiting.id, move, comment: random.pick(COMMENTS), fingerprint, actor, now: at })
	}
}

/** Messages of the past were delivered in the past. */
function deliverPast(store: Store): void {
	store.db.exec(`
		INSERT OR IGNORE INTO post_tray (message_id, sender, recipient, subject, body, taken_at)
		SELECT m.message_id, 'tin-shed@varrow.example', p.c${PERSON_EMAIL}, m.subject, m.body || coalesce(char(10, 10) || m.link, ''), m.made_at
		FROM message AS m JOIN t${PEOPLE_TABLE} AS p ON p.n = m.person;
		UPDATE message SET sent_at = made_at;
		UPDATE job SET done_at = run_at WHERE task = 'post';`)
}
