/** How many rows, as lists say it: they are counted no further than ten thousand. */
export function showCount(rows: number): string {
	return rows > 10_000 ? '10,000+' : rows.toLocaleString('en-GB')
}

/** The same where access is counted, which goes to a hundred thousand. */
export function showCounted(rows: number): string {
	return rows > 100_000 ? '100,000+' : rows.toLocaleString('en-GB')
}
