import type { AnswerTo, AskedOf, Without } from '$lib/core/requests/pair.ts'
import type { StructureRequests } from '$lib/core/requests/structure.ts'
import { send, type Sent } from '../send.ts'

export type StructureStep = AskedOf<StructureRequests>
/** A step on a table, or on a column, that whoever takes it names. */
export type TableStep = Without<Extract<StructureStep, { readonly table: number }>, 'table'>
export type ColumnStep = Without<
	Extract<StructureStep, { readonly table: number; readonly column: number }>,
	'table' | 'column'
>

/** Does a step, or asks what it would come to. `version` is the workspace's that it is in force with. */
export function changeStructure<const A extends StructureStep>(step: A): Promise<Sent<AnswerTo<StructureRequests, A>>> {
	return send('POST', '/bench/structure', step)
}
