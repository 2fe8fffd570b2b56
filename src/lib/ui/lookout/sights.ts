/** What one person gets of a screen, and how that differs from what another gets. */
import { allLines } from '$lib/core/app/lines/tree.ts'
import type { ShownScreen } from '$lib/core/requests/screens.ts'

export interface Sights {
	readonly screen: string | null
	readonly screens: readonly string[]
	/** By the line that shows them. */
	readonly lists: readonly { readonly line: string; readonly title: string; readonly count: number }[]
	/** Names of the columns that are shown, by line. */
	readonly columns: readonly { readonly line: string; readonly names: readonly string[] }[]
	/** Words on forms and buttons. */
	readonly offers: readonly string[]
}

/** As counts of lists go no further. */
const COUNTED = 1_000

/** What a frame of the Lookout tells the Bench of the screen that it shows. */
export function sightsOf({ screen, screens }: ShownScreen): Sights {
	const lines = allLines(screen?.lines ?? [])
	return {
		screen: screen?.id ?? null,
		screens: screens.map((each) => each.title),
		lists: lines.flatMap((line) =>
			line.kind === 'list' ? [{ line: line.id, title: line.title.toLowerCase(), count: line.count }] : []
		),
		columns: lines.flatMap((line) =>
			line.kind === 'list' || line.kind === 'record'
				? [{ line: line.id, names: line.columns.map((column) => column.name) }]
				: []
		),
		offers: lines.flatMap((line) => {
			if (line.kind === 'form') return [`the form for ${line.title}`]
			return line.kind === 'button' ? [line.label] : []
		})
	}
}

/** Each difference as a sentence; none where both get the same, or look at different screens. */
export function differences(
	one: { readonly name: string; readonly sees: Sights },
	other: { readonly name: string; readonly sees: Sights }
): string[] {
	const both = [one, other]
	const rows = one.sees.lists.flatMap(({ line, title, count }) => {
		const there = other.sees.lists.find((each) => each.line === line)
		return there && there.count !== count
			? [`${one.name}: ${showRows(count)} of ${title}, ${other.name}: ${showRows(there.count)}.`]
			: []
	})
	const apart = both.flatMap(({ name, sees }, i) => {
		const against = both[1 - i]?.sees
		if (!against) return []
		return [
			...only(name, 'the screen', sees.screens, against.screens),
			...only(name, '', sees.offers, against.offers),
			...sees.columns.flatMap(({ line, names }) => {
				const there = against.columns.find((each) => each.line === line)
				return there ? only(name, '', names, there.names) : []
			})
		]
	})
	const same = one.sees.screen === other.sees.screen || one.sees.screen === null || other.sees.screen === null
	// A column that stands in a list and on a record sheet is said once.
	return [...new Set(same ? [...rows, ...apart] : apart.filter((each) => each.includes('the screen')))]
}

function only(name: string, what: string, has: readonly string[], others: readonly string[]): string[] {
	const found = has.filter((each) => !others.includes(each))
	if (found.length === 0) return []
	return [`Only ${name} gets ${what === '' ? '' : `${what}${found.length > 1 ? 's' : ''} `}${found.join(', ')}.`]
}

function showRows(count: number): string {
	return count >= COUNTED ? 'more than 1,000 rows' : `${count} ${count === 1 ? 'row' : 'rows'}`
}
