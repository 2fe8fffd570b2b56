/** A message's text: words, and formulas in braces. `{{` stands for a brace. */
import { moneyOf } from '../formula/check/money-of.ts'
import { PIECE } from '../text/pieces.ts'
import type { Scope } from '../formula/check/check-call.ts'
import { check, type Checked } from '../formula/check/check.ts'
import { isErrorValue, type Expr, type Issue, type Value } from '../model/formula.ts'
import { showValue } from '../table/show-value.ts'
import { showWorked } from '../table/show-worked.ts'
import type { Catalogue } from '../model/table.ts'

export type MessagePart = { readonly text: string } | { readonly expr: Expr }

export interface MessageText {
	readonly parts: readonly MessagePart[]
	readonly issues: readonly Issue[]
}

/** A text with formulas in braces, as its parts; what cannot be read is told by place. */
export function parseMessage(text: string, scope: Scope): MessageText {
	const parts: MessagePart[] = []
	const issues: Issue[] = []
	let at = 0
	for (const match of text.matchAll(PIECE)) {
		parts.push({ text: text.slice(at, match.index) })
		at = match.index + match[0].length
		if (match[1] === undefined) {
			parts.push({ text: '{' })
			continue
		}
		const checked = checkPiece(match[1], scope)
		issues.push(...checked.issues)
		if (checked.expr) parts.push({ expr: checked.expr })
	}
	parts.push({ text: text.slice(at) })
	return { parts, issues }
}

/** The words that a formula's value stands for in a message: each as its column shows it, errors and blanks as nothing. */
export function showResult(expr: Expr, value: Value, catalogue: Catalogue): string {
	if (isErrorValue(value) || value === null) return ''
	if (expr.kind === 'field' && !expr.column.computed) return showValue(value, expr.column)
	return showWorked({ value, type: expr.type, money: moneyOf(expr) }, catalogue)
}

/** A formula in a message; a reference is read as the label of its row. */
function checkPiece(text: string, scope: Scope): Checked {
	const checked = check(text, scope)
	return checked.expr?.type.kind === 'row' ? check(`"" & (${text})`, scope) : checked
}
