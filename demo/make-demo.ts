/**
 * Makes the demo workspace, from a seed: the trust's people, its tables and six years of inspections, its apps with
 * their releases, and what waits on whom. Rows go through the same doors as everybody's.
 *
 *     node build/threads/make-demo.js FOLDER
 */
import { mkdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import type { ImportPlan } from '../src/lib/core/exchange/plan.ts'
import { seal } from '../src/lib/server/base/seal.ts'
import { addProgram, newSecret } from '../src/lib/server/outside/programs.ts'
import { addAppFrom } from '../src/lib/server/apps/apps.ts'
import { releaseApp } from '../src/lib/server/apps/release-app.ts'
import { readKey } from '../src/lib/server/base/workspace-key.ts'
import { hashPassword } from '../src/lib/server/sign-in/passwords.ts'
import { changeRows } from '../src/lib/server/rows/change.ts'
import { readRows } from '../src/lib/server/rows/read.ts'
import { cellKey, isReferenceCell } from '../src/lib/core/query/wire.ts'
import type { ByActor } from '../src/lib/server/rights/rights-of-actor.ts'
import { putAccount } from '../src/lib/server/rights/accounts.ts'
import { addWay } from '../src/lib/server/joining/ways-in.ts'
import { decideCase, listCases, readCase } from '../src/lib/server/signoffs/cases.ts'
import { bringIn } from '../src/lib/server/sources/bring-in.ts'
import { beginImport, finishImport, writeBatch } from '../src/lib/server/sources/import-table.ts'
import { inspectFile } from '../src/lib/server/sources/inspect.ts'
import type { Store } from '../src/lib/server/store/store.ts'
import { openWriter } from '../src/lib/server/threads/open-writer.ts'
import { PEOPLE as PEOPLE_TABLE, PERSON_EMAIL } from '../src/lib/server/structure/make.ts'
import { changeColumn } from '../src/lib/server/structure/change-columns.ts'
import { saveWorkspace } from '../src/lib/server/structure/save.ts'
import { addColumn, addTable, toReference, type NewColumn } from '../src/lib/server/structure/tables.ts'
import { appSchema } from '../src/lib/core/app/document.ts'
import { mooringCare, spending } from './apps.ts'
import { groundOfSound } from './ground.ts'
import { DEMO_PASSWORD } from './password.ts'
import { drawChain, drawPontoons, drawSignature, giveAppFile, giveDemoFile } from './photos.ts'
import { HARBOURS, PEOPLE } from './people.ts'
import { randomFrom, type Random } from './random.ts'
import { remarkColumns, remarkLines } from './remarks.ts'
import { stockColumns, stockLines, stores, takingColumns, takingLines } from './stores.ts'
import { fillQuay, fillRemarks, fillSoundings, fillStock, fillWork } from './fill-tables.ts'
import { WORK_CHECKS, workColumns, workLines } from './work.ts'
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
import { makePeople, type World } from './make-people.ts'

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
		fillWork(store, tables, { ...filling, people: world.people })
		fillQuay(store, tables, filling)
		fillRemarks(store, tables.remarks, filling)
		fillSoundings(store, moorings, filling)
		fillInspections(store, world, tables, { random, now, folder })
		addChandlery(store, world, key, now)
		makeApps(store, world, tables, { now, folder })
		fillRequests(store, world, tables, { random, now })
		beginWork(store, world, tables.work, now)
		deliverPast(store)
	})()
	store.db.pragma('synchronous = FULL')
	store.db.close()
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
	readonly remarks: number
	readonly work: number
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
	const remarks = addTable(store, { name: 'Remarks', columns: remarkColumns(world.harbours), ...by })
	const said = columnsOf(store, remarks)('Said')
	changeColumn(store, { table: remarks, column: said, words: { otherwise: 'TODAY()' }, ...by })
	const work = addTable(store, { name: 'Work orders', columns: workColumns(moorings, PEOPLE_TABLE), ...by })
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
	nameStorekeepers(store, world, by)
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
		...place(visits, visitLines()),
		...place(work, workLines(columnsOf(store, work))),
		...place(remarks, remarkLines())
	]
	const checked = document.tables.map((table) => (table.id === work ? { ...table, checks: WORK_CHECKS } : table))
	saveWorkspace(
		store,
		{ ...document, tables: checked, lines: [...document.lines, ...lines] },
		{ now, by: world.builder }
	)
	return { moorings, inspections, requests, items, stock, takings, berths, visits, work, remarks }
}

/** Who looks after the shelves of each harbour, where somebody does. */
function nameStorekeepers(store: Store, { harbours, harbourIds, people }: World, by: ByActor): void {
	const column = { name: 'Storekeeper', type: 'reference', to: PEOPLE_TABLE, reverseName: 'stores kept' } as const
	addColumn(store, { table: harbours, column, ...by })
	const keeper = columnsOf(store, harbours)('Storekeeper')
	for (const [name, row] of harbourIds) {
		const who = PEOPLE.findLast(({ roles, harbour }) => roles.includes('Stores keepers') && harbour === name)
		if (!who) continue
		const value = { id: store.ids.toId(PEOPLE_TABLE, people.get(who.name) ?? 0) }
		const change = { kind: 'change' as const, table: harbours, row, cells: [{ column: keeper, value }] }
		changeRows(store, [change], { ...by, through: 'demo' })
	}
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

/** A program outside that routines of the stores speak with; nobody knows its secret until a steward asks for a new one. */
function addChandlery(store: Store, { people }: World, key: string, now: number): void {
	const actor = { person: people.get('Ailith Brand') ?? 0 }
	const sealedSecret = seal(key, 'program', newSecret())
	addProgram(store, { name: 'Chandlery', address: 'https://orders.chandlery.example/in', sealedSecret, actor, now })
}

function makeApps(
	store: Store,
	world: World,
	tables: Tables,
	{ now, folder }: Pick<Making, 'now'> & { readonly folder: string }
): void {
	const by = { actor: { person: world.builder }, now: now - 300 * DAY }
	const { moorings, inspections, requests, items, stock, takings, berths, visits } = tables
	const given = { folder, person: world.builder, now: by.now }
	const drawn = Buffer.from(groundOfSound(randomFrom(SEED + 7)))
	const type = 'application/geo+json'
	const ground = giveAppFile(store, { ...given, name: 'varrow-sound.geojson', body: drawn, type })
	const care = mooringCare({
		ground,
		moorings,
		mooring: columnsOf(store, moorings),
		inspections,
		inspection: columnsOf(store, inspections),
		harbours: world.harbours,
		harbour: columnsOf(store, world.harbours),
		work: tables.work,
		order: columnsOf(store, tables.work)
	})
	const spend = spending({ requests, request: columnsOf(store, requests), items, item: columnsOf(store, items) })
	const { harbours } = world
	const taking = columnsOf(store, takings)
	const shelves = stores({ stock, item: columnsOf(store, stock), harbours, takings, taking })
	const body = drawPontoons(randomFrom(SEED + 4))
	const pontoons = giveAppFile(store, { ...given, name: 'pontoons.png', body })
	const { remarks } = tables
	const quay = quayside({
		...{ people: PEOPLE_TABLE, berths, visits, visit: columnsOf(store, visits), harbours, pontoons },
		...{ remarks, remark: columnsOf(store, remarks) }
	})
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

/** Two divers have begun an order today, and are asked how it went. */
function beginWork(store: Store, world: World, work: number, now: number): void {
	const column = columnsOf(store, work)
	const [state, diver] = [column('State'), column('Given to')]
	const actor = { person: world.builder }
	const { rows } = readRows(store, actor, { table: work, columns: [state, diver], limit: 100 }, now)
	for (const name of ['Bram Oyelaran', 'Imke Dahl']) {
		const id = store.ids.toId(PEOPLE_TABLE, world.people.get(name) ?? 0)
		const planned = rows.find(({ cells }) => {
			const given = cells[cellKey(diver)]
			return cells[cellKey(state)] === 'Planned' && isReferenceCell(given) && given.id === id
		})
		if (!planned) throw new Error(`Expected a planned order for ${name}`)
		const change = { kind: 'change' as const, table: work, row: planned.id, cells: [{ column: state, value: 'Under way' }] } // prettier-ignore
		changeRows(store, [change], { actor, now, through: 'demo' })
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
		UPDATE message SET sent_at = made_at, read_at = made_at;
		UPDATE job SET done_at = run_at WHERE task = 'post';`)
}
