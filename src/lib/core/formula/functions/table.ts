import type { FunctionEntry, FunctionNote } from '../../model/formula.ts'
import { ADD_DAYS, DATE_FUNCTIONS } from './dates.ts'
import { DAY_COUNT_FUNCTIONS } from './day-counts.ts'
import { TEXT_OF_DATE, TEXT_OF_MOMENT, TEXT_OF_NUMBER, TEXT_OF_TEXT } from './format-text.ts'
import { MONEY_FUNCTIONS } from './money-over-time.ts'
import { SPECIAL_NOTES } from './notes.ts'
import { NUMBER_FUNCTIONS } from './numbers.ts'
import { READING_FUNCTIONS } from './read-text.ts'
import { ROUNDING_FUNCTIONS } from './rounding.ts'
import { STATISTIC_FUNCTIONS } from './statistics.ts'
import { TEXT_FUNCTIONS } from './text.ts'
import { ADD_TIME, DATE_OF_MOMENT, TIME_BETWEEN, TIME_FUNCTIONS, TIME_OF_MOMENT } from './times.ts'
import { FITS } from './wildcards.ts'

/** Every function on values, by name. A new family is one new file and one line here. */
export const FUNCTIONS: ReadonlyMap<string, FunctionEntry> = new Map(
	[
		...NUMBER_FUNCTIONS,
		...ROUNDING_FUNCTIONS,
		...TEXT_FUNCTIONS,
		...READING_FUNCTIONS,
		TEXT_OF_NUMBER,
		FITS,
		...DATE_FUNCTIONS,
		...DAY_COUNT_FUNCTIONS,
		...TIME_FUNCTIONS,
		...STATISTIC_FUNCTIONS,
		...MONEY_FUNCTIONS
	].map((entry) => [entry.name, entry])
)

/** What there is to write, with what is said about each: those above and those that the checker knows by itself. */
export const FUNCTION_NOTES: readonly FunctionNote[] = [...SPECIAL_NOTES, ...FUNCTIONS.values()]

export const FUNCTION_NAMES: readonly string[] = FUNCTION_NOTES.map((note) => note.name)

/** Everything that must be registered with a database before a compiled formula can run there. */
export const REGISTERED: readonly FunctionEntry[] = [
	...FUNCTIONS.values(),
	ADD_DAYS,
	ADD_TIME,
	DATE_OF_MOMENT,
	TEXT_OF_DATE,
	TEXT_OF_MOMENT,
	TEXT_OF_TEXT,
	TIME_BETWEEN,
	TIME_OF_MOMENT
]

/** Functions of OpenFormula that need a grid of cells, and what serves here instead. */
export const GRID_FUNCTIONS: ReadonlyMap<string, string> = new Map([
	['VLOOKUP', 'Make the column a reference and follow it with a dot: harbour.name.'],
	['HLOOKUP', 'Make the column a reference and follow it with a dot: harbour.name.'],
	['LOOKUP', 'Make the column a reference and follow it with a dot: harbour.name.'],
	['INDEX', 'Take a row of a set with FIRST(SORT(set; key)).'],
	['MATCH', 'Ask whether a value is in a set with "in", or find a row with FIRST(FILTER(set; condition)).'],
	['OFFSET', 'Choose rows of a set with FILTER(set; condition).'],
	['INDIRECT', 'Name the column itself, or follow a reference with a dot.'],
	['ADDRESS', 'Cells have no addresses here: name the column.'],
	['ROW', 'Rows have no numbers here: give the table a numbering column.'],
	['COLUMN', 'Columns are known by their names.'],
	['ROWS', 'Count the rows of a set with COUNT(set).'],
	['COLUMNS', 'Columns are known by their names.'],
	['AREAS', 'Sets of rows come from references: inspections, or FILTER(inspections; condition).'],
	['SUBTOTAL', 'Total a set with SUM, COUNT or AVERAGE over FILTER(set; condition).'],
	['SUMPRODUCT', 'Put the product into a column of the rows, and SUM that.'],
	['TRANSPOSE', 'Sets have no direction here.'],
	['MMULT', 'Put the product into a column of the rows, and SUM that.'],
	['FREQUENCY', 'Count each part with COUNT(FILTER(set; condition)).'],
	['GETPIVOTDATA', 'Total a set with SUM over FILTER(set; condition).'],
	['HYPERLINK', 'Give the column the type web address.']
])
