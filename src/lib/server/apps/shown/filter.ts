import { writeHeld } from '$lib/core/app/held-text.ts'
import type { FilterLine } from '$lib/core/app/lines/filter.ts'
import { findColumn } from '$lib/core/model/table.ts'
import { nameKey } from '$lib/core/text/key.ts'
import { valuesToChoose } from './choices.ts'
import { tableOf, type ShownAs } from './view.ts'

export const filter: ShownAs<FilterLine> = {
	holdsSomething: () => false,
	show({ id, label, table: number, column, holds }, view) {
		const table = tableOf(view, number)
		const choices = table && valuesToChoose(table, column, view)
		if (!choices) return []
		const held = view.here.get(nameKey(holds))
		const chosen =
			held?.type.kind === 'row' && typeof held.value === 'number'
				? view.store.ids.toId(held.type.table.id, held.value)
				: writeHeld(held?.value ?? null)
		const name = findColumn(table, column)?.name ?? ''
		return [{ id, kind: 'choose', label: label || name, holds, chosen, ...choices }]
	}
}
