import type { Slot } from '$lib/core/sentence/types.ts'
import type { Vocabulary } from '$lib/core/sentence/vocabulary.ts'

/** What every editor gets; each takes of it what it needs. */
export interface SlotProps<V> {
	readonly slot: Slot
	/** What stands in it; null where it is blank. */
	readonly value: V | null
	readonly vocabulary: Vocabulary
	/** The table that its columns are those of. */
	readonly table: number | undefined
	/** The tables of the rows around that of its formula, the outermost first. */
	readonly around: readonly number[]
	/** The id of the element that names it. */
	readonly labelledby: string
	readonly onchange: (value: V | null) => void
	/** Changes it, and is done with it. */
	readonly onchoose: (value: V | null) => void
}
