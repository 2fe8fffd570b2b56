import type { Database } from 'better-sqlite3'
import { numberText, power } from '$lib/core/number/arithmetic.ts'
import { call, decodeSets, errorNumber } from '$lib/core/formula/functions/define.ts'
import { REGISTERED } from '$lib/core/formula/functions/table.ts'
import { isErrorValue, type FunctionEntry, type Value } from '$lib/core/model/formula.ts'
import { showDuration } from '$lib/core/table/show-times.ts'
import { textKey } from '$lib/core/text/key.ts'

/**
 * Registers the TypeScript that compiled formulas call, so that both lives of a formula run the same code. `onTick` is
 * called by scans from time to time (`core/query/request.ts`).
 */
export function registerFunctions(db: Database, onTick: () => void = () => undefined): void {
	db.function('tick', () => {
		onTick()
		return 1
	})
	const pure = { deterministic: true, directOnly: false } as const
	db.function('text_key', pure, (text: unknown) => (text === null ? null : textKey(String(text))))
	db.function('number_text', pure, (value: unknown) => (typeof value === 'number' ? numberText(value) : value))
	db.function('duration_text', pure, (days: unknown) => (days === null ? null : showDuration(Number(days))))
	db.function('number_power', pure, (base: unknown, exponent: unknown) => power(Number(base), Number(exponent)) ?? null)
	db.aggregate('gather', {
		...pure,
		start: (): unknown[] => [],
		step: (values: unknown[], value: unknown) => void values.push(value),
		result: (values: unknown[]) => JSON.stringify(values)
	})
	db.function('gather_list', { ...pure, varargs: true }, (...values: unknown[]) => JSON.stringify(values))
	for (const entry of REGISTERED) registerEntry(db, entry)
}

function registerEntry(db: Database, entry: FunctionEntry): void {
	const name = entry.name.toLowerCase().replaceAll('.', '_')
	const options = { deterministic: true, varargs: true } as const
	const work = (args: unknown[]) => call(entry, decodeSets(entry, args))
	db.function(`fn_${name}`, options, (...args: unknown[]) => toStored(work(args)))
	if (entry.canFail) db.function(`fault_${name}`, options, (...args: unknown[]) => errorNumber(work(args)))
}

function toStored(value: Value): number | string | null {
	if (isErrorValue(value)) return null
	return typeof value === 'boolean' ? Number(value) : value
}
