/** The component of each kind of screen line. */
import type { Component, Snippet } from 'svelte'
import type { ScreenPath, ShownLine } from '$lib/core/requests/screens.ts'
import ButtonLine from './button/ButtonLine.svelte'
import DividerLine from './divider/DividerLine.svelte'
import FormLine from './form/FormLine.svelte'
import BesideLine from './frames/BesideLine.svelte'
import FoldLine from './frames/FoldLine.svelte'
import SectionLine from './frames/SectionLine.svelte'
import TabsLine from './frames/TabsLine.svelte'
import HeadingLine from './heading/HeadingLine.svelte'
import ListLine from './list/ListLine.svelte'
import RecordLine from './record/RecordLine.svelte'
import TallyLine from './tally/TallyLine.svelte'
import TextLine from './text/TextLine.svelte'

/** What every line gets; each takes of it what it needs. */
export interface LineProps<L> {
	readonly line: L
	/** The address of the screen. */
	readonly path: ScreenPath
	/** What links of the app begin with. */
	readonly base: string
	/** The screen that it stands on. */
	readonly from: string
	/** The row that the screen shows. */
	readonly row: string | null
	/** The row that is open beside a list. */
	readonly selected: string | null
	/** Draws the lines that it holds. */
	readonly inner: Snippet<[readonly ShownLine[]]>
}

type LineComponent<L> = Component<LineProps<L> & Record<string, unknown>>

const COMPONENTS: { readonly [K in ShownLine['kind']]: LineComponent<Extract<ShownLine, { kind: K }>> } = {
	heading: HeadingLine,
	text: TextLine,
	divider: DividerLine,
	list: ListLine,
	record: RecordLine,
	tally: TallyLine,
	form: FormLine,
	button: ButtonLine,
	section: SectionLine,
	fold: FoldLine,
	beside: BesideLine,
	tabs: TabsLine,
	// Tabs draw their own; one alone is a part of the screen with its title.
	tab: SectionLine
}

export function componentOf(line: ShownLine): LineComponent<ShownLine> {
	// Kind by kind the record holds this; for the union the compiler cannot tell.
	return COMPONENTS[line.kind] as LineComponent<ShownLine>
}
