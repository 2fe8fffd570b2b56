/** The rows that somebody has chosen on a screen. They come from an address, so anybody may have written them there. */
import type { Screen } from '$lib/core/app/document.ts'
import { heldIn } from '$lib/core/app/walk-app.ts'
import type { Here } from '$lib/core/formula/check/check-call.ts'
import { nameKey } from '$lib/core/text/key.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import { readRows } from '../rows/read.ts'
import type { Store } from '../store/store.ts'

export interface Chooser {
	readonly actor: Actor
	/** Epoch ms. */
	readonly now: number
	/** By the names that the lists of the screen give them. */
	readonly held?: Readonly<Record<string, string>> | undefined
}

/** Those that the lists of the screen let be chosen, each as far as this person sees it: one that they do not is none. */
export function chosenRows(store: Store, { lines }: Pick<Screen, 'lines'>, { actor, now, held = {} }: Chooser): Here {
	const { tables } = store.workspace().catalogue
	const ids = new Map(Object.entries(held).map(([name, id]) => [nameKey(name), id]))
	const chosen = Object.entries(heldIn(lines)).flatMap(([name, number]) => {
		const table = tables.get(number)
		if (!table) return []
		const row = ids.get(nameKey(name))
		const page = row === undefined ? undefined : readRows(store, actor, { table: table.id, row, columns: [] }, now)
		const n = page?.rows[0] && row !== undefined ? (store.ids.fromId(table.id, row) ?? null) : null
		return [[nameKey(name), { table, n }] as const]
	})
	return new Map(chosen)
}
