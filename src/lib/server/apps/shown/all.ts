/** What each kind of line shows to one person; a new kind has its entry here. */
import { entryOfLine, type LineKind, type LineOf, type ScreenLine } from '$lib/core/app/lines/all.ts'
import type { ShownLine } from '$lib/core/requests/screens.ts'
import { button } from './button.ts'
import { form } from './form.ts'
import { beside, fold, section, tab, tabs } from './frames.ts'
import { list } from './list.ts'
import { record } from './record.ts'
import { text } from './text.ts'
import type { ShownAs, View } from './view.ts'

const SHOWN: { readonly [K in LineKind]: ShownAs<LineOf<K>> } = {
	...{ list, record, form, button, text, section, fold, beside, tabs, tab },
	heading: { holdsSomething: () => false, show: ({ id, text: words }) => [{ id, kind: 'heading', text: words }] },
	divider: { holdsSomething: () => false, show: ({ id }) => [{ id, kind: 'divider' }] },
	// The list that holds it shows it on its rows.
	mark: { holdsSomething: () => false, show: () => [] }
}

/** A screen, or a line that holds others, is offered when at least one of its lines holds something for this person. */
export function holdsSomething(lines: readonly ScreenLine[], view: Omit<View, 'inner'>): boolean {
	const whole = withInner(view)
	return lines.some((line) => isFor(line, view) && shownAs(line).holdsSomething(line, whole))
}

export function showLines(lines: readonly ScreenLine[], view: Omit<View, 'inner'>): ShownLine[] {
	const whole = withInner(view)
	return lines.flatMap((line) => (isFor(line, view) ? shownAs(line).show(line, whole) : []))
}

/** Whether a line, or one that it holds, shows one row, so that its screen is reached from a row alone. */
export function showsRow(lines: readonly ScreenLine[]): boolean {
	return lines.some((line) => entryOfLine(line).showsRow(line) || ('lines' in line && showsRow(line.lines)))
}

function withInner(view: Omit<View, 'inner'>): View {
	return {
		...view,
		inner: { holdsSomething: (lines) => holdsSomething(lines, view), show: (lines) => showLines(lines, view), showsRow }
	}
}

/** A line for some roles hides from others; what they may see of its rows is another matter. */
function isFor({ who }: ScreenLine, { standing }: Omit<View, 'inner'>): boolean {
	return who.length === 0 || who.some((role) => standing.roles.has(role))
}

function shownAs(line: ScreenLine): ShownAs<ScreenLine> {
	// Kind by kind the record holds this; for the union the compiler cannot tell.
	return SHOWN[line.kind] as ShownAs<ScreenLine>
}
