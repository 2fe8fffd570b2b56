/** What the lines of a screen let be chosen or typed, or hold. */
import type { HeldKind } from '../formula/check/rename.ts'
import { entryOfLine, type ScreenLine } from './lines/all.ts'
import type { Chosen } from './lines/entry.ts'
import { allLines } from './lines/tree.ts'

/** What a screen holds, of which kind each is, by the name that a line of it gives it. */
export function heldIn(lines: readonly ScreenLine[]): Record<string, HeldKind> {
	return Object.fromEntries(chosenBy(lines).map(({ name, kind }) => [name, kind]))
}

export function chosenBy(lines: readonly ScreenLine[]): Chosen[] {
	return allLines(lines).flatMap((line) => entryOfLine(line).chooses(line) ?? [])
}
