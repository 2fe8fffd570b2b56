/** What a component of a kind of screen line is given. */
import type { Component, Snippet } from 'svelte'
import type { AppBase, ScreenPath, ShownLine } from '$lib/core/requests/screens.ts'

/** What every line gets; each takes of it what it needs. */
export interface LineProps<L> {
	readonly line: L
	/** The address of the screen. */
	readonly path: ScreenPath
	/** What links of the app begin with. */
	readonly base: AppBase
	/** The screen that it stands on. */
	readonly from: string
	/** The row that the screen shows. */
	readonly row: string | null
	/** The row that is open beside a list. */
	readonly selected: string | null
	/** Draws the lines that it holds. */
	readonly inner: Snippet<[readonly ShownLine[]]>
}

export type LineComponent<L> = Component<LineProps<L> & Record<string, unknown>>
/** Those that were loaded. */
export type LineComponents = Readonly<Partial<Record<LineLook, LineComponent<ShownLine>>>>

/** By what a line is drawn: its kind, and of a list how its rows stand, so that nothing of the other way is loaded. */
export type LineLook = ShownLine['kind'] | 'list as a table'
export type KindOf<L extends LineLook> = L extends 'list as a table' ? 'list' : L

/** `isBeside`: on the screen beside a row, where a table has no room. */
export function lookOfLine(line: ShownLine, isBeside: boolean): LineLook {
	return line.kind === 'list' && line.as === 'a table' && !isBeside ? 'list as a table' : line.kind
}
