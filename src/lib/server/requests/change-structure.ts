/** What a builder does to the structure of tables, kind by kind: previews are read, all else is written. */
import type { MadeBy, structureRequestSchema } from '$lib/core/requests/structure.ts'
import type { z } from 'zod'
import type { ByActor } from '../rights/rights-of-actor.ts'
import type { Threads } from '../threads/threads.ts'

type Asked = z.output<typeof structureRequestSchema>

interface Context {
	readonly threads: Threads
	readonly by: ByActor
}

export const STRUCTURE: {
	readonly [K in Asked['kind']]: (asked: Extract<Asked, { kind: K }>, context: Context) => Promise<MadeBy<K>>
} = {
	table: (asked, { threads, by }) => threads.write('addTable', { ...asked, ...by }),
	column: (asked, { threads, by }) => threads.write('addColumn', { ...asked, ...by }),
	'change column': (asked, { threads, by }) => threads.write('changeColumn', { ...asked, ...by }),
	'change table': (asked, { threads, by }) => threads.write('changeTable', { ...asked, ...by }),
	keepers: (asked, { threads, by }) => threads.write('setKeepers', { ...asked, ...by }),
	'table uses': (asked, { threads, by }) => threads.read('previewTableRemoval', { ...asked, ...by }),
	'remove table': (asked, { threads, by }) => threads.write('removeTable', { ...asked, ...by }),
	'return table': (asked, { threads, by }) => threads.write('returnTable', { ...asked, ...by }),
	uses: (asked, { threads, by }) => threads.read('previewRemoval', { ...asked, ...by }),
	remove: (asked, { threads, by }) => threads.write('removeColumn', { ...asked, ...by }),
	return: (asked, { threads, by }) => threads.write('returnColumn', { ...asked, ...by }),
	'would convert': (asked, { threads, by }) => threads.read('previewConversion', { ...asked, ...by }),
	convert: (asked, { threads, by }) => threads.write('convertColumn', { ...asked, ...by }),
	'put back': (asked, { threads, by }) => threads.write('putTableBack', { ...asked, ...by }),
	formula: (asked, { threads, by }) => threads.write('setFormula', { ...asked, ...by }),
	label: (asked, { threads, by }) => threads.write('setLabel', { ...asked, ...by }),
	relations: (asked, { threads, by }) => threads.read('findRelations', { ...asked, ...by }),
	match: (asked, { threads, by }) => threads.read('previewReference', { ...asked, ...by }),
	reference: (asked, { threads, by }) => threads.write('toReference', { ...asked, ...by })
}
