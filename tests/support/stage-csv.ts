/** Rows of a CSV that wait to go into a table, as they do once a file was read. */
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { importPlanSchema, type MergeInto } from '$lib/core/exchange/plan.ts'
import { TYPED } from '$lib/core/model/writing.ts'
import type { ColumnTypeName } from '$lib/core/model/table.ts'
import { bringIn } from '$lib/server/sources/bring-in.ts'
import { writeBatch } from '$lib/server/sources/import-table.ts'
import { beginMerge, type Staging } from '$lib/server/sources/stage-merge.ts'
import type { Store } from '$lib/server/store/store.ts'

const folder = mkdtempSync(join(tmpdir(), 'tin-shed-stage-'))

export interface ToStage {
	/** With a row of headings. */
	readonly text: string
	/** The columns that the file's columns go into, in its order. */
	readonly columns: readonly { readonly to: number; readonly type: ColumnTypeName }[]
	readonly into: MergeInto
	readonly person: number
	readonly now: number
}

export async function stageCsv(store: Store, { text, columns, into, person, now }: ToStage): Promise<Staging> {
	const path = join(folder, 'staged.csv')
	writeFileSync(path, text)
	const actor = { person }
	const plan = importPlanSchema.parse({
		...{ sheet: '', headingRow: 0, firstRow: 1, tableName: 'staged', label: 0 },
		columns: columns.map(({ to, type }, from) => ({
			...{ from, to, type, name: `column ${from}`, include: true, fixes: [] },
			writing: { ...TYPED, dates: 'year first' }
		})),
		into
	})
	const begun = beginMerge(store, { plan, actor })
	const watch = { onProgress: () => undefined, isStopped: () => false }
	const args = { path, name: 'staged.csv', plan, begun, now, person }
	await bringIn(args, async (batch) => writeBatch(store, batch), watch)
	return { begun, plan, actor, now }
}
