/** What is said about the functions that the checker turns into nodes of their own: lazy ones, totals, the clock. */
import type { Family, FunctionNote } from '../../model/formula.ts'

type Note = readonly [
	name: string,
	signature: string,
	doc: string,
	...examples: (readonly [formula: string, shows: string])[]
]

const LOGIC: readonly Note[] = [
	[
		'IF',
		'IF(test; then; [else])',
		'One value or another; the other is not worked out.',
		['IF(2 > 1; "deep"; "shallow")', 'deep']
	],
	[
		'IFS',
		'IFS(test; then; test; then; …)',
		'The value after the first test that is true; #N/A where none is.',
		['IFS(1 > 2; "a"; TRUE; "b")', 'b']
	],
	[
		'SWITCH',
		'SWITCH(value; case; result; …; [else])',
		'The result after the case that equals the value.',
		['SWITCH(2; 1; "one"; 2; "two"; "other")', 'two']
	],
	['CHOOSE', 'CHOOSE(number; first; second; …)', 'The first, second … of the values.', ['CHOOSE(2; "a"; "b")', 'b']],
	['AND', 'AND(condition…)', 'Whether all are true. "and" may stand between them instead.', ['AND(TRUE; FALSE)', 'no']],
	[
		'OR',
		'OR(condition…)',
		'Whether one or more is true. "or" may stand between them instead.',
		['OR(TRUE; FALSE)', 'yes']
	],
	['XOR', 'XOR(condition…)', 'Whether an odd number of them is true.', ['XOR(TRUE; TRUE)', 'no']],
	['NOT', 'NOT(condition)', 'The opposite. "not" may stand before it instead.', ['NOT(1 = 2)', 'yes']],
	['TRUE', 'TRUE()', 'Yes.', ['TRUE()', 'yes']],
	['FALSE', 'FALSE()', 'No.', ['FALSE()', 'no']],
	['IFERROR', 'IFERROR(value; else)', 'Something else where the value is an error.', ['IFERROR(1 / 0; 0)', '0']],
	['IFNA', 'IFNA(value; else)', 'Something else where the value is #N/A.', ['IFNA(NA(); 0)', '0']],
	['ISERROR', 'ISERROR(value)', 'Whether the value is an error.', ['ISERROR(1 / 0)', 'yes']],
	['ISERR', 'ISERR(value)', 'Whether the value is an error other than #N/A.', ['ISERR(NA())', 'no']],
	['ISNA', 'ISNA(value)', 'Whether the value is #N/A.', ['ISNA(NA())', 'yes']],
	['ERROR.TYPE', 'ERROR.TYPE(value)', 'The number of the error; #N/A where there is none.', ['ERROR.TYPE(1 / 0)', '2']],
	['NA', 'NA()', 'The error #N/A: not available.', ['ISNA(NA())', 'yes']],
	['ISBLANK', 'ISBLANK(value)', 'Whether there is nothing there.', ['ISBLANK("")', 'yes']],
	['ISNUMBER', 'ISNUMBER(value)', 'Whether the value is a number.', ['ISNUMBER(5)', 'yes']],
	['ISTEXT', 'ISTEXT(value)', 'Whether the value is a text.', ['ISTEXT("5")', 'yes']]
]

const TOTALS: readonly Note[] = [
	['COUNT', 'COUNT(set)', 'How many rows or numbers there are.', ['COUNT(1; 2; "a")', '2']],
	['COUNTA', 'COUNTA(set)', 'How many values there are that are not blank.', ['COUNTA(1; "a")', '2']],
	['COUNTBLANK', 'COUNTBLANK(set)', 'How many blanks there are.', ['COUNTBLANK(1; "")', '1']],
	['SUM', 'SUM(set)', 'The sum.', ['SUM(1; 2; 3)', '6']],
	['MIN', 'MIN(set)', 'The least of them; blank where there are none.', ['MIN(3; 1; 2)', '1']],
	['MAX', 'MAX(set)', 'The greatest of them; blank where there are none.', ['MAX(3; 1; 2)', '3']],
	['AVERAGE', 'AVERAGE(set)', 'The mean; blank where there are none.', ['AVERAGE(1; 2; 3; 4)', '2.5']],
	[
		'COUNTIF',
		'COUNTIF(set; criterion)',
		'How many values fit a criterion: ">4", "<>Trot", "NH-*" or a value.',
		['COUNTIF({1; 5; 9}; ">4")', '2']
	],
	[
		'COUNTIFS',
		'COUNTIFS(set; criterion; …)',
		'How many rows fit all the criteria.',
		['COUNTIFS({1; 5; 9}; ">4"; {1; 5; 9}; "<6")', '1']
	],
	[
		'SUMIF',
		'SUMIF(set; criterion; [summed])',
		'The sum over the rows that fit a criterion.',
		['SUMIF({1; 5; 9}; ">4")', '14']
	],
	[
		'SUMIFS',
		'SUMIFS(summed; set; criterion; …)',
		'The sum over the rows that fit all the criteria.',
		['SUMIFS({1; 5; 9}; {1; 5; 9}; ">4")', '14']
	],
	[
		'AVERAGEIF',
		'AVERAGEIF(set; criterion; [averaged])',
		'The mean over the rows that fit a criterion.',
		['AVERAGEIF({1; 5; 9}; ">4")', '7']
	],
	[
		'AVERAGEIFS',
		'AVERAGEIFS(averaged; set; criterion; …)',
		'The mean over the rows that fit all the criteria.',
		['AVERAGEIFS({1; 5; 9}; {1; 5; 9}; ">4")', '7']
	],
	[
		'MINIFS',
		'MINIFS(numbers; set; criterion; …)',
		'The least over the rows that fit all the criteria.',
		['MINIFS({1; 5; 9}; {1; 5; 9}; ">4")', '5']
	],
	[
		'MAXIFS',
		'MAXIFS(numbers; set; criterion; …)',
		'The greatest over the rows that fit all the criteria.',
		['MAXIFS({1; 5; 9}; {1; 5; 9}; "<6")', '5']
	]
]

const SETS: readonly Note[] = [
	[
		'FILTER',
		'FILTER(rows; condition)',
		'The rows of a set that fit a condition. Names in it are the inner row’s, this.… the outer’s.'
	],
	[
		'SORT',
		'SORT(rows; key; [falling])',
		'The rows of a set in the order of a key; blanks last. FIRST takes the first of them.'
	],
	['FIRST', 'FIRST(set)', 'The first row of a set, or the first value.', ['FIRST({7; 8})', '7']]
]

const DATES: readonly Note[] = [
	['TODAY', 'TODAY()', 'The date of today where the workspace is.'],
	['NOW', 'NOW()', 'This moment.']
]

const NUMBERS: readonly Note[] = [
	['N', 'N(value)', 'The value if it is a number, 1 or 0 for yes and no, 0 for a text.', ['N(TRUE)', '1']]
]

const TEXTS: readonly Note[] = [['T', 'T(value)', 'The value if it is a text, else an empty text.', ['T("a")', 'a']]]

export const SPECIAL_NOTES: readonly FunctionNote[] = [
	...notes('logic', LOGIC),
	...notes('totals', TOTALS),
	...notes('sets', SETS),
	...notes('dates', DATES),
	...notes('numbers', NUMBERS),
	...notes('text', TEXTS)
]

function notes(family: Family, all: readonly Note[]): readonly FunctionNote[] {
	return all.map(([name, signature, doc, ...examples]) => ({ name, signature, family, doc, examples }))
}
