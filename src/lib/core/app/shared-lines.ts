/**
 * Lines that several screens share: they are written once, on a screen that is shown nowhere by itself, and a line of another
 * screen stands for them. Before anything is shown they are put in its place, each under an id of its own, so that whatever
 * goes through the lines of a screen finds them there.
 */
import type { HeldKind } from '../formula/check/rename.ts'
import { nameKey } from '../text/key.ts'
import { heldIn } from './held-lines.ts'
import type { AppDocument, Screen } from './document.ts'
import type { LineOf, ScreenLine } from './lines/all.ts'
import { allLines } from './lines/tree.ts'
import type { WithLine } from './lines/with.ts'

/** Whether a screen is no screen, but lines of others. */
export function isShared({ stands }: Pick<Screen, 'stands'>): boolean {
	return stands === 'only as lines of other screens'
}

/** The document as it is shown: without shared lines by themselves, and with them wherever they stand. */
export function withSharedLines(document: AppDocument): AppDocument {
	const { screens } = document
	if (!screens.some(isShared)) return document
	return {
		...document,
		screens: screens
			.filter((screen) => !isShared(screen))
			.map((screen) => ({ ...screen, lines: putIn(screen.lines, screens) }))
	}
}

/** The lines of one screen with the shared ones among them. */
export function linesWithShared({ lines }: Pick<Screen, 'lines'>, screens: readonly Screen[]): ScreenLine[] {
	return putIn(lines, screens)
}

/** The screens on which shared lines stand. */
export function hostsOf(shared: Pick<Screen, 'id'>, screens: readonly Screen[]): Screen[] {
	return screens.filter(({ lines }) =>
		allLines(lines).some((line) => line.kind === 'shared' && line.screen === shared.id)
	)
}

/** What the lines of a screen may read as `here.NAME`; those that are shared read what any of their hosts holds. */
export function heldAround(screen: Screen, screens: readonly Screen[]): Record<string, HeldKind> {
	const hosts = isShared(screen) ? hostsOf(screen, screens) : []
	return Object.assign({}, ...[screen, ...hosts].map((each) => heldIn(putIn(each.lines, screens)))) as Record<
		string,
		HeldKind
	>
}

/** The id of the line of a screen that a shown one comes from. */
export function ownLine(id: string): string {
	return id.split(APART, 1)[0] ?? id
}

/** Stands in no id that was drawn. */
const APART = '~'

/** Shared lines hold no others: what they would stand for is left out. */
function putIn(lines: readonly ScreenLine[], screens: readonly Screen[]): ScreenLine[] {
	return lines.map((line) => {
		if (line.kind === 'shared') return standsFor(line, screens)
		return 'lines' in line ? { ...line, lines: putIn(line.lines, screens) } : line
	})
}

function standsFor({ id, who, screen, lines: given }: LineOf<'shared'>, screens: readonly Screen[]): ScreenLine {
	const shared = screens.find((each) => each.id === screen && isShared(each))
	const lines = copyOf(shared?.lines ?? [], { id, given: given.filter((line) => line.kind === 'with') })
	return { id, kind: 'section', title: '', who, lines }
}

interface Standing {
	readonly id: string
	readonly given: readonly WithLine[]
}

function copyOf(lines: readonly ScreenLine[], { id, given }: Standing): ScreenLine[] {
	return lines
		.filter(({ kind }) => kind !== 'shared')
		.map((line) => {
			const own = { ...line, id: `${id}${APART}${line.id}` }
			if (own.kind === 'hold') {
				const value = given.find(({ as }) => nameKey(as) === nameKey(own.holds))?.value
				return value === undefined ? own : { ...own, starts: value }
			}
			return 'lines' in own ? { ...own, lines: copyOf(own.lines, { id, given }) } : own
		})
}
