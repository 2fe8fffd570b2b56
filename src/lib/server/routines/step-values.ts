/** What formulas of a step come to on the row at hand, as whoever the routine acts as reads it. */
import { AppError } from '$lib/core/app-error.ts'
import { check } from '$lib/core/formula/check/check.ts'
import { isErrorValue, type Plain } from '$lib/core/model/formula.ts'
import type { Step } from '$lib/core/routine/routine.ts'
import { nameKey } from '$lib/core/text/key.ts'
import { scopeOf } from './conditions.ts'
import type { Held } from './held.ts'
import type { StepNow } from './step-now.ts'
import { sightOf, workOut } from './work-out.ts'

/** A row by its number. */
export function valueOf(formula: string, now: StepNow): Plain {
	const { store, at, acting } = now
	const { expr, issues } = check(formula, scopeOf(now))
	if (!expr) throw new AppError('invalid', `This cannot run: ${issues[0]?.message ?? 'its formula is damaged.'}`)
	const value = workOut(store, expr, { ...at, ...sightOf(acting) })
	if (isErrorValue(value)) throw new AppError('invalid', `"${formula}" could not be worked out, so it stopped here.`)
	return value
}

/** Those of the lines "Give … as …", by their names as they are written. */
export function namedValues(lines: readonly Step[], now: StepNow): Held {
	return Object.fromEntries(
		lines.flatMap((line) => (line.kind === 'give' ? [[line.as, valueOf(line.value, now)] as const] : []))
	)
}

/** The same by the keys of their names. */
export function valuesOf(lines: readonly Step[], now: StepNow): Held {
	return Object.fromEntries(Object.entries(namedValues(lines, now)).map(([name, value]) => [nameKey(name), value]))
}
