/** Where what takes one day or several stands in a row of days: side by side along it, and in as few lanes as hold all of it. */

/** Dates are ISO 8601, both ends within. */
export interface Lasting {
	readonly from: string
	readonly to: string
}

export interface Laid {
	/** Which of them. */
	readonly at: number
	readonly lane: number
	/** Of the row of days, from 0, both within. */
	readonly first: number
	readonly last: number
	/** Whether it begins and ends in this row. */
	readonly begins: boolean
	readonly ends: boolean
}

/**
 * In the order that they come in, each in the first lane that is free on all its days; longer ones of the same beginning stand
 * above the others where the order is by beginning and length.
 * @param days one after the other, without a gap
 */
export function layOutSpans(spans: readonly Lasting[], days: readonly string[]): Laid[] {
	const [start, end] = [days[0] ?? '', days.at(-1) ?? '']
	/** The last day that is taken, by lane. */
	const taken: string[] = []
	return spans.flatMap(({ from, to }, at) => {
		if (to < start || from > end) return []
		const [first, last] = [from < start ? start : from, to > end ? end : to]
		const free = taken.findIndex((day) => day < first)
		const lane = free < 0 ? taken.length : free
		taken[lane] = last
		return [{ at, lane, first: days.indexOf(first), last: days.indexOf(last), begins: from >= start, ends: to <= end }]
	})
}
