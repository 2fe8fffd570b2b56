/** Which tables' changes can change what a line shows: more than those it names, since columns, conditions and access look further. */
import type { Line } from '../access/types.ts'
import { namesIn } from '../formula/check/rename.ts'
import { someNode } from '../formula/syntax/walk.ts'
import { findColumn, type Catalogue, type Column, type Table } from '../model/table.ts'
import type { Expr } from '../model/formula.ts'
import { tableOfStart, type Routine } from '../routine/routine.ts'
import { columnsIn, mapFormulasIn, tablesIn } from '../sentence/walk-line.ts'
import { tableOf } from '../sentence/print.ts'
import { entryOfLine, type ScreenLine } from './lines/all.ts'
import { aroundIn, type AroundLines } from './walk-app.ts'

interface Behind {
	readonly catalogue: Catalogue
	/** The lines of access. */
	readonly lines: readonly Line[]
	readonly routines: readonly Routine[]
}

/** `around`: what the line stands among. */
export function tablesBehind(line: ScreenLine, around: AroundLines, behind: Behind): Set<number> {
	const { catalogue, lines: access, routines } = behind
	const { kind } = entryOfLine(line).sentence
	const within = aroundIn(line, around)
	const table = catalogue.tables.get(within.table ?? 0)
	const found = new Set<number>(tablesIn(kind, line))
	const reach = (column: Column) => addBehindColumn(column, found, new Set())
	for (const id of table ? [...columnsIn(kind, line), table.label] : []) {
		const column = table && findColumn(table, id)
		if (column) reach(column)
	}
	mapFormulasIn(kind, line, (text, own) => {
		for (const use of namesIn(text, { ...within, table: within.table, ...own }, catalogue))
			addUse(use, found, catalogue)
		return text
	})
	const held = tableOf(kind, line, within.table)
	if (held !== undefined) found.add(held)
	const runs = line.kind === 'button' && line.does.kind === 'run' ? line.does.routine : undefined
	for (const { id, start } of routines) {
		const table = tableOfStart(start)
		if (id === runs && table !== undefined) found.add(table)
	}
	for (const each of 'lines' in line ? line.lines : [])
		for (const inner of tablesBehind(each, within, behind)) found.add(inner)
	for (const id of [...found]) addBehindAccess(id, found, access)
	return found
}

type Use = ReturnType<typeof namesIn>[number]

function addUse(use: Use, found: Set<number>, { tables }: Catalogue): void {
	found.add(use.table)
	const table: Table | undefined = tables.get(use.table)
	const column = table && findColumn(table, use.column)
	if (column) addBehindColumn(column, found, new Set())
}

function addBehindColumn(column: Column, found: Set<number>, seen: Set<Column>): void {
	if (seen.has(column)) return
	seen.add(column)
	if (column.to !== undefined) found.add(column.to)
	if (column.computed) addBehindExpr(column.computed.expr, found, seen)
}

function addBehindExpr(expr: Expr, found: Set<number>, seen: Set<Column>): void {
	someNode(expr, (node) => {
		if (node.kind === 'field') {
			found.add(node.table.id)
			addBehindColumn(node.column, found, seen)
		}
		if (node.kind === 'children') found.add(node.backReference.table)
		if (node.kind === 'me') found.add(node.table.id)
		return false
	})
}

/** Who sees a row may depend on rows elsewhere. */
function addBehindAccess(table: number, found: Set<number>, access: readonly Line[]): void {
	for (const { where, after } of access.filter((line) => line.table === table)) {
		addBehindExpr(where, found, new Set())
		if (after) addBehindExpr(after, found, new Set())
	}
}
