/** Works a kept column out for every row, after its formula was written or changed. */
import { evaluate } from '$lib/core/formula/evaluate/evaluate.ts'
import { isErrorValue } from '$lib/core/model/formula.ts'
import { hasKey } from '$lib/core/table/storage.ts'
import type { Column, Table } from '$lib/core/model/table.ts'
import { textKey } from '$lib/core/text/key.ts'
import { readStoredRow, storeEnv } from '../store/stored-row.ts'
import type { Store } from '../store/store.ts'

/** A kept column reads its own row alone, so neither the day nor the moment can matter. */
const NO_MOMENT = { today: '2000-01-01', now: '2000-01-01T00:00:00.000Z' }

/** Works a stored computed column out for each row of its table, errors and keys with it. */
export function fillComputed(store: Store, table: Table, column: Column): void {
	const { computed } = column
	if (!computed) return
	const key = hasKey(column) ? `, c${column.id}k = @key` : ''
	const update = store.db.prepare(
		`UPDATE t${table.id} SET c${column.id} = @value, c${column.id}e = @errorCode${key} WHERE n = @n`
	)
	const env = { ...NO_MOMENT, ...storeEnv(store) }
	for (const n of store.db.prepare<unknown[], number>(`SELECT n FROM t${table.id}`).pluck().all()) {
		const row = readStoredRow(store, table, n)
		if (!row) continue
		const result = evaluate(computed.expr, { ...env, rows: [row] })
		const value = isErrorValue(result) || result === '' ? null : typeof result === 'boolean' ? Number(result) : result
		const keyed = hasKey(column) ? { key: typeof value === 'string' ? textKey(value) : null } : {}
		update.run({ n, value, errorCode: isErrorValue(result) ? result.errorCode : null, ...keyed })
	}
}
