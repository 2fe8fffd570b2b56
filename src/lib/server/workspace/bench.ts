/** What a builder reads on the Bench: the tables they may know of, their structure, and what lines of access come to. */
import { AppError } from '$lib/core/app-error.ts'
import { isNever, rightsOf, type Reader, type Rights } from '$lib/core/access/rights.ts'
import type { Line } from '$lib/core/access/types.ts'
import { checkCondition } from '$lib/core/formula/check.ts'
import { fold } from '$lib/core/formula/fold.ts'
import type { NamedColumn, Vocabulary } from '$lib/core/sentence/types.ts'
import { buildWorkspace } from '$lib/core/workspace/catalogue.ts'
import { lineSchema, type LineEntry, type WorkspaceDocument } from '$lib/core/workspace/document.ts'
import type { Expr, Issue } from '$lib/core/formula/types.ts'
import { getTable, type Column, type Table } from '$lib/core/table/types.ts'
import { describePerson } from '../people/accounts.ts'
import { momentAt, standingOf, type Actor } from '../people/rights-of-actor.ts'
import { readPersonRow, rolesOf } from '../people/roles-held.ts'
import { describeColumns, type ShownColumn } from '../rows/describe-columns.ts'
import { countUnder } from '../rows/read.ts'
import type { Store } from '../store.ts'
import { getKeptTable } from './kept-table.ts'
import { refuseUnheldLines } from './tables.ts'

export interface BenchTable {
	readonly id: number
	readonly name: string
	readonly kept: boolean
	/** Whether its rows are the workspace's people. */
	readonly people: boolean
	readonly label: number
	readonly rows: number
	/** Whether this person may add rows at all. */
	readonly mayAdd: boolean
	readonly columns: readonly ShownColumn[]
	readonly reverses: readonly string[]
	readonly source: { readonly file: string; readonly sheet?: string; readonly at: number } | null
	readonly about: string
	/** For keepers: what must hold of every row, and the columns that were taken out and can be put back. */
	readonly checks: readonly { readonly formula: string; readonly message: string }[]
	readonly removed: readonly { readonly id: number; readonly name: string; readonly at: number }[]
}

const COUNT_LIMIT = 1_000_001
/** Lists of tables count no further; the grid itself says how many rows there are. */
const LISTED = 10_001

export interface Asking {
	readonly actor: Actor
	readonly now: number
}

/** The tables that this builder keeps or may see something of, with as much of each. */
export function listTables(store: Store, { actor, now }: Asking): BenchTable[] {
	const workspace = store.workspace()
	const { rights } = standingOf(store, actor, now)
	return [...workspace.catalogue.tables.values()].flatMap((table) => {
		const kept = table.keepers.includes(actor.person)
		if (!kept && isNever(rights.rows(table))) return []
		const visible = table.columns.filter((column) => !isNever(rights.cell(table, column)))
		const entry = workspace.document.tables.find((each) => each.id === table.id)
		const source =
			entry?.source && kept
				? { file: entry.source.file, at: entry.source.at, ...(entry.source.sheet ? { sheet: entry.source.sheet } : {}) }
				: null
		const shown = describeColumns(
			table,
			visible.map((column) => column.id),
			kept
		)
		const reverses = table.reverses.map((each) => each.name)
		return [
			{
				id: table.id,
				name: table.name,
				kept,
				people: table === workspace.catalogue.people,
				label: table.label,
				rows: countUnder(store, rights, { table, where: [], limit: LISTED }),
				mayAdd: rights.mayPossibly('add', table),
				columns: shown,
				reverses,
				source,
				about: table.about ?? '',
				checks: kept ? (entry?.checks ?? []) : [],
				removed: kept ? (entry?.removed ?? []).map(({ column, at }) => ({ id: column.id, name: column.name, at })) : []
			}
		]
	})
}

function countSeen(store: Store, table: Table, rights: Rights): number {
	return countUnder(store, rights, { table, where: [], limit: COUNT_LIMIT })
}

/** The names that sentences on the Bench may use. */
export function vocabularyOf(store: Store, tables: readonly BenchTable[]): Pick<Vocabulary, 'tables' | 'roles'> {
	return {
		tables: tables.map(({ id, name, columns }) => ({ id, name, columns: columns.map(toNamed) })),
		roles: store.workspace().document.roles.map(({ id, name }) => ({ id, name }))
	}
}

function toNamed({ id, name, type, shows, to, condition }: ShownColumn): NamedColumn {
	return {
		id,
		name,
		type,
		...(shows === undefined ? {} : { shows }),
		...(to === undefined ? {} : { to }),
		...(condition ? { condition } : {})
	}
}

export interface PersonCount {
	readonly person: number
	readonly name: string
	readonly roles: readonly string[]
	readonly seen: number
	readonly before: number
	readonly change: number
	/** Names of columns that this person sees on no row. */
	readonly keptBack: readonly string[]
}

export interface AccessSheet {
	readonly version: number
	readonly lines: readonly LineEntry[]
	readonly people: readonly PersonCount[]
	/** For each line: how many people hold its role, and the least and most rows that it gives one of them. */
	readonly comesTo: readonly {
		readonly id: string
		readonly people: number
		readonly least: number
		readonly most: number
	}[]
	readonly issues: readonly (Issue & { readonly line: string; readonly part: string })[]
}

/** What the lines of a table come to, person by person; with `draft`, what unsaved ones would. */
export function readAccess(
	store: Store,
	{ table: id, draft, actor, now }: Asking & { table: number; draft?: unknown }
): AccessSheet {
	getKeptTable(store, id, actor)
	const workspace = store.workspace()
	const saved = workspace.document.lines.filter((line) => line.table === id)
	const lines = draft === undefined ? saved : parseDraft(draft)
	if (draft !== undefined) refuseUnheldLines(store, lines, { table: id, actor, now })
	const document: WorkspaceDocument = {
		...workspace.document,
		lines: [...workspace.document.lines.filter((line) => line.table !== id), ...lines]
	}
	const next = draft === undefined ? workspace : buildWorkspace(document)
	const table = getTable(next.catalogue, id)
	const issues = next.issues.flatMap((each) =>
		'line' in each.place ? [{ ...each, line: each.place.line, part: each.place.part }] : []
	)
	const { rights: keeper } = standingOf(store, actor, now)
	const people = everybody(store).map((person) => {
		const before = rightsFor(store, person, workspace.lines, now)
		const after = draft === undefined ? before : rightsFor(store, person, next.lines, now)
		return { person, before, after }
	})
	return {
		version: workspace.version,
		lines,
		people: people.map(({ person, before, after }) => countFor(store, { table, keeper, person, before, after })),
		comesTo: lines.map((line) =>
			lineComesTo(store, { line, table, keeper, people: people.map((each) => each.person), lines: next.lines, now })
		),
		issues
	}
}

function parseDraft(draft: unknown): LineEntry[] {
	const parsed = lineSchema.array().max(200).safeParse(draft)
	if (!parsed.success) throw new AppError('invalid', 'A line still has a gap: choose a role and what it may do.')
	return parsed.data
}

function everybody(store: Store): number[] {
	const { people } = store.workspace().catalogue
	return store.prepare(`SELECT n FROM t${people.id} ORDER BY c${people.label}k LIMIT 200`).pluck().all() as number[]
}

/** Another person's rights under other lines. Counted for keepers only, who see every row of the table anyhow. */
function rightsFor(store: Store, person: number, lines: readonly Line[], now: number): Rights {
	const { timeZone } = store.workspace()
	const me = readPersonRow(store, person)
	const reader: Reader = {
		person,
		roles: rolesOf(store, person, me),
		grants: new Set(),
		keeps: (table) => table.keepers.includes(person)
	}
	return rightsOf(reader, lines, { ...momentAt(timeZone, now), ...(me ? { me } : {}) })
}

interface Counted {
	readonly table: Table
	/** Of whoever asks, and keeps the table: everything in it. */
	readonly keeper: Rights
	readonly person: number
	readonly before: Rights
	readonly after: Rights
}

function countFor(store: Store, { table, keeper, person, before, after }: Counted): PersonCount {
	const who = describePerson(store, person)
	const change = after.of('change', table).map((right) => right.where)
	const may: Expr = { kind: 'or', args: change, type: { kind: 'yesno' } }
	const hidden = (column: Column) => isNever(after.cell(table, column))
	return {
		person,
		name: who?.name ?? '',
		roles: who?.roleNames ?? [],
		seen: countSeen(store, table, after),
		before: countSeen(store, table, before),
		change: change.length === 0 ? 0 : countUnder(store, keeper, { table, where: [may], limit: COUNT_LIMIT }),
		keptBack: table.columns.filter(hidden).map((column) => column.name)
	}
}

interface OneLine {
	readonly line: LineEntry
	readonly table: Table
	/** Of whoever asks, and keeps the table: everything in it. */
	readonly keeper: Rights
	readonly people: readonly number[]
	readonly lines: readonly Line[]
	readonly now: number
}

function lineComesTo(
	store: Store,
	{ line, table, keeper, people, lines, now }: OneLine
): AccessSheet['comesTo'][number] {
	const checked = lines.find((each) => each.id === line.id && each.table === table.id)
	const { timeZone } = store.workspace()
	const counts: number[] = []
	for (const person of people) {
		const me = readPersonRow(store, person)
		if (!checked || !rolesOf(store, person, me).has(line.role)) continue
		const where = fold(checked.where, { ...momentAt(timeZone, now), ...(me ? { me } : {}) })
		counts.push(countUnder(store, keeper, { table, where: [where], limit: COUNT_LIMIT }))
	}
	return {
		id: line.id,
		people: counts.length,
		least: counts.length > 0 ? Math.min(...counts) : 0,
		most: Math.max(0, ...counts)
	}
}

export interface FormulaTrial {
	readonly ok: boolean
	readonly issues: readonly Issue[]
	/** For a condition: how many rows it holds for, of those that the builder sees. */
	readonly rows?: number
	readonly of?: number
	/** How many each of the asked people would see of them. */
	readonly people?: readonly { readonly name: string; readonly rows: number }[]
}

/** Tries a condition on a table, as the builder may see it, and as a few others would. */
export function tryCondition(
	store: Store,
	asked: Asking & { table: number; text: string; people: readonly number[]; me: boolean }
): FormulaTrial {
	const { table: id, text, people, actor, now, me } = asked
	const { catalogue } = store.workspace()
	const { rights, moment } = standingOf(store, actor, now)
	const table = catalogue.tables.get(id)
	if (!table || isNever(rights.rows(table))) return { ok: false, issues: [] }
	const { expr, issues } = checkCondition(text === '' ? 'TRUE' : text, { catalogue, rows: [table], me })
	if (!expr) return { ok: false, issues }
	const count = (sight: Rights, at: typeof moment): number =>
		countUnder(store, sight, { table, where: [fold(expr, at)], limit: COUNT_LIMIT })
	const kept = table.keepers.includes(actor.person)
	const others = kept ? people : []
	return {
		ok: true,
		issues: [],
		rows: count(rights, moment),
		of: countSeen(store, table, rights),
		people: others.flatMap((person) => {
			const name = describePerson(store, person)?.name
			const standing = standingOf(store, { person }, now)
			return name === undefined ? [] : [{ name, rows: count(standing.rights, standing.moment) }]
		})
	}
}

/** People whom a builder can look as: everybody, by name and role. */
export function listPeople(store: Store): { person: number; name: string; roles: readonly string[] }[] {
	return everybody(store).flatMap((person) => {
		const who = describePerson(store, person)
		return who ? [{ person, name: who.name, roles: who.roleNames }] : []
	})
}
