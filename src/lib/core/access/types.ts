/** Access belongs to tables. A line lets a role do something with some rows and some columns; nothing takes away. */
import type { Expr } from '../model/formula.ts'

export const VERBS = ['see', 'add', 'change', 'remove'] as const
export type Verb = (typeof VERBS)[number]

export type ColumnScope =
	{ readonly kind: 'all' } | { readonly kind: 'only' | 'except'; readonly columns: readonly number[] }

export interface Line {
	readonly id: string
	readonly table: number
	readonly role: number
	readonly verbs: readonly Verb[]
	/** Which rows; judged on the data as it is, not as the reader sees it. */
	readonly where: Expr
	/** What a row must satisfy after a change; `where` again if there is none. */
	readonly after?: Expr
	readonly columns: ColumnScope
}

export interface Role {
	readonly id: number
	readonly name: string
	readonly includes: readonly number[]
	/** Held by everybody whose row in the people table fits this, beside those who were given it by name. */
	readonly where?: Expr
}

/** Whether a line that names columns so reaches this one. */
export function covers(scope: ColumnScope, column: number): boolean {
	if (scope.kind === 'all') return true
	return scope.columns.includes(column) === (scope.kind === 'only')
}

/** The roles that a person holds, with all that those include. A circle of inclusions is harmless. */
export function closeRoles(
	held: readonly number[],
	roles: readonly Pick<Role, 'id' | 'includes'>[]
): ReadonlySet<number> {
	const byId = new Map(roles.map((role) => [role.id, role]))
	const all = new Set<number>()
	const waiting = [...held]
	for (let id = waiting.pop(); id !== undefined; id = waiting.pop()) {
		if (all.has(id)) continue
		all.add(id)
		waiting.push(...(byId.get(id)?.includes ?? []))
	}
	return all
}
