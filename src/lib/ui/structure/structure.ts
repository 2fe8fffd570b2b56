import { send, type Sent } from '../send.ts'

/** A step on the structure of a table, as `/bench/structure` takes it. */
export interface StructureStep {
	readonly kind: string
	readonly [part: string]: unknown
}

/** Does a step, or asks what it would come to. `version` is the workspace's that it is in force with. */
export function changeStructure<T = unknown>(step: StructureStep): Promise<Sent<{ made: T; version: number }>> {
	return send('/bench/structure', step)
}
