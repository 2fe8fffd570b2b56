import type { WireCell } from '$lib/core/query/wire.ts'

export interface Totals {
	readonly filled: number
	readonly sum: number | undefined
	readonly mean: number | undefined
}

/** Count, sum and mean of the cells of a selection; the last two where there are numbers. */
export function totalsOf(cells: readonly (WireCell | undefined)[]): Totals {
	const filled = cells.filter((cell) => cell !== undefined && cell !== null && cell !== '')
	const numbers = filled.filter((cell) => typeof cell === 'number')
	if (numbers.length === 0) return { filled: filled.length, sum: undefined, mean: undefined }
	const sum = numbers.reduce((all, each) => all + each, 0)
	return { filled: filled.length, sum, mean: sum / numbers.length }
}
