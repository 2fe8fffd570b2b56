/** The pictures and films that an app shows by itself. */
import { filesIn } from '../sentence/walk-line.ts'
import type { AppDocument } from './document.ts'
import { entryOfLine } from './lines/all.ts'
import { allLines } from './lines/tree.ts'

/** By the SHA-256 of their bytes. */
export function filesOfApp({ icon, screens }: AppDocument): Set<string> {
	const lines = screens.flatMap((screen) => allLines(screen.lines))
	return new Set([
		...(icon ? [icon.sha] : []),
		...lines.flatMap((line) => filesIn(entryOfLine(line).sentence.kind, line))
	])
}
