import type { Issue, Span } from '../../model/formula.ts'

/** The wording of everything that can be wrong with a formula, one function a code. */

export const unreadable = (what: string, span: Span): Issue => ({
	code: 'unreadable',
	message: `${what}`,
	span
})

export const unknownColumn = (name: string, table: string, near: string | undefined, span: Span): Issue => ({
	code: 'unknown_column',
	message: `There is no column "${name}" in ${table}.` + (near ? ` Did you mean "${near}"?` : ''),
	span
})

export const unknownFunction = (name: string, near: string | undefined, span: Span): Issue => ({
	code: 'unknown_function',
	message: `There is no function "${name}".` + (near ? ` Did you mean ${near}?` : ''),
	span
})

export const needsGrid = (name: string, instead: string, span: Span): Issue => ({
	code: 'needs_grid',
	message: `${name} needs a grid of cells, which a table has not. ${instead}`,
	span
})

export const otherRows = (name: string, span: Span): Issue => ({
	code: 'other_rows',
	message: `The sets of ${name} must come from the same rows, as in ${name}(items.amount; items.state; "open").`,
	span
})

export const ambiguousName = (name: string, span: Span): Issue => ({
	code: 'ambiguous_name',
	message: `"${name}" is also the name of a column. Write '${name}' in single quotes if you mean the column, or put brackets round each side if you do not.`,
	span,
	mend: { says: `Read '${name}' as the column`, span, text: `'${name.replaceAll("'", "''")}'` }
})

export const wrongType = (what: string, wanted: string, got: string, span: Span): Issue => ({
	code: 'wrong_type',
	message: `${what} needs ${wanted}, but this is ${got}.`,
	span
})

export const cannotCompare = (left: string, right: string, remedy: string, span: Span): Issue => ({
	code: 'cannot_compare',
	message: `This compares ${left} with ${right}. ${remedy}`.trim(),
	span
})

export const wrongCount = (name: string, wanted: string, got: number, span: Span): Issue => ({
	code: 'wrong_count',
	message: `${name} takes ${wanted}, but here ${got === 1 ? 'is 1' : `are ${got}`}.`,
	span
})

export const mixedSeparators = (span: Span): Issue => ({
	code: 'mixed_separators',
	message: 'Separate the parts of one call with ";" or with ",", not both. A decimal point is written with a dot: 1.5.',
	span
})

export const noMe = (span: Span): Issue => ({
	code: 'no_me',
	message: '"me" cannot be used here, because nobody is looking when this is worked out.',
	span
})

export const circle = (path: readonly string[], span: Span): Issue => ({
	code: 'circle',
	message: `This goes round in a circle: ${path.join(' → ')}. Take one of them out of the formula.`,
	span
})

export const noCondition = (name: string, span: Span): Issue => ({
	code: 'no_condition',
	message: `"${name}" is a named condition, so its formula must come to yes or no, as in Depth > 10.`,
	span
})

export const tooLong = (span: Span): Issue => ({
	code: 'too_long',
	message: 'This formula is too long to work out. Put a part of it into a column of its own and use that.',
	span
})

export const variesByItself = (span: Span): Issue => ({
	code: 'varies_by_itself',
	message: 'Who holds a role may not change with the day or with who is looking. Use columns of the person only.',
	span
})

/** `why`: with what it comes to, and how to mend it. */
export const tooMuch = (why: string, text: string): Issue => ({
	code: 'too_much',
	message: `This asks for too much. ${why}`,
	span: { from: 0, to: text.length }
})
