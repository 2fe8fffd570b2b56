/** What each kind of line shows to one person; a new kind has its entry here. */
import { showsRow, type LineKind, type LineOf, type ScreenLine } from '$lib/core/app/lines/all.ts'
import { writeHeld } from '$lib/core/app/held-text.ts'
import type { ShownLine } from '$lib/core/requests/screens.ts'
import { nameKey } from '$lib/core/text/key.ts'
import { board } from './board.ts'
import { button } from './button.ts'
import { calendar } from './calendar.ts'
import { chart } from './chart.ts'
import { choose } from './choose.ts'
import { figure } from './figure.ts'
import { filter } from './filter.ts'
import { form } from './form.ts'
import { beside, buttons, fold, section, tab, tabs } from './frames.ts'
import { divider, heading, picture, video } from './plain.ts'
import { list } from './list.ts'
import { map } from './map.ts'
import { put } from './put.ts'
import { keptBy } from '$lib/core/app/lines/timer.ts'
import { rating } from './rating.ts'
import { record } from './record.ts'
import { scan } from './scan.ts'
import { scatter } from './scatter.ts'
import { tally } from './tally.ts'
import { steps } from './steps.ts'
import { text } from './text.ts'
import { isFor } from '../for-whom.ts'
import { isFrame } from '../tables-of-screen.ts'
import { screenFor, type ShownAs, type View } from './view.ts'
import { welcome } from './welcome.ts'

const NEWER = '<p>This part needs a newer program. Tell whoever looks after this app.</p>'
const NOT_BY_ITSELF = { holdsSomething: () => false, show: () => [] }

const SHOWN: { readonly [K in LineKind]: ShownAs<LineOf<K>> } = {
	...{
		heading,
		divider,
		picture,
		video,
		welcome,
		list,
		board,
		calendar,
		map,
		figure,
		chart,
		scatter,
		record,
		tally,
		put,
		rating,
		choose,
		filter,
		form,
		steps,
		button,
		scan,
		buttons,
		text
	},
	...{ section, fold, beside, tabs, tab },
	// Its lines stand in its place by now.
	shared: NOT_BY_ITSELF,
	timer: {
		holdsSomething: () => false,
		// To who cannot open where it goes back to, it goes to the first screen.
		show: ({ id, seconds, screen, ...line }, view) => [
			{
				id,
				kind: 'timer',
				seconds,
				keeps: keptBy(line),
				to: screen !== null && screenFor(screen, view) ? screen : null
			}
		]
	},
	// The list that holds it shows it on its rows.
	mark: NOT_BY_ITSELF,
	search: {
		holdsSomething: () => false,
		show: ({ id, label, sample, holds }, { here }) => [
			{ id, kind: 'search', label, sample, holds, typed: writeHeld(here.get(nameKey(holds))?.value ?? null) }
		]
	},
	// What is held shows nothing; what is given shows where it arrives.
	...{ hold: NOT_BY_ITSELF, with: NOT_BY_ITSELF },
	// So does the sheet that holds it, and the welcome its pages.
	...{ part: NOT_BY_ITSELF, leaf: NOT_BY_ITSELF },
	unknown: { holdsSomething: () => false, show: ({ id }) => [{ id, kind: 'text', html: NEWER }] },
	// The form that holds them shows them among what it asks.
	...{ ask: NOT_BY_ITSELF, answer: NOT_BY_ITSELF },
	...{ entry: NOT_BY_ITSELF, items: NOT_BY_ITSELF, shown: NOT_BY_ITSELF, page: NOT_BY_ITSELF }
}

/** A screen, or a line that holds others, is offered when at least one of its lines holds something for this person. */
export function holdsSomething(lines: readonly ScreenLine[], view: Omit<View, 'inner'>): boolean {
	const whole = withInner(view)
	return lines.some((line) => isFor(line, view.standing) && shownAs(line).holdsSomething(line, whole))
}

export function showLines(lines: readonly ScreenLine[], view: Omit<View, 'inner'>): ShownLine[] {
	const whole = withInner(view)
	const { only } = view.request
	const isAsked = (line: ScreenLine) => only === undefined || only.has(line.id) || isFrame(line)
	return lines.flatMap((line) => (isAsked(line) && isFor(line, view.standing) ? shownAs(line).show(line, whole) : []))
}

function withInner(view: Omit<View, 'inner'>): View {
	return {
		...view,
		inner: { holdsSomething: (lines) => holdsSomething(lines, view), show: (lines) => showLines(lines, view), showsRow }
	}
}

function shownAs(line: ScreenLine): ShownAs<ScreenLine> {
	// Kind by kind the record holds this; for the union the compiler cannot tell.
	return SHOWN[line.kind] as ShownAs<ScreenLine>
}
