/** Where the names of lines stand at their right ends: each as near its line as it can, and none over another. */

/**
 * @param ends Of each line its last height in percent; null for one without any.
 * @param apart How far names stand apart at least, in percent.
 * @returns In the order of `ends`, between 0 and 100, as long as so many fit.
 */
export function layOutEnds(ends: readonly (number | null)[], apart: number): readonly (number | null)[] {
	const lines = ends.flatMap((end, i) => (end === null ? [] : [{ i, end }])).toSorted((a, b) => a.end - b.end)
	// Upwards, each at least so far over the one before; then what stands over the top is pushed down again.
	const up = lines.reduce<number[]>((at, { end }) => [...at, Math.max(end, (at.at(-1) ?? -apart) + apart)], [])
	const down = up.reduceRight<number[]>((at, place) => [Math.min(place, (at[0] ?? 100 + apart) - apart), ...at], [])
	const placed = new Map(lines.map(({ i }, k) => [i, down[k] ?? 0]))
	return ends.map((_end, i) => placed.get(i) ?? null)
}
