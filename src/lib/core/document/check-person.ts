import type { Scope } from '../formula/check/check-call.ts'
import { check } from '../formula/check/check.ts'
import { mistake, type Found } from './findings.ts'

/** A formula that names a person gives a row of the people table, or an address. */
export function checkPerson(formula: string, scope: Scope): Found[] {
	const { expr, issues } = check(formula, scope)
	if (!expr) return issues.flatMap(({ message }) => mistake(message))
	const names =
		(expr.type.kind === 'row' && expr.type.table.id === scope.catalogue.people.id) || expr.type.kind === 'text'
	return names ? [] : mistake('This names no person. Use a reference to a person, or an email address.')
}
