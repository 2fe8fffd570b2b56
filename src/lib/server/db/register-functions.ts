import type { Database } from 'better-sqlite3'
import { numberText, power } from '$lib/core/formula/numbers.ts'
import { REGISTERED } from '$lib/core/formula/functions/table.ts'
import { isFault, type FunctionEntry, type Plain, type Value } from '$lib/core/formula/types.ts'
import { textKey } from '$lib/core/text/key.ts'

/** Registers the TypeScript that compiled formulas call, so that both lives of a formula run the same code. */
export function registerFunctions(db: Database): void {
	const pure = { deterministic: true, directOnly: false } as const
	db.function('text_key', pure, (text: unknown) => (text === null ? null : textKey(String(text))))
	db.function('number_text', pure, (value: unknown) => (typeof value === 'number' ? numberText(value) : value))
	db.function('number_power', pure, (base: unknown, exponent: unknown) => power(Number(base), Number(exponent)) ?? null)
	for (const entry of REGISTERED) registerEntry(db, entry)
}

function registerEntry(db: Database, entry: FunctionEntry): void {
	const name = entry.name.toLowerCase().replaceAll('.', '_')
	const options = { deterministic: true, varargs: true } as const
	db.function(`fn_${name}`, options, (...args: unknown[]) => toStored(entry.evaluate(...(args as Plain[]))))
	if (entry.canFail) {
		db.function(`fault_${name}`, options, (...args: unknown[]) => {
			const value = entry.evaluate(...(args as Plain[]))
			return isFault(value) ? value.fault : null
		})
	}
}

function toStored(value: Value): number | string | null {
	if (isFault(value)) return null
	return typeof value === 'boolean' ? Number(value) : value
}
