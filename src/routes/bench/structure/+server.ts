import { z } from 'zod'
import { columnSchema, tableSchema } from '$lib/core/workspace/document.ts'
import { COLUMN_TYPES } from '$lib/core/model/table.ts'
import { asJson, readBody } from '$lib/server/web/answer.ts'
import { getBuilder } from '$lib/server/web/signed-in.ts'

const number = z.number().int()
const table = number
// Vouching for a column is no part of making one, nor are rules, which are checked when they are written.
const newColumn = columnSchema.omit({ id: true, vouched: true, openAsMe: true, otherwise: true, numbering: true })
const columnWords = columnSchema
	.pick({ name: true, about: true, required: true, unique: true, unit: true, otherwise: true, numbering: true })
	.extend({ uniqueWithin: z.number().int(), onRemoval: columnSchema.shape.onRemoval })
	.extend({ reverseName: columnSchema.shape.reverseName, choices: columnSchema.shape.choices })
	.partial()
const tableWords = tableSchema.pick({ name: true, about: true, checks: true }).partial()
const of = { table, column: number }

const structureSchema = z.discriminatedUnion('kind', [
	z.object({
		kind: z.literal('table'),
		name: z.string().trim().min(1, 'The table needs a name.').max(80),
		columns: z.array(newColumn).min(1).max(100)
	}),
	z.object({ kind: z.literal('column'), table, column: newColumn }),
	z.object({ kind: z.literal('describe column'), ...of, words: columnWords }),
	z.object({ kind: z.literal('describe table'), table, words: tableWords }),
	z.object({ kind: z.literal('keepers'), table, keepers: z.array(number).max(50) }),
	z.object({ kind: z.literal('table uses'), table }),
	z.object({ kind: z.literal('remove table'), table }),
	z.object({ kind: z.literal('return table'), table }),
	z.object({ kind: z.literal('uses'), ...of }),
	z.object({ kind: z.literal('remove'), ...of }),
	z.object({ kind: z.literal('return'), ...of }),
	z.object({ kind: z.literal('would convert'), ...of, type: z.enum(COLUMN_TYPES) }),
	z.object({ kind: z.literal('convert'), ...of, type: z.enum(COLUMN_TYPES) }),
	z.object({ kind: z.literal('put back'), table, version: number }),
	z.object({ kind: z.literal('formula'), table, column: z.number().int(), formula: z.string().max(10_000) }),
	z.object({ kind: z.literal('label'), table, column: z.number().int() }),
	z.object({ kind: z.literal('relations'), table }),
	z.object({ kind: z.literal('match'), table, column: z.number().int(), to: z.number().int() }),
	z.object({
		kind: z.literal('reference'),
		table,
		column: z.number().int(),
		to: z.number().int(),
		fixes: z.array(z.tuple([z.string(), z.string()])).max(200)
	})
])

/** What a builder does to the structure of tables they keep: what came of it, and the version it is in force with. */
export function POST({ locals, request }) {
	return asJson(async () => {
		const by = { actor: getBuilder(locals), now: locals.now }
		const { kind, ...asked } = await readBody(request, structureSchema)
		const step = STEPS[kind]
		// The schema has checked what travels to the step of this kind.
		const args = { ...asked, ...by } as never
		const made = await (step.door === 'read' ? locals.host.read(step.name, args) : locals.host.write(step.name, args))
		const { version } = await locals.host.read('workspace', undefined)
		return { made, version }
	})
}

type Kind = z.infer<typeof structureSchema>['kind']

/** Which door each step goes through, and by what name. */
const STEPS = {
	table: { door: 'write', name: 'addTable' },
	column: { door: 'write', name: 'addColumn' },
	'describe column': { door: 'write', name: 'describeColumn' },
	'describe table': { door: 'write', name: 'describeTable' },
	keepers: { door: 'write', name: 'setKeepers' },
	'table uses': { door: 'read', name: 'previewTableRemoval' },
	'remove table': { door: 'write', name: 'removeTable' },
	'return table': { door: 'write', name: 'returnTable' },
	uses: { door: 'read', name: 'previewRemoval' },
	remove: { door: 'write', name: 'removeColumn' },
	return: { door: 'write', name: 'returnColumn' },
	'would convert': { door: 'read', name: 'previewConversion' },
	convert: { door: 'write', name: 'convertColumn' },
	'put back': { door: 'write', name: 'putTableBack' },
	formula: { door: 'write', name: 'setFormula' },
	label: { door: 'write', name: 'setLabel' },
	relations: { door: 'read', name: 'findRelations' },
	match: { door: 'read', name: 'previewReference' },
	reference: { door: 'write', name: 'toReference' }
} as const satisfies Record<Kind, { door: 'read' | 'write'; name: string }>
