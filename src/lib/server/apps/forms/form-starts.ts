/** What entries of a form begin with: their formulas, worked out for whoever opens it. */
import { findKind } from '$lib/core/table/kinds/all.ts'
import { cellKey, type WireCell } from '$lib/core/query/wire.ts'
import type { Column } from '$lib/core/model/table.ts'
import { readRows } from '../../rows/read.ts'
import { entriesIn, type FormPart } from './form-shape.ts'
import { workOutAll, type Filling, type Reach, type WorkedOut } from './work-out-typed.ts'

/** By the ids of entries. What does not fit its column is left out, as if nothing were said. */
export function startsOf(filling: Filling, parts: readonly FormPart[], reach: Reach): ReadonlyMap<string, WireCell> {
	const entries = entriesIn(parts).filter(({ line }) => line !== undefined && line.starts.trim() !== '')
	const valueOf = workOutAll(
		filling,
		reach,
		entries.map(({ line }) => line?.starts ?? '')
	)
	return new Map(
		entries.map(({ id, column, line }) => [id, toCell(filling, column, valueOf(line?.starts ?? ''))] as const)
	)
}

function toCell(filling: Filling, column: Column, found: WorkedOut | undefined): WireCell {
	const value = found?.value ?? null
	if (value === null || value === '') return null
	if (column.type === 'reference') return typeof value === 'number' ? toReference(filling, column, value) : null
	const plain = found?.type.kind === 'yesno' ? value === 1 : value
	if (typeof plain !== 'string' && typeof plain !== 'number' && typeof plain !== 'boolean') return null
	const reading = findKind(column.type)?.check(plain, column)
	return reading?.ok ? reading.value : null
}

/** Under the name that its reader knows it by; blank where they do not see it. */
function toReference({ store, context }: Filling, { to = 0 }: Column, n: number): WireCell {
	const label = store.workspace().catalogue.tables.get(to)?.label ?? 0
	const row = store.ids.toId(to, n)
	const page = readRows(store, context.actor, { table: to, columns: [label], row }, context.now)
	const cell = page.rows[0]?.cells[cellKey(label)]
	return page.rows[0] ? { id: row, label: String(cell ?? '') } : null
}
