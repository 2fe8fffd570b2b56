import type { FunctionEntry } from '../types.ts'
import { ADD_DAYS, DATE_FUNCTIONS, DAYS_BETWEEN } from './dates.ts'
import { TEXT_FUNCTIONS } from './text.ts'

/** Every function on plain values, by name. A new family is one new file and one line here. */
export const FUNCTIONS: ReadonlyMap<string, FunctionEntry> = new Map(
	[...DATE_FUNCTIONS, ...TEXT_FUNCTIONS].map((entry) => [entry.name, entry])
)

/** Functions that the checker turns into nodes of their own, because they are lazy, work on sets or read the clock. */
export const SPECIAL_FUNCTIONS = [
	'IF',
	'AND',
	'OR',
	'NOT',
	'TRUE',
	'FALSE',
	'ISBLANK',
	'IFERROR',
	'TODAY',
	'NOW',
	'FILTER',
	'COUNT',
	'COUNTA',
	'SUM',
	'MIN',
	'MAX',
	'AVERAGE'
] as const

export const FUNCTION_NAMES: readonly string[] = [...FUNCTIONS.keys(), ...SPECIAL_FUNCTIONS]

/** Everything that must be registered with a database before a compiled formula can run there. */
export const REGISTERED: readonly FunctionEntry[] = [...FUNCTIONS.values(), ADD_DAYS, DAYS_BETWEEN]
