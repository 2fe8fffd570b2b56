/**
 * Prints a formula anew after columns, tables or sets were renamed, and tells what a formula reads.
 *
 * Only the names change: brackets, spaces and the way of writing stay the builder's.
 */
import { findColumn, type Catalogue, type Table } from '../../model/table.ts'
import { nameKey, textKey } from '../../text/key.ts'
import { columnType } from './column-type.ts'
import type { Here, NameUse, Scope } from './check-call.ts'
import { check } from './check.ts'
import { tokenize } from '../syntax/tokens.ts'
import type { Expr, Type } from '../../model/formula.ts'
import { isSameTree } from '../syntax/walk.ts'

/** What is held under a name: a row of a table, a value of one of its columns, or a value of a type. */
export type HeldKind =
	| { readonly table: number }
	| { readonly table: number; readonly column: number }
	| { readonly type: 'text' | 'number' | 'date' | 'yesno' }

/** Where a formula stands: the table of its row, if it stands over one, and whether somebody looks. */
export interface Standing {
	readonly table: number | undefined
	readonly me: boolean
	/** The table of the row around it, which it reaches as `this`. */
	readonly outer?: number | undefined
	/** What its screen holds, by name. */
	readonly here?: Readonly<Record<string, HeldKind>> | undefined
	/** A reference of its table: it stands on the rows that this may name, and its own row is `this`. */
	readonly through?: number | undefined
}

/**
 * The formula as it must be written under new names, meaning what it meant; undefined where no way of writing it does. A
 * formula that had mistakes before is left as it stands.
 */
export function renameIn(text: string, standing: Standing, before: Catalogue, after: Catalogue): string | undefined {
	const was = readNames(text, standing, before)
	if (!was.expr) return text
	const ways: readonly ((use: NameUse, name: string | undefined) => string)[] = [
		(use, name) => printUse(text, use, name, printName),
		(use, name) => printUse(text, use, name, quoteName),
		// A new name may be read where two old ones stand side by side.
		(use, name) => quoteName(name ?? plainName(text, use))
	]
	for (const print of ways) {
		const printed = replaceNames(text, was.names, (use) => print(use, nameOf(use, after)))
		const { expr } = readNames(printed, standing, after)
		if (expr && isSameTree(expr, was.expr)) return printed
	}
	return undefined
}

/** Every name that stands in a formula, in the order of its text; a formula with mistakes has none. */
export function namesIn(text: string, standing: Standing, catalogue: Catalogue): readonly NameUse[] {
	return readNames(text, standing, catalogue).names
}

function readNames(
	text: string,
	standing: Standing,
	catalogue: Catalogue
): { expr: Expr | undefined; names: readonly NameUse[] } {
	const found = new Map<number, NameUse>()
	const onName = (use: NameUse) => void found.set(use.span.from, use)
	const { expr } = check(text, { ...scopeOf(standing, catalogue), onName })
	// What was met on the way to a mistake says nothing certain.
	return { expr, names: expr ? [...found.values()].sort((a, b) => a.span.from - b.span.from) : [] }
}

/** What a formula that stands so is checked in. */
export function scopeOf(standing: Standing, catalogue: Catalogue): Scope {
	return { catalogue, rows: rowsOf(standing, catalogue), me: standing.me, here: hereIn(standing.here, catalogue) }
}

/** What a screen holds as it is checked, before anything is chosen. */
export function hereIn(here: Standing['here'], catalogue: Catalogue): Here | undefined {
	if (here === undefined) return undefined
	const known = Object.entries(here).flatMap(([name, kind]) => {
		const type = typeOfHeld(kind, catalogue)
		return type ? [[nameKey(name), { type, value: null }] as const] : []
	})
	return new Map(known)
}

/** Undefined where its table or column is gone. */
export function typeOfHeld(held: HeldKind, catalogue: Catalogue): Type | undefined {
	if ('type' in held) return { kind: held.type }
	const table = catalogue.tables.get(held.table)
	if (!table || !('column' in held)) return table && { kind: 'row', table }
	const column = findColumn(table, held.column)
	return column && columnType(catalogue, column)
}

/** The rows in reach of a formula that stands so; none where its table is gone, or was never here. */
function rowsOf({ table, outer, through }: Standing, catalogue: Catalogue): Table[] {
	if (table === undefined) return []
	const own = catalogue.tables.get(table)
	const around = outer === undefined ? undefined : catalogue.tables.get(outer)
	if (!own || (outer !== undefined && !around)) return []
	const rows = around ? [around, own] : [own]
	const target = through === undefined ? undefined : catalogue.tables.get(findColumn(own, through)?.to ?? 0)
	return target ? [...rows, target] : rows
}

function replaceNames(text: string, names: readonly NameUse[], print: (use: NameUse) => string): string {
	let printed = ''
	let at = 0
	for (const use of names) {
		printed += text.slice(at, use.span.from) + print(use)
		at = use.span.to
	}
	return printed + text.slice(at)
}

function nameOf(use: NameUse, catalogue: Catalogue): string | undefined {
	const table: Table | undefined = catalogue.tables.get(use.table)
	if (use.kind === 'column') return table?.columns.find((column) => column.id === use.column)?.name
	return table?.backReferences.find((backReference) => backReference.column === use.column)?.name
}

/** A name that still is what it was stays as the builder wrote it. */
function printUse(text: string, { span }: NameUse, name: string | undefined, print: (name: string) => string): string {
	const written = text.slice(span.from, span.to)
	return name === undefined || textKey(plainName(text, { span })) === textKey(name) ? written : print(name)
}

/** What is written, without its quotes. */
function plainName(text: string, { span }: Pick<NameUse, 'span'>): string {
	const written = text.slice(span.from, span.to)
	return written
		.replace(/^'(.*)'$/s, '$1')
		.replaceAll("''", "'")
		.replace(/\s+/g, ' ')
}

/** A name as it may stand in a formula: in single quotes only where it would be misread. */
export function printName(name: string): string {
	const { tokens, issues } = tokenize(name)
	const [first, end] = tokens
	const plain = issues.length === 0 && first?.kind === 'name' && end?.kind === 'end' && first.text === name
	return plain ? name : quoteName(name)
}

function quoteName(name: string): string {
	return `'${name.replaceAll("'", "''")}'`
}
