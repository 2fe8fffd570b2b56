/** Counts as the workspace writes figures. */
import { showNumber } from '$lib/core/table/show-value.ts'
import { writingHere } from './writing.ts'

export function showFigure(value: number): string {
	return showNumber(value, { writing: writingHere() })
}

/** How many rows, as lists say it: they are counted no further than ten thousand. */
export function showCount(rows: number): string {
	return rows > 10_000 ? `${showFigure(10_000)}+` : showFigure(rows)
}

/** The same where access is counted, which goes to a hundred thousand. */
export function showCounted(rows: number): string {
	return rows > 100_000 ? `${showFigure(100_000)}+` : showFigure(rows)
}
