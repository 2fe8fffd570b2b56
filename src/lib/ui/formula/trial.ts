import type { Issue } from '$lib/core/model/formula.ts'
import type { FormulaResult, FormulaTrial } from '$lib/core/requests/formulas.ts'

/** What a condition comes to, or what a value does. */
export type Trial = Partial<FormulaTrial & FormulaResult> & { readonly issues: readonly Issue[] }
