/**
 * What a table is for, from its columns and from what points to it: by it an app made from tables has the screens that fit. The
 * first of the rules that fits holds.
 */
import type { TypeKind } from '../../model/formula.ts'
import type { Column } from '../../model/table.ts'

export interface MadeColumn extends Pick<Column, 'id' | 'name' | 'type' | 'to' | 'required' | 'choices' | 'condition'> {
	/** The type of a computed column's values. */
	readonly shows?: TypeKind
}

/** As much of a table as screens are made from. */
export interface MadeTable {
	readonly id: number
	readonly name: string
	readonly label: number
	/** Whether its rows are the workspace's people. */
	readonly people: boolean
	/** How many its builder sees. */
	readonly rows: number
	readonly columns: readonly MadeColumn[]
}

/**
 * `link`: it only says what goes with what. `lines`: they belong to a row of another table, such as the items of a request.
 * `choices`: few rows that others choose among. `log`: what happened, one row each time. `work`: what is under way.
 */
export type TableClass = 'people' | 'link' | 'lines' | 'choices' | 'log' | 'work' | 'register'

/** So few are chosen among; more are looked for. */
export const FEW = 40

export function classOf(table: MadeTable, all: readonly MadeTable[]): TableClass {
	const { columns } = table
	const needed = columns.filter(({ type, required }) => type === 'reference' && required)
	const isReferred = all.some((other) => other.columns.some(({ to }) => to === table.id))
	if (table.people) return 'people'
	if (needed.length > 1 && needed.length === columns.length) return 'link'
	if (
		needed.length === 1 &&
		!isReferred &&
		!columns.some(isDate) &&
		columns.some(isNumber) &&
		isShownAlone(needed[0], all)
	)
		return 'lines'
	const plain = columns.filter(({ type, condition }) => !condition && type !== 'computed' && type !== 'reference')
	// What falls due is looked after, however few there are.
	if (isReferred && table.rows <= FEW && plain.length <= 4 && !dueOf(table)) return 'choices'
	const state = stateOf(table)
	if (
		!state &&
		needed.length > 0 &&
		columns.some((column) => column.type !== 'computed' && isDate(column) && column.required)
	)
		return 'log'
	const isOwed =
		dueOf(table) && columns.some(({ type }) => type === 'money') && columns.some(({ to }) => to !== undefined)
	return state || isOwed ? 'work' : 'register'
}

/** What a row can be the lines of: a row of a table that has screens, not one of a few choices. */
function isShownAlone(reference: MadeColumn | undefined, all: readonly MadeTable[]): boolean {
	const parent = all.find(({ id }) => id === reference?.to)
	return parent !== undefined && !parent.people && classOf(parent, all) !== 'choices'
}

export function isDate({ type, shows }: MadeColumn): boolean {
	const kind = shows ?? type
	return kind === 'date' || kind === 'date and time' || kind === 'datetime'
}

const NUMBERS: ReadonlySet<string> = new Set(['whole number', 'decimal', 'money', 'percent', 'duration'])

export function isNumber({ type, shows }: MadeColumn): boolean {
	return NUMBERS.has(type) || shows === 'number'
}

/** The choice that says how far a row is. */
export function stateOf({ columns }: MadeTable): MadeColumn | undefined {
	return columns.find(({ type, name }) => type === 'choice' && /\b(state|status|stage|progress)\b/i.test(name))
}

/** The choices of a state with which a row is done with. */
export function closingOf(state: MadeColumn): readonly string[] {
	return (state.choices ?? []).filter((choice) =>
		/^(done|closed?|finished|completed?|cancelled|settled|paid|returned|refused|declined|rejected)\b/i.test(choice)
	)
}

/** The date that something is due by, by its name; `until` beside another date is the end of a span. */
export function dueOf({ columns }: MadeTable): MadeColumn | undefined {
	const dates = columns.filter(isDate)
	const due = dates.find(({ name }) => /\b(due|by|deadline|expires|return)\b/i.test(name))
	return due ?? (dates.length === 1 ? dates.find(({ name }) => /\buntil\b/i.test(name)) : undefined)
}

/** What people call a row by: its name before a bare number or code. */
export function knownBy({ label, columns }: MadeTable): readonly MadeColumn[] {
	const own = columns.find(({ id }) => id === label)
	const isBare = own && (own.type === 'code' || isNumber(own))
	const name = isBare ? columns.find(({ type, name: word }) => type === 'text' && NAMES.test(word)) : undefined
	return [name, own].filter((column) => column !== undefined)
}

const NAMES = /\b(name|title|item|subject|what)\b/i
