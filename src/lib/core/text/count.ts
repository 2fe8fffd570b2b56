/** `1 row`, `2 rows`, `1,240 rows`: a number with the word it counts. */
export function countOf(count: number, one: string, many = `${one}s`): string {
	return `${count.toLocaleString('en-GB')} ${count === 1 ? one : many}`
}
