/** A document laid flat: every screen, line, routine and sign-off with where it stands, each before what it holds. */
import type { AppDocument } from '../document.ts'
import type { ScreenLine } from '../lines/all.ts'
import { LISTS, type Home, type Own } from './edit.ts'

export interface Item {
	readonly home: Home
	readonly id: string
	readonly own: Own
	/** What it stands behind; null for the first. */
	readonly after: string | null
	/** The ids of all that it holds, however deep. */
	readonly holds: readonly string[]
}

export function itemsOf(document: AppDocument): Item[] {
	return LISTS.flatMap((list) => {
		const things: readonly { readonly id: string; readonly lines?: readonly ScreenLine[] }[] = document[list]
		return itemsIn(things, list, ({ id, lines = [] }) => linesIn(lines, { screen: id, within: null }))
	})
}

/** By which a thing is the same in two versions, wherever it stands in them. */
export function keyOf({ home, id }: Pick<Item, 'home' | 'id'>): string {
	return typeof home === 'string' ? `${home} ${id}` : `line ${home.screen} ${id}`
}

export function isSameHome(one: Home, other: Home): boolean {
	if (typeof one === 'string' || typeof other === 'string') return one === other
	return one.screen === other.screen && one.within === other.within
}

/** A thing without the lines that it holds. */
export function ownOf(thing: object): Own {
	// Every object is read by keys; `lines` of a sign-off or a step would be its own.
	const { lines: _, ...own } = thing as Own
	return own
}

function linesIn(lines: readonly ScreenLine[], home: Exclude<Home, string>): Item[] {
	return itemsIn(lines, home, (line) => ('lines' in line ? linesIn(line.lines, { ...home, within: line.id }) : []))
}

function itemsIn<T extends { readonly id: string }>(
	things: readonly T[],
	home: Home,
	heldBy: (thing: T) => readonly Item[]
): Item[] {
	return things.flatMap((thing, at) => {
		const held = heldBy(thing)
		const after = things[at - 1]?.id ?? null
		return [{ home, id: thing.id, own: ownOf(thing), after, holds: held.map(({ id }) => id) }, ...held]
	})
}
