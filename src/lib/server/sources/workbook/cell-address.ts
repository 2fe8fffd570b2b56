/** @returns the column that letters name, from 0: `A` is 0, `AA` 26 */
export function columnOf(letters: string): number {
	let column = 0
	for (const letter of letters) column = column * 26 + letter.charCodeAt(0) - 64
	return column - 1
}

export function lettersOf(column: number): string {
	const last = String.fromCharCode(65 + (column % 26))
	return column < 26 ? last : lettersOf(Math.floor(column / 26) - 1) + last
}
