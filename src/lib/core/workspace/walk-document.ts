/** Goes through the workspace document: every formula in it, and every column that a line names by number. */
import type { Standing } from '../formula/check/rename.ts'
import type { ColumnEntry, LineEntry, WorkspaceDocument } from './document.ts'

/** @param place what holds the formula, as a person would call it */
export type MapFormula = (text: string, standing: Standing, place: string) => string

/** The document with every formula mapped; blank ones are left. */
export function mapFormulas(document: WorkspaceDocument, map: MapFormula): WorkspaceDocument {
	const at = (table: number, place: string) => (text: string) =>
		text.trim() === '' ? text : map(text, { table, me: true }, place)
	const tables = document.tables.map((table) => ({
		...table,
		columns: table.columns.map((column) => mapColumn(column, at(table.id, `${table.name}, ${column.name}`))),
		...(table.checks
			? {
					checks: table.checks.map((check) => ({
						...check,
						formula: at(table.id, `A check of ${table.name}`)(check.formula)
					}))
				}
			: {})
	}))
	const lines = document.lines.map((line) => {
		const name = document.tables.find((table) => table.id === line.table)?.name ?? ''
		const own = at(line.table, `A line of access to ${name}`)
		return { ...line, where: own(line.where), ...(line.after === undefined ? {} : { after: own(line.after) }) }
	})
	const roles = document.roles.map((role) => {
		if ((role.where ?? '').trim() === '') return role
		const standing = { table: document.people, me: false }
		return { ...role, where: map(role.where ?? '', standing, `The role ${role.name}`) }
	})
	return { ...document, tables, lines, roles }
}

function leftOf(line: LineEntry, column: number): number[] {
	return line.columns.kind === 'except' ? [column] : []
}

function mapColumn(column: ColumnEntry, map: (text: string) => string): ColumnEntry {
	return {
		...column,
		...(column.formula === undefined ? {} : { formula: map(column.formula) }),
		...(column.otherwise === undefined ? {} : { otherwise: map(column.otherwise) })
	}
}

/**
 * The document with the columns that lines and rules name mapped. A column that goes is taken out of what a line grants,
 * but stays among what a line keeps back: put back one day, it must not be shown to those it was kept from.
 */
export function mapLineColumns(
	document: WorkspaceDocument,
	map: (column: number) => number | undefined
): WorkspaceDocument {
	const lines = document.lines.map((line) =>
		line.columns.kind === 'all'
			? line
			: {
					...line,
					columns: { ...line.columns, columns: line.columns.columns.flatMap((each) => map(each) ?? leftOf(line, each)) }
				}
	)
	const tables = document.tables.map((table) => ({
		...table,
		columns: table.columns.map((column) => withinMapped(column, map))
	}))
	return { ...document, tables, lines }
}

/** Uniqueness within a column that goes has no meaning any more, and none without it was asked for. */
function withinMapped(column: ColumnEntry, map: (column: number) => number | undefined): ColumnEntry {
	if (column.uniqueWithin === undefined) return column
	const { uniqueWithin, unique: _unique, ...rest } = column
	const within = map(uniqueWithin)
	if (within === uniqueWithin) return column
	return within === undefined ? rest : { ...rest, unique: true, uniqueWithin: within }
}
