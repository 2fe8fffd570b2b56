/** Of each line that a screen shows by itself, the tables whose changes can change it; found once for a document and a workspace. */
import type { AppDocument, Screen } from '$lib/core/app/document.ts'
import { entryOfLine, type ScreenLine } from '$lib/core/app/lines/all.ts'
import { placedLines } from '$lib/core/app/lines/tree.ts'
import { tablesBehind } from '$lib/core/app/tables-behind.ts'
import { heldIn } from '$lib/core/app/held-lines.ts'
import { aroundIn, type AroundLines } from '$lib/core/app/walk-app.ts'
import type { Catalogue } from '$lib/core/model/table.ts'
import type { Store } from '../store/store.ts'

type TablesByLine = ReadonlyMap<string, ReadonlySet<number>>

const KNOWN = new WeakMap<Catalogue, WeakMap<Screen, TablesByLine>>()

export function tablesByLine(store: Store, screen: Screen, { routines }: AppDocument): TablesByLine {
	const { catalogue, lines } = store.workspace()
	const screens = KNOWN.get(catalogue) ?? new WeakMap<Screen, TablesByLine>()
	KNOWN.set(catalogue, screens)
	const known = screens.get(screen)
	if (known) return known
	const around: AroundLines = { here: heldIn(screen.lines) }
	const found = new Map(
		placedLines(screen.lines)
			.filter(({ line, within }) => within.every(isFrame) && !isFrame(line))
			.map(({ line, within }) => [
				line.id,
				tablesBehind(
					line,
					within.reduce<AroundLines>((outer, holder) => aroundIn(holder, outer), around),
					{ catalogue, lines, routines }
				)
			])
	)
	screens.set(screen, found)
	return found
}

/** What only says how lines stand; every other line is shown with what it holds. */
export function isFrame(line: ScreenLine): boolean {
	const { holds } = entryOfLine(line)
	return holds === 'parts' || holds.includes('tab')
}
