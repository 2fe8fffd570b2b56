/** How many rows, as lists say it: they are counted no further than ten thousand. */
export function showCount(rows: number): string {
	return rows > 10_000 ? '10,000+' : rows.toLocaleString('en-GB')
}
