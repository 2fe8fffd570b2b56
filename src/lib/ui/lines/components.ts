/** The component of each kind of screen line; a page loads those of the kinds that it shows, and no others. */
import type { ShownLine, StaffPage } from '$lib/core/requests/screens.ts'
import { lookOfLine, type KindOf, type LineComponent, type LineComponents, type LineLook } from './line-component.ts'

const COMPONENTS: {
	readonly [K in LineLook]: () => Promise<{ readonly default: LineComponent<Extract<ShownLine, { kind: KindOf<K> }>> }>
} = {
	heading: () => import('./heading/HeadingLine.svelte'),
	text: () => import('./text/TextLine.svelte'),
	picture: () => import('./picture/PictureLine.svelte'),
	video: () => import('./video/VideoLine.svelte'),
	welcome: () => import('./welcome/WelcomeLine.svelte'),
	divider: () => import('./divider/DividerLine.svelte'),
	list: () => import('./list/ListAsEntries.svelte'),
	'list as a table': () => import('./list/ListAsTable.svelte'),
	board: () => import('./board/BoardLine.svelte'),
	calendar: () => import('./calendar/CalendarLine.svelte'),
	map: () => import('./map/MapLine.svelte'),
	figure: () => import('./figure/FigureLine.svelte'),
	chart: () => import('./chart/ChartLine.svelte'),
	days: () => import('./chart/DaysLine.svelte'),
	scatter: () => import('./chart/ScatterLine.svelte'),
	record: () => import('./record/RecordLine.svelte'),
	rating: () => import('./rating/RatingLine.svelte'),
	tally: () => import('./tally/TallyAlone.svelte'),
	choose: () => import('./choose/ChooseLine.svelte'),
	scan: () => import('./scan/ScanLine.svelte'),
	search: () => import('./search/SearchLine.svelte'),
	form: () => import('./form/FormLine.svelte'),
	steps: () => import('./steps/StepsLine.svelte'),
	button: () => import('./button/ButtonLine.svelte'),
	timer: () => import('./timer/TimerLine.svelte'),
	section: () => import('./frames/SectionLine.svelte'),
	fold: () => import('./frames/FoldLine.svelte'),
	buttons: () => import('./frames/ButtonsLine.svelte'),
	beside: () => import('./frames/BesideLine.svelte'),
	tabs: () => import('./frames/TabsLine.svelte'),
	// Tabs draw their own; one alone is a part of the screen with its title.
	tab: () => import('./frames/SectionLine.svelte')
}

/** The components of every kind that a page shows, on the screen itself and on the list beside it. */
export async function loadComponents({ main, beside }: Pick<StaffPage, 'main' | 'beside'>): Promise<LineComponents> {
	const looks = new Set([...looksIn(main.screen?.lines ?? [], false), ...looksIn(beside?.screen?.lines ?? [], true)])
	const loaded = await Promise.all([...looks].map(async (look) => [look, (await COMPONENTS[look]()).default] as const))
	// Kind by kind the record holds this; for the union the compiler cannot tell.
	return Object.fromEntries(loaded) as LineComponents
}

function looksIn(lines: readonly ShownLine[], isBeside: boolean): LineLook[] {
	return lines.flatMap((line) => [
		lookOfLine(line, isBeside),
		...('lines' in line ? looksIn(line.lines, isBeside) : [])
	])
}
