/**
 * What a screen holds for somebody: rows that are chosen on it, words that are typed, values that a link or a button gave it.
 * They come from an address, so anybody may have written them there.
 */
import type { Screen } from '$lib/core/app/document.ts'
import { readHeld } from '$lib/core/app/held-text.ts'
import type { Chosen } from '$lib/core/app/lines/entry.ts'
import { chosenBy } from '$lib/core/app/held-lines.ts'
import type { Here } from '$lib/core/formula/check/check-call.ts'
import { typeOfHeld } from '$lib/core/formula/check/rename.ts'
import type { Plain, Type } from '$lib/core/model/formula.ts'
import type { Table } from '$lib/core/model/table.ts'
import { nameKey } from '$lib/core/text/key.ts'
import { standingOf, type Actor } from '../rights/rights-of-actor.ts'
import { readRows } from '../rows/read.ts'
import type { Store } from '../store/store.ts'
import { workOutAlone } from './work-out-alone.ts'

export interface Chooser {
	readonly actor: Actor
	/** Epoch ms. */
	readonly now: number
	/** As text, by the names that the lines of the screen give them; a row by its id. */
	readonly held?: Readonly<Record<string, string>> | undefined
}

/** What the lines of the screen let be held, each of its own type; a row that this person does not see is none. */
export function heldOnScreen(store: Store, { lines }: Pick<Screen, 'lines'>, { actor, now, held = {} }: Chooser): Here {
	const { catalogue } = store.workspace()
	const given = new Map(Object.entries(held).map(([name, text]) => [nameKey(name), text]))
	const known = chosenBy(lines).flatMap((chosen) => {
		const type = typeOfHeld(chosen.kind, catalogue)
		if (!type) return []
		const text = given.get(nameKey(chosen.name))
		const value =
			text === undefined
				? startOf(store, chosen, { type, actor, now })
				: type.kind === 'row'
					? seenRow(store, type.table, { id: text, actor, now })
					: readHeld(text, type)
		return [[nameKey(chosen.name), { type, value }] as const]
	})
	return new Map(known)
}

function seenRow(store: Store, table: Table, { id, actor, now }: { id: string; actor: Actor; now: number }): Plain {
	const page = readRows(store, actor, { table: table.id, row: id, columns: [] }, now)
	return page.rows[0] ? (store.ids.fromId(table.id, id) ?? null) : null
}

/** What it begins as, as this person sees the data: a row only where they see it. */
function startOf(
	store: Store,
	{ starts = '' }: Chosen,
	{ type, actor, now }: { type: Type; actor: Actor; now: number }
): Plain {
	if (starts.trim() === '') return null
	const { value } = workOutAlone(store, starts, { standing: standingOf(store, actor, now) })
	if (type.kind !== 'row') return value
	return typeof value === 'number'
		? seenRow(store, type.table, { id: store.ids.toId(type.table.id, value), actor, now })
		: null
}
