/** Text with formulas in braces; `{{` stands for a brace. */

/** A brace that stands for itself, or a formula, which is its first group. */
export const PIECE = /\{\{|\{([^{}]*)\}/g

/** The formulas in a text, in their order. */
export function piecesIn(text: string): string[] {
	return [...text.matchAll(PIECE)].flatMap(([, formula]) => formula ?? [])
}

/** The text with each formula in it mapped; the words between stay. */
export function mapPieces(text: string, map: (formula: string) => string): string {
	return text.replace(PIECE, (found: string, formula: string | undefined) =>
		formula === undefined ? found : `{${map(formula)}}`
	)
}
