/**
 * Builds what the program works with from the workspace document: tables with their back-references, computed
 * columns and access lines as checked trees.
 *
 * A formula that no longer holds (its column was removed) gives an issue and, in an access line, a line that lets
 * nobody in: a mistake can only take away.
 */
import { type Scope } from '../formula/check/check-call.ts'
import { check, checkCondition } from '../formula/check/check.ts'
import * as issues from '../formula/syntax/issues.ts'
import { withRollups } from '../formula/sql/rollups.ts'
import type { Expr, Issue } from '../model/formula.ts'
import { isVolatile, readsOwnRowOnly, someNode } from '../formula/syntax/walk.ts'
import { NOTHING, EVERYTHING } from '../access/rights.ts'
import { columnsComparedWithMe, decidingColumns, markedColumns, type DecidingColumn } from '../access/deciding.ts'
import type { Line, Role } from '../access/types.ts'
import {
	getColumn,
	getTable,
	type Catalogue,
	type Column,
	type Computed,
	type BackReference,
	type Table
} from '../model/table.ts'
import { BRITISH, type Conventions } from '../model/writing.ts'
import { conventionsOf } from '../table/conventions.ts'
import type { ColumnEntry, LineEntry, RoleEntry, TableEntry, WorkspaceDocument } from './document.ts'

export interface Workspace {
	readonly name: string
	readonly timeZone: string
	readonly writing: Conventions
	readonly catalogue: Catalogue
	readonly roles: readonly Role[]
	readonly lines: readonly Line[]
	/** Columns that lines and roles read, of all tables. */
	readonly deciding: readonly DecidingColumn[]
	/** Columns of people that only who may grant changes. */
	readonly marked: ReadonlySet<number>
	readonly issues: readonly PlacedIssue[]
}

export interface PlacedIssue extends Issue {
	/** A column's id, a line's, or a role's. */
	readonly place:
		| { readonly column: number }
		| { readonly line: string; readonly part: 'where' | 'after' }
		| { readonly role: number }
}

/** Where the workspace is, and how they write there. */
interface Place {
	readonly timeZone: string
	readonly writing?: Conventions
}

type Building<T> = { -readonly [K in keyof T]: T[K] }

/** The tables, roles and lines of a document, each formula checked once; what does not work any more is told beside them. */
export function buildWorkspace(document: WorkspaceDocument): Workspace {
	const found: PlacedIssue[] = []
	const place = { timeZone: document.timeZone, writing: conventionsOf(document.locale) }
	const tables = new Map<number, Table>(document.tables.map((entry) => [entry.id, toTable(entry, place)]))
	addBackReferences(tables)
	const people = tables.get(document.people)
	if (!people) throw new Error(`Cannot find the people table "${document.people}"`)
	const catalogue: Catalogue = { tables, people, ...place }
	addComputed(document, catalogue, found)
	addRules(document, catalogue, found)
	const lines = document.lines.map((entry) => toLine(entry, catalogue, found))
	// While it is built; nobody else holds it yet.
	for (const table of tables.values()) (table as Building<Table>).comparedWithMe = columnsComparedWithMe(table, lines)
	const roles = document.roles.map((entry) => toRole(entry, catalogue, found))
	const deciding = decidingColumns(lines, roles)
	return {
		name: document.name,
		...place,
		catalogue,
		roles,
		lines,
		deciding,
		marked: markedColumns(people, deciding),
		issues: found
	}
}

function toTable(entry: TableEntry, place: Place): Table {
	const { id, name, keepers, label } = entry
	const about = entry.about === undefined ? {} : { about: entry.about }
	return {
		id,
		name,
		keepers,
		label,
		...about,
		checks: [],
		columns: entry.columns.map((column) => toColumn(column, place)),
		backReferences: []
	}
}

/** A column as its entry says, without its formulas. */
export function toColumn(entry: ColumnEntry, { timeZone, writing = BRITISH }: Place): Column {
	const { formula: _text, vouched: _vouched, otherwise: _otherwise, ...plain } = entry
	const zone = entry.type === 'date and time' || entry.type === 'computed' ? { timeZone } : {}
	// What a document says of a column, its formulas apart, is a column.
	return {
		...Object.fromEntries(Object.entries(plain).filter(([, value]) => value !== undefined)),
		...zone,
		...(writing === BRITISH ? {} : { writing })
	} as unknown as Column
}

function addBackReferences(tables: ReadonlyMap<number, Table>): void {
	for (const table of tables.values()) {
		for (const column of table.columns) {
			const target = column.type === 'reference' ? tables.get(column.to ?? 0) : undefined
			if (!target) continue
			const backReference: BackReference = {
				name: reverseName(table, column, target),
				table: table.id,
				column: column.id
			}
			// While it is built; nobody else holds it yet.
			;(target as Building<Table>).backReferences = [...target.backReferences, backReference]
		}
	}
}

/** `inspections`, or `inspections by diver` when a second reference of that table points here. */
function reverseName(table: Table, column: Column, target: Table): string {
	if (column.reverseName) return column.reverseName
	const plain = table.name.toLowerCase()
	const taken = [...target.columns, ...target.backReferences].some((each) => each.name.toLowerCase() === plain)
	return taken ? `${plain} by ${column.name.toLowerCase()}` : plain
}

/** Checks computed columns in the order of their dependence; those in a circle get an issue with its path. */
function addComputed(document: WorkspaceDocument, catalogue: Catalogue, found: PlacedIssue[]): void {
	const entries = new Map(
		document.tables.flatMap((table) => table.columns.map((column) => [column.id, { table, column }]))
	)
	const done = new Set<number>()
	const path: number[] = []

	const visit = (id: number): void => {
		const entry = entries.get(id)
		if (!entry || entry.column.type !== 'computed' || done.has(id)) return
		path.push(id)
		const table = catalogue.tables.get(entry.table.id)
		const column = table?.columns.find((each) => each.id === id)
		if (!table || !column) throw new Error(`Cannot find column "${id}" while building`)
		settle(entry.column, column, table)
		path.pop()
		done.add(id)
	}

	/** Names are resolved with what is known; a computed column that was met unfinished is visited first, then again. */
	const settle = (entry: ColumnEntry, column: Column, table: Table): void => {
		const scope: Scope = { catalogue, rows: [table], me: true }
		const text = entry.formula ?? ''
		let checked = check(text, scope)
		for (const needed of checked.expr ? unfinished(checked.expr) : mentioned(text, catalogue)) {
			if (done.has(needed)) continue
			if (path.includes(needed)) {
				const names = [...path.slice(path.indexOf(needed)), needed].map((each) => entries.get(each)?.column.name ?? '')
				found.push({ ...issues.circle(names, { from: 0, to: text.length }), place: { column: column.id } })
				return
			}
			visit(needed)
		}
		checked = check(text, scope)
		if (!checked.expr) found.push(...checked.issues.map((each) => ({ ...each, place: { column: column.id } })))
		else if (entry.condition && checked.expr.type.kind !== 'yesno')
			found.push({ ...issues.noCondition(entry.name, { from: 0, to: text.length }), place: { column: column.id } })
		// While it is built; nobody else holds it yet.
		else (column as Building<Column>).computed = toComputed(entry, checked.expr)
	}

	const unfinished = (expr: Expr): number[] => {
		const needed: number[] = []
		someNode(expr, (node) => {
			if (node.kind === 'field' && node.column.type === 'computed' && !node.column.computed) needed.push(node.column.id)
			return false
		})
		return needed
	}

	for (const id of entries.keys()) visit(id)
}

/** Checks of tables, and what new rows get: they may read any column, so they come after the computed ones. */
function addRules(document: WorkspaceDocument, catalogue: Catalogue, found: PlacedIssue[]): void {
	for (const entry of document.tables) {
		const table = getTable(catalogue, entry.id)
		const scope: Scope = { catalogue, rows: [table], me: true }
		const checks = (entry.checks ?? []).flatMap(({ formula, message }) => {
			const { expr, issues: wrong } = checkCondition(formula, scope)
			found.push(...wrong.map((each) => ({ ...each, place: { column: table.label } })))
			return expr ? [{ expr, message }] : []
		})
		// While it is built; nobody else holds it yet.
		;(table as Building<Table>).checks = checks
		for (const { id, otherwise } of entry.columns) {
			if (otherwise === undefined || otherwise.trim() === '') continue
			const { expr, issues: wrong } = check(otherwise, scope)
			found.push(...wrong.map((each) => ({ ...each, place: { column: id } })))
			// While it is built; nobody else holds it yet.
			if (expr) (getColumn(table, id) as Building<Column>).otherwise = { text: otherwise, expr }
		}
	}
}

/** Computed columns of any table whose name stands in a formula that could not be checked yet. */
function mentioned(text: string, catalogue: Catalogue): number[] {
	const lower = text.toLowerCase()
	const columns = [...catalogue.tables.values()].flatMap((table) => table.columns)
	return columns
		.filter((column) => column.type === 'computed' && !column.computed && lower.includes(column.name.toLowerCase()))
		.map((column) => column.id)
}

function toComputed({ id, formula = '', vouched = false }: ColumnEntry, expr: Expr): Computed {
	const stored = readsOwnRowOnly(expr) && !isVolatile(expr)
	return { text: formula, expr: stored ? expr : withRollups(expr, id), stored, vouched }
}

/** A role's condition is over the person's own row; it may not vary by itself, so that nobody gains a right overnight. */
function toRole(entry: RoleEntry, catalogue: Catalogue, found: PlacedIssue[]): Role {
	const { id, name, includes } = entry
	if ((entry.where ?? '').trim() === '') return { id, name, includes }
	const checked = checkCondition(entry.where ?? '', { catalogue, rows: [catalogue.people], me: false })
	const place = { role: id }
	found.push(...checked.issues.map((each) => ({ ...each, place })))
	if (checked.expr && isVolatile(checked.expr))
		found.push({ ...issues.variesByItself({ from: 0, to: (entry.where ?? '').length }), place })
	return { id, name, includes, where: checked.expr ?? NOTHING }
}

function toLine(entry: LineEntry, catalogue: Catalogue, found: PlacedIssue[]): Line {
	const table = catalogue.tables.get(entry.table)
	const read = (text: string, part: 'where' | 'after'): Expr => {
		if (text.trim() === '') return EVERYTHING
		const checked = table
			? checkCondition(text, { catalogue, rows: [table], me: true })
			: { expr: undefined, issues: [] }
		found.push(...checked.issues.map((each) => ({ ...each, place: { line: entry.id, part } })))
		return checked.expr ?? NOTHING
	}
	const { id, role, verbs, columns } = entry
	const line = { id, table: entry.table, role, verbs, where: read(entry.where, 'where'), columns }
	return entry.after === undefined ? line : { ...line, after: read(entry.after, 'after') }
}
