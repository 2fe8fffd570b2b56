/** What opens under a slot of each type. */
import type { Component } from 'svelte'
import type { SlotType, SlotValues } from '$lib/core/sentence/slots/all.ts'
import AppFileSlot from './AppFileSlot.svelte'
import ChildrenSlot from './ChildrenSlot.svelte'
import ChoiceSlot from './ChoiceSlot.svelte'
import ColumnsSlot from './ColumnsSlot.svelte'
import FormulaSlot from './FormulaSlot.svelte'
import MessageSlot from './MessageSlot.svelte'
import ScopeSlot from './ScopeSlot.svelte'
import CountSlot from './CountSlot.svelte'
import DoesSlot from './DoesSlot.svelte'
import GroundSlot from './GroundSlot.svelte'
import IconSlot from './IconSlot.svelte'
import ProgramSlot from './ProgramSlot.svelte'
import RolesSlot from './RolesSlot.svelte'
import SortsSlot from './SortsSlot.svelte'
import type { SlotProps } from './slot-props.ts'
import TextSlot from './TextSlot.svelte'
import TypedSlot from './TypedSlot.svelte'
import VerbsSlot from './VerbsSlot.svelte'

type SlotComponent<V> = Component<SlotProps<V> & Record<string, unknown>>

const EDITORS: { readonly [T in SlotType]: SlotComponent<SlotValues[T]> } = {
	text: TextSlot,
	subject: TextSlot,
	message: MessageSlot,
	condition: FormulaSlot,
	formula: FormulaSlot,
	person: FormulaSlot,
	table: ChoiceSlot,
	column: ChoiceSlot,
	columns: ColumnsSlot,
	sorts: SortsSlot,
	role: ChoiceSlot,
	roles: RolesSlot,
	count: CountSlot,
	tone: ChoiceSlot,
	proportions: ChoiceSlot,
	'form of list': ChoiceSlot,
	'after sending': ChoiceSlot,
	remembered: ChoiceSlot,
	verbs: VerbsSlot,
	'column scope': ScopeSlot,
	screen: ChoiceSlot,
	'shared lines': ChoiceSlot,
	routine: ChoiceSlot,
	'sign-off': ChoiceSlot,
	program: ProgramSlot,
	does: DoesSlot,
	when: ChoiceSlot,
	side: ChoiceSlot,
	span: ChoiceSlot,
	while: TypedSlot,
	missed: ChoiceSlot,
	recurrence: TypedSlot,
	'time of day': TypedSlot,
	days: TypedSlot,
	standing: ChoiceSlot,
	icon: IconSlot,
	'taking away': ChoiceSlot,
	across: ChoiceSlot,
	'held kind': ChoiceSlot,
	changing: ChoiceSlot,
	abreast: ChoiceSlot,
	once: ChoiceSlot,
	picture: AppFileSlot,
	film: AppFileSlot,
	ground: GroundSlot,
	children: ChildrenSlot,
	measure: ChoiceSlot,
	grouping: ChoiceSlot,
	arrangement: ChoiceSlot,
	'calendar view': ChoiceSlot,
	skipped: ChoiceSlot,
	attached: ChoiceSlot,
	decision: ChoiceSlot,
	outside: ChoiceSlot,
	'not starting': ChoiceSlot,
	'opened row': ChoiceSlot,
	'where none': ChoiceSlot
}

export function editorOf(type: SlotType): SlotComponent<unknown> {
	// Type by type the record holds this; what stands in a slot is a value of its type.
	return EDITORS[type] as SlotComponent<unknown>
}
