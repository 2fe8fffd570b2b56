/** The edits that make one version of a document of another. */
import type { AppDocument } from '../document.ts'
import { isSameJson, LISTS, type Edit } from './edit.ts'
import { isSameHome, itemsOf, keyOf, type Item } from './items.ts'

/**
 * Puts come first, each after what it stands behind, and removals last, so that what leaves a holder is out before that goes.
 * As few things as possible count as moved.
 */
export function editsBetween(before: AppDocument, after: AppDocument): Edit[] {
	if (before === after) return []
	const [old, next] = [itemsOf(before), itemsOf(after)]
	const were = new Map(old.map((item) => [keyOf(item), item]))
	const are = new Set(next.map(keyOf))
	const staying = stayingAmong(next, old)
	const puts = next.flatMap((item): Edit[] => {
		const { home, id, own, after } = item
		const was = were.get(keyOf(item))
		if (!was) return [{ kind: 'put', home, id, own, after }]
		const place = staying.has(item) ? {} : { after }
		if (staying.has(item) && isSameJson(was.own, own)) return []
		return [{ kind: 'put', home, id, own, was: was.own, ...place }]
	})
	const gone = old.filter((item) => !are.has(keyOf(item)))
	const goneKeys = new Set(gone.map(keyOf))
	const removals = gone
		.filter((item) => !goneKeys.has(holderKey(item) ?? ''))
		.map(({ home, id, own, holds }): Edit => ({
			...{ kind: 'remove', home, id, was: own },
			holds: holds.filter((held) => goneKeys.has(keyOf({ home: innerHome({ home, id }), id: held })))
		}))
	return [...fieldsBetween(before, after), ...puts, ...removals]
}

function fieldsBetween(before: AppDocument, after: AppDocument): Edit[] {
	const was: Record<string, unknown> = before
	return Object.entries(after).flatMap(([key, value]): Edit[] =>
		(LISTS as readonly string[]).includes(key) || isSameJson(was[key], value)
			? []
			: [{ kind: 'set', key, value, was: was[key] }]
	)
}

/** What a line stands in, which takes it along when it goes: another line, or its screen. */
function holderKey({ home }: Item): string | undefined {
	if (typeof home === 'string') return undefined
	return home.within === null ? keyOf({ home: 'screens', id: home.screen }) : keyOf({ home, id: home.within })
}

/** Where the lines that a thing holds stand, as far as telling them apart goes. */
function innerHome({ home, id }: Pick<Item, 'home' | 'id'>): Item['home'] {
	return typeof home === 'string' ? { screen: id, within: null } : home
}

/** What is still among the same neighbours in the same order; all else that was there has moved. */
function stayingAmong(next: readonly Item[], old: readonly Item[]): ReadonlySet<Item> {
	const position = new Map(old.map((item, at) => [keyOf(item), { at, home: item.home }]))
	const families = new Map<string, Item[]>()
	for (const item of next) {
		const was = position.get(keyOf(item))
		if (!was || !isSameHome(was.home, item.home)) continue
		const family = JSON.stringify(item.home)
		families.set(family, [...(families.get(family) ?? []), item])
	}
	const placeOf = (item: Item) => position.get(keyOf(item))?.at ?? 0
	return new Set([...families.values()].flatMap((family) => longestRising(family, placeOf)))
}

/** The longest part of a list whose values rise (patience sorting, O(n log n)). */
function longestRising<T>(all: readonly T[], valueOf: (each: T) => number): T[] {
	interface Link {
		readonly item: T
		readonly value: number
		readonly before: Link | undefined
	}
	const ends: Link[] = []
	for (const item of all) {
		const value = valueOf(item)
		const found = ends.findIndex((end) => end.value >= value)
		const at = found === -1 ? ends.length : found
		ends[at] = { item, value, before: ends[at - 1] }
	}
	const chain: T[] = []
	for (let link = ends.at(-1); link; link = link.before) chain.unshift(link.item)
	return chain
}
