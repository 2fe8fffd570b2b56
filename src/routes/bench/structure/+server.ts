import { z } from 'zod'
import { columnSchema } from '$lib/core/workspace/document.ts'
import { asJson, readBody } from '$lib/server/answer.ts'
import { getBuilder } from '$lib/server/signed-in.ts'

const table = z.number().int()
// Vouching for a column is no part of making one.
const newColumn = columnSchema.omit({ id: true, vouched: true })
const structureSchema = z.discriminatedUnion('kind', [
	z.object({
		kind: z.literal('table'),
		name: z.string().trim().min(1, 'The table needs a name.').max(80),
		columns: z.array(newColumn).min(1).max(100)
	}),
	z.object({ kind: z.literal('column'), table, column: newColumn }),
	z.object({ kind: z.literal('formula'), table, column: z.number().int(), formula: z.string().max(10_000) }),
	z.object({ kind: z.literal('label'), table, column: z.number().int() }),
	z.object({ kind: z.literal('match'), table, column: z.number().int(), to: z.number().int() }),
	z.object({
		kind: z.literal('reference'),
		table,
		column: z.number().int(),
		to: z.number().int(),
		fixes: z.array(z.tuple([z.string(), z.string()])).max(200)
	})
])

/** What a builder does to the structure of tables they keep. */
export function POST({ locals, request }) {
	return asJson(async () => {
		const by = { actor: getBuilder(locals), now: locals.now }
		const asked = await readBody(request, structureSchema)
		const { host } = locals
		switch (asked.kind) {
			case 'table':
				return { id: await host.write('addTable', { name: asked.name, columns: asked.columns, ...by }) }
			case 'column':
				return { id: await host.write('addColumn', { table: asked.table, column: asked.column, ...by }) }
			case 'formula':
				return host.write('setFormula', { table: asked.table, column: asked.column, formula: asked.formula, ...by })
			case 'label':
				return host.write('setLabel', { table: asked.table, column: asked.column, ...by })
			case 'match':
				return host.read('previewReference', { table: asked.table, column: asked.column, to: asked.to, ...by })
			case 'reference':
				return {
					id: await host.write('toReference', {
						table: asked.table,
						column: asked.column,
						to: asked.to,
						fixes: asked.fixes,
						...by
					})
				}
		}
	})
}
