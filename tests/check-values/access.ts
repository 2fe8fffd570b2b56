/**
 * Runs generated access scenarios through the real doors: what each person sees, and which changes are let through.
 */
import { AppError } from '$lib/core/app-error.ts'
import type { CellChange, CellInput, Change } from '$lib/core/query/change.ts'
import { cellKey, isReferenceCell, type WireRow } from '$lib/core/query/wire.ts'
import type { ColumnEntry, WorkspaceDocument } from '$lib/core/workspace/document.ts'
import { changeRows } from '$lib/server/rows/change.ts'
import { readRows } from '$lib/server/rows/read.ts'
import type { Store } from '$lib/server/store/store.ts'
import { KEEPER, openScratch, PEOPLE_TABLE } from '../support/scratch-store.ts'
import type { RowResult } from './result.ts'

interface ScenarioColumn {
	readonly name: string
	readonly type: string
	readonly to?: string
	readonly choices?: string[]
	/** Of a computed column. */
	readonly formula?: string
}

/** What a cell shows: its value, `{ label }` of a reference, or that its target is hidden. */
export type ShownCell = Cell | { readonly label: string } | { readonly hidden: true }

type Cell = string | number | boolean | null

export interface Scenario {
	readonly id: string
	readonly today: string
	readonly tables: Record<string, { columns: ScenarioColumn[]; rows: ({ id: string } & Record<string, Cell>)[] }>
	readonly roles: { name: string; includes: string[] }[]
	readonly people: { email: string; attrs: Record<string, Cell>; roles: string[] }[]
	/** What people's columns hold, where nobody may have a value to tell it by. */
	readonly attrTypes?: Readonly<Record<string, 'number' | 'text'>>
	readonly lines: {
		role: string
		table: string
		verbs: ('see' | 'add' | 'change' | 'remove')[]
		columns: 'all' | { only?: string[]; except?: string[] }
		whereText: string
		afterText?: string
	}[]
	/** Rows that somebody was asked about, with the columns that were shown to them for it. */
	readonly grants?: readonly { email: string; table: string; id: string; columns: readonly string[] }[]
	readonly expected: Record<
		string,
		Record<
			string,
			{
				seen: Record<string, string[]>
				sumOfAmount?: number
				/** By row and column, where what the cells show is told as well. */
				shown?: Record<string, Record<string, ShownCell>>
			}
		>
	>
	readonly attempts: {
		email: string
		verb: string
		table: string
		id?: string
		set?: Record<string, Cell>
		allowed: boolean
	}[]
}

/** All that falls short in one scenario, in one sentence; undefined if it holds. */
export function checkScenario(scenario: Scenario): RowResult {
	const world = build(scenario)
	const short = [...checkSeen(world), ...checkAttempts(world)]
	world.store.db.close()
	return { id: scenario.id, short: short.length > 0 ? short.slice(0, 5).join('; ') : undefined }
}

interface World {
	readonly scenario: Scenario
	readonly store: Store
	readonly now: number
	readonly tables: ReadonlyMap<string, { id: number; columns: ReadonlyMap<string, ColumnEntry> }>
	/** By the scenario's own name for a row. */
	readonly rows: Map<string, string>
	readonly people: Map<string, number>
}

const FIRST_ROLE = 10

function build(scenario: Scenario): World {
	let next = 10
	const ids = new Map(Object.keys(scenario.tables).map((name, i) => [name, PEOPLE_TABLE + 1 + i]))
	const tables = new Map(
		Object.entries(scenario.tables).map(([name, table]) => {
			const columns = new Map(table.columns.map((column) => [column.name, toEntry(column, next++, ids)]))
			return [name, { id: ids.get(name) ?? 0, columns }] as const
		})
	)
	const attributes = Object.keys(scenario.people[0]?.attrs ?? {})
	const numeric = (name: string) =>
		scenario.attrTypes?.[name] === 'number' || scenario.people.some((person) => typeof person.attrs[name] === 'number')
	const peopleColumns = attributes.map((name): ColumnEntry => ({
		id: next++,
		name,
		type: numeric(name) ? 'decimal' : 'text'
	}))
	const now = Date.parse(`${scenario.today}T12:00:00Z`)
	const store = openScratch({
		now,
		tables: tableEntries(tables),
		peopleColumns,
		roles: roleEntries(scenario),
		lines: lineEntries(scenario, tables)
	})
	const world: World = { scenario, store, now, tables, rows: new Map(), people: new Map() }
	addPeople(world, peopleColumns)
	for (const name of Object.keys(scenario.tables)) addRows(world, name)
	addGrants(world)
	return world
}

const TYPES: Readonly<Record<string, ColumnEntry['type']>> = {
	number: 'decimal',
	yesno: 'yes/no',
	date: 'date',
	choice: 'choice',
	reference: 'reference',
	computed: 'computed'
}

function toEntry(column: ScenarioColumn, id: number, tables: ReadonlyMap<string, number>): ColumnEntry {
	const to = column.to === undefined ? {} : { to: tables.get(column.to) ?? 0 }
	return {
		id,
		name: column.name,
		type: TYPES[column.type] ?? 'text',
		...to,
		...(column.choices ? { choices: column.choices } : {}),
		...(column.formula === undefined ? {} : { formula: column.formula })
	}
}

function tableEntries(tables: World['tables']): WorkspaceDocument['tables'] {
	return [...tables].map(([name, { id, columns }]) => {
		const all = [...columns.values()]
		return { id, name, keepers: [KEEPER], label: all[0]?.id ?? 0, columns: all }
	})
}

function roleEntries(scenario: Scenario): WorkspaceDocument['roles'] {
	const number = (name: string) => FIRST_ROLE + scenario.roles.findIndex((role) => role.name === name)
	return scenario.roles.map((role) => ({ id: number(role.name), name: role.name, includes: role.includes.map(number) }))
}

function lineEntries(scenario: Scenario, tables: World['tables']): WorkspaceDocument['lines'] {
	return scenario.lines.map((line, i) => {
		const table = tables.get(line.table)
		const columnIds = (names: readonly string[]) => names.map((name) => table?.columns.get(name)?.id ?? 0)
		const { columns } = line
		return {
			id: `line ${i + 1}`,
			table: table?.id ?? 0,
			role: FIRST_ROLE + scenario.roles.findIndex((role) => role.name === line.role),
			verbs: line.verbs,
			where: line.whereText,
			...(line.afterText === undefined ? {} : { after: line.afterText }),
			columns:
				columns === 'all'
					? { kind: 'all' as const }
					: columns.only
						? { kind: 'only' as const, columns: columnIds(columns.only) }
						: { kind: 'except' as const, columns: columnIds(columns.except ?? []) }
		}
	})
}

function addPeople({ scenario, store, people, now }: World, columns: readonly ColumnEntry[]): void {
	for (const person of scenario.people) {
		const cells: CellChange[] = columns.map((column) => ({
			column: column.id,
			value: person.attrs[column.name] ?? null
		}))
		const row = change(
			store,
			KEEPER,
			{
				kind: 'add',
				table: PEOPLE_TABLE,
				cells: [...cells, { column: 1, value: person.email }, { column: 2, value: person.email }]
			},
			now
		)
		const n = store.ids.fromId(PEOPLE_TABLE, row) ?? 0
		people.set(person.email, n)
		for (const role of person.roles) {
			store.db
				.prepare('INSERT INTO role_held (person, role) VALUES (?, ?)')
				.run(n, FIRST_ROLE + scenario.roles.findIndex((each) => each.name === role))
		}
	}
}

function addRows(world: World, name: string): void {
	const table = world.scenario.tables[name]
	for (const row of table?.rows ?? []) {
		const { id, ...set } = row
		const added = change(
			world.store,
			KEEPER,
			{ kind: 'add', table: tableOf(world, name).id, cells: toCells(world, name, set) },
			world.now
		)
		world.rows.set(id, added)
	}
}

function addGrants({ scenario, store, people, rows, tables }: World): void {
	const grant = store.db.prepare(
		'INSERT OR IGNORE INTO row_grant (person, table_id, row_n, column_id, case_id) VALUES (?, ?, ?, ?, 1)'
	)
	for (const { email, table: name, id, columns } of scenario.grants ?? []) {
		const table = tables.get(name)
		if (!table) throw new Error(`Cannot find table "${name}" in scenario "${scenario.id}"`)
		const n = store.ids.fromId(table.id, rows.get(id) ?? '') ?? 0
		for (const column of columns) grant.run(people.get(email), table.id, n, table.columns.get(column)?.id)
	}
}

function tableOf(world: World, name: string) {
	const table = world.tables.get(name)
	if (!table) throw new Error(`Cannot find table "${name}" in scenario "${world.scenario.id}"`)
	return table
}

function toCells(world: World, tableName: string, set: Record<string, Cell>): CellChange[] {
	return Object.entries(set).map(([name, value]) => {
		const column = tableOf(world, tableName).columns.get(name)
		const input: CellInput =
			column?.type === 'reference' && value !== null ? { id: world.rows.get(String(value)) ?? '' } : value
		return { column: column?.id ?? 0, value: input }
	})
}

function change(store: Store, person: number, wanted: Change, now: number): string {
	const [changed] = store.db.transaction(() =>
		changeRows(store, [wanted], { actor: { person }, now, through: 'grid' })
	)()
	return changed?.row ?? ''
}

function* checkSeen(world: World): Generator<string> {
	const names = new Map([...world.rows].map(([name, id]) => [id, name]))
	for (const [email, tables] of Object.entries(world.scenario.expected)) {
		for (const [tableName, { seen, sumOfAmount, shown: cells }] of Object.entries(tables)) {
			const got = readAll(world, email, tableName)
			const shown = Object.fromEntries(
				got.map((row) => [names.get(row.id) ?? '?', Object.keys(row.cells).sort().join()])
			)
			const columns = tableOf(world, tableName).columns
			const wanted = Object.fromEntries(
				Object.entries(seen).map(([row, cells]) => [
					row,
					cells
						.map((cell) => cellKey(columns.get(cell)?.id ?? 0))
						.sort()
						.join()
				])
			)
			if (JSON.stringify(sortKeys(shown)) !== JSON.stringify(sortKeys(wanted)))
				yield `${email} sees other cells of ${tableName} than expected: ${firstDifference(shown, wanted)}`
			yield* checkPages(world, email, tableName, got.length)
			if (cells) yield* checkCells(world, { email, tableName, cells, got, names })
			if (sumOfAmount === undefined) continue
			const amount = cellKey(columns.get('amount')?.id ?? 0)
			const sum = got.reduce((all, row) => all + Number(row.cells[amount] ?? 0), 0)
			if (sum !== sumOfAmount) yield `${email} totals ${sum} in ${tableName}, expected ${sumOfAmount}`
		}
	}
}

function firstDifference(is: Record<string, string>, wanted: Record<string, string>): string {
	const row = [...new Set([...Object.keys(is), ...Object.keys(wanted)])].find((each) => is[each] !== wanted[each]) ?? ''
	return `${row} shows ${is[row] ?? 'nothing'}, expected ${wanted[row] ?? 'nothing'}`
}

interface ToCheck {
	readonly email: string
	readonly tableName: string
	readonly cells: Record<string, Record<string, ShownCell>>
	readonly got: readonly WireRow[]
	readonly names: ReadonlyMap<string, string>
}

function* checkCells(world: World, { email, tableName, cells, got, names }: ToCheck): Generator<string> {
	const { columns } = tableOf(world, tableName)
	for (const row of got) {
		const name = names.get(row.id) ?? '?'
		for (const [columnName, wanted] of Object.entries(cells[name] ?? {})) {
			const cell = row.cells[cellKey(columns.get(columnName)?.id ?? 0)]
			const is = isReferenceCell(cell) ? { label: cell.label } : (cell ?? null)
			if (JSON.stringify(is) !== JSON.stringify(wanted))
				yield `${email} finds ${JSON.stringify(is)} in ${columnName} of ${name}, expected ${JSON.stringify(wanted)}`
		}
	}
}

const PAGE = 3
const TRIED = 4

/** Page by page, in the order of some columns, somebody meets every row that they see, once, in the order of the whole. */
function* checkPages(world: World, email: string, tableName: string, count: number): Generator<string> {
	const { id: table, columns } = tableOf(world, tableName)
	const actor = { person: world.people.get(email) ?? 0 }
	// Which columns is another question for each person and table: to ask all would be most of the time.
	const tried = [...columns.values()].filter(({ id }) => (id + actor.person + table) % TRIED === 0)
	for (const column of tried) {
		const sort = { column: column.id, descending: column.id % 2 === 0 }
		const whole = readRows(world.store, actor, { table, sort, limit: 1000 }, world.now).rows.map(({ id }) => id)
		const met: string[] = []
		let after: string | undefined
		do {
			const page = readRows(world.store, actor, { table, sort, limit: PAGE, ...(after ? { after } : {}) }, world.now)
			met.push(...page.rows.map(({ id }) => id))
			after = page.next ?? undefined
		} while (after !== undefined && met.length <= count)
		if (met.join() !== whole.join() || met.length !== count)
			yield `${email} pages through ${met.length} rows of ${tableName} by ${column.name}, expected ${count} in one order`
	}
}

function sortKeys(record: Record<string, string>): [string, string][] {
	return Object.entries(record).sort(([a], [b]) => (a < b ? -1 : 1))
}

function readAll(world: World, email: string, tableName: string) {
	const person = world.people.get(email) ?? 0
	return readRows(world.store, { person }, { table: tableOf(world, tableName).id, limit: 1000 }, world.now).rows
}

/** Each attempt starts from the scenario as given: it is rolled back whatever came of it. */
function* checkAttempts(world: World): Generator<string> {
	for (const [i, attempt] of world.scenario.attempts.entries()) {
		const person = world.people.get(attempt.email) ?? 0
		const allowed = isLetThrough(world, person, toChange(world, attempt))
		if (allowed !== attempt.allowed) {
			yield `attempt ${i + 1}, ${attempt.email} ${attempt.verb} ${attempt.table} ${attempt.id ?? ''}: ${allowed ? 'let through' : 'refused'}`
		}
	}
}

function toChange(world: World, attempt: Scenario['attempts'][number]): Change {
	const table = tableOf(world, attempt.table).id
	const cells = toCells(world, attempt.table, attempt.set ?? {})
	const row = world.rows.get(attempt.id ?? '') ?? ''
	if (attempt.verb === 'add') return { kind: 'add', table, cells }
	return attempt.verb === 'change' ? { kind: 'change', table, row, cells } : { kind: 'remove', table, row }
}

function isLetThrough({ store, now }: World, person: number, wanted: Change): boolean {
	store.db.exec('SAVEPOINT attempt')
	try {
		changeRows(store, [wanted], { actor: { person }, now, through: 'grid' })
		return true
	} catch (error) {
		// A row that others still point to is kept by a guard, which is no matter of access.
		if (error instanceof AppError && error.code === 'invalid' && wanted.kind === 'remove') return true
		if (error instanceof AppError) return false
		throw error
	} finally {
		store.db.exec('ROLLBACK TO attempt')
		store.db.exec('RELEASE attempt')
	}
}
