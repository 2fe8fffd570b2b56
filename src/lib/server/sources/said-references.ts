/**
 * Columns of which a file itself says that they name rows of another of its tables (foreign keys) become references once
 * both are in. One that would lose a value stays as it is: it is offered, with what would be lost, like any that is found.
 */
import { getColumn, type Table } from '$lib/core/model/table.ts'
import type { TableEntry } from '$lib/core/workspace/document.ts'
import type { Actor } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import { canBeReference, previewReference, toReference } from '../structure/tables.ts'

export function makeSaidReferences(
	store: Store,
	{ file, actor, now }: { file: string; actor: Actor; now: number }
): void {
	const own = store
		.workspace()
		.document.tables.filter((each) => each.source?.file === file && each.keepers.includes(actor.person))
	const said = own.flatMap(({ id, label, source }) =>
		(source?.references ?? []).map((each) => ({ ...each, id, isLabel: each.column === label }))
	)
	// By what rows are known moves when its column becomes a reference: until then others find them by it.
	for (const { id, column, sheet, to } of [
		...said.filter((each) => !each.isLabel),
		...said.filter((each) => each.isLabel)
	]) {
		const target = own.findLast((each) => each.source?.sheet === sheet && labelName(each) === to.toLowerCase())
		if (!target || !isThere(store.workspace().catalogue.tables.get(id), column)) continue
		const asked = { table: id, column, to: target.id, actor, now }
		if (previewReference(store, asked).unmatched.length === 0) toReference(store, { ...asked, fixes: [] })
	}
}

/** Until it was made a reference, which is another column, or was taken out. */
function isThere(table: Table | undefined, id: number): boolean {
	return table?.columns.some((each) => each.id === id) === true && canBeReference(getColumn(table, id))
}

function labelName({ columns, label }: TableEntry): string | undefined {
	return columns.find((each) => each.id === label)?.name.toLowerCase()
}
