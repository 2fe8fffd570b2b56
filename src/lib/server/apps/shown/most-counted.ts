/** Of how many rows a chart is made: so many that it is there at once, all where its reader asks for them. */
import { ALL_COUNTED, countedHeldBy, MOST_COUNTED } from '$lib/core/chart/most-counted.ts'
import type { View } from './view.ts'

/** Undefined for all. */
export function mostCounted(line: string, { request }: View): number | undefined {
	return request.held?.[countedHeldBy(line)] === ALL_COUNTED ? undefined : MOST_COUNTED
}
