import type { ChooseLine } from '$lib/core/app/lines/choose.ts'
import { nameKey } from '$lib/core/text/key.ts'
import { rowsToChoose } from './choices.ts'
import { tableOf, type ShownAs } from './view.ts'

export const choose: ShownAs<ChooseLine> = {
	holdsSomething: () => false,
	show({ id, label, table: number, where, holds }, view) {
		const table = tableOf(view, number)
		const choices = table && rowsToChoose(table, where, view)
		if (!choices) return []
		const n = view.here.get(nameKey(holds))?.value
		const chosen = typeof n === 'number' ? view.store.ids.toId(table.id, n) : ''
		return [{ id, kind: 'choose', label: label || table.name, holds, chosen, ...choices }]
	}
}
