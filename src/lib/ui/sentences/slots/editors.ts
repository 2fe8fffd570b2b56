/** What opens under a slot of each type. */
import type { Component } from 'svelte'
import type { SlotType, SlotValues } from '$lib/core/sentence/slots/all.ts'
import type { Slot } from '$lib/core/sentence/types.ts'
import type { Vocabulary } from '$lib/core/sentence/vocabulary.ts'
import ChildrenSlot from './ChildrenSlot.svelte'
import ChoiceSlot from './ChoiceSlot.svelte'
import ColumnsSlot from './ColumnsSlot.svelte'
import FormulaSlot from './FormulaSlot.svelte'
import LongTextSlot from './LongTextSlot.svelte'
import ScopeSlot from './ScopeSlot.svelte'
import SortSlot from './SortSlot.svelte'
import TextSlot from './TextSlot.svelte'
import VerbsSlot from './VerbsSlot.svelte'

/** What every editor gets; each takes of it what it needs. */
export interface SlotProps<V> {
	readonly slot: Slot
	/** What stands in it; null where it is blank. */
	readonly value: V | null
	readonly vocabulary: Vocabulary
	/** The table that its columns are those of. */
	readonly table: number | undefined
	/** The id of the element that names it. */
	readonly labelledby: string
	readonly onchange: (value: V | null) => void
	/** Changes it, and is done with it. */
	readonly onchoose: (value: V | null) => void
}

type SlotComponent<V> = Component<SlotProps<V> & Record<string, unknown>>

const EDITORS: { readonly [T in SlotType]: SlotComponent<SlotValues[T]> } = {
	text: TextSlot,
	'long text': LongTextSlot,
	condition: FormulaSlot,
	formula: FormulaSlot,
	person: FormulaSlot,
	table: ChoiceSlot,
	column: ChoiceSlot,
	columns: ColumnsSlot,
	sort: SortSlot,
	role: ChoiceSlot,
	verbs: VerbsSlot,
	'column scope': ScopeSlot,
	screen: ChoiceSlot,
	does: ChoiceSlot,
	when: ChoiceSlot,
	children: ChildrenSlot
}

export function editorOf(type: SlotType): SlotComponent<unknown> {
	// Type by type the record holds this; what stands in a slot is a value of its type.
	return EDITORS[type] as SlotComponent<unknown>
}
