/**
 * Of how many rows a chart is made at first, those that were added last: of a hundred thousand it is there in a fifth of a
 * second, of a million in one and a half. Whoever wants them all asks for them.
 */
export const MOST_COUNTED = 100_000

/** The name under which an address says that a chart is made of all; no line can call anything so. */
export const countedHeldBy = (line: string) => `count-${line}`
export const ALL_COUNTED = 'all'
