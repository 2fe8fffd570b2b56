/** What of a bundle's tables cannot be in this workspace: formulas that read what is not here, or more than who puts it in holds. */
import { AppError } from '$lib/core/app-error.ts'
import { checkCondition } from '$lib/core/formula/check/check.ts'
import { buildWorkspace } from '$lib/core/workspace/catalogue.ts'
import type { TableEntry, WorkspaceDocument } from '$lib/core/workspace/document.ts'
import type { ByActor } from '../rights/rights-of-actor.ts'
import type { Store } from '../store/store.ts'
import { refuseUnheldRule } from '../structure/rules.ts'

export interface Fitted {
	readonly tables: readonly TableEntry[]
	/** Each with why, in words. */
	readonly leftOut: readonly string[]
}

/** Without the columns, defaults and checks that cannot be read here, and those that read such columns. */
export function fitTables(document: WorkspaceDocument, given: readonly TableEntry[]): Fitted {
	const leftOut: string[] = []
	for (let tables = given; ;) {
		const { catalogue, issues } = buildWorkspace({ ...document, tables: [...document.tables, ...tables] })
		const wrong = new Map(issues.flatMap(({ place, message }) => ('column' in place ? [[place.column, message]] : [])))
		const fitted = tables.map((table): TableEntry => {
			const rows = catalogue.tables.get(table.id)
			const scope = { catalogue, rows: rows ? [rows] : [], me: true }
			const checks = (table.checks ?? []).filter(({ formula, message }) => {
				const { expr, issues } = checkCondition(formula, scope)
				if (!expr) leftOut.push(`${table.name}, its check "${message}": ${issues[0]?.message ?? ''}`)
				return expr !== undefined
			})
			const columns = table.columns.flatMap((column) => {
				const why = wrong.get(column.id)
				if (why === undefined || (column.type !== 'computed' && column.otherwise === undefined)) return [column]
				if (column.type === 'computed') {
					leftOut.push(`${table.name}, ${column.name}: ${why}`)
					return []
				}
				leftOut.push(`${table.name}, the default of ${column.name}: ${why}`)
				const { otherwise: _otherwise, ...rest } = column
				return [rest]
			})
			return { ...table, columns, ...(table.checks ? { checks } : {}) }
		})
		if (JSON.stringify(fitted) === JSON.stringify(tables)) return { tables, leftOut }
		tables = fitted
	}
}

/** Without the checks and defaults that read more than this person holds. Asked once the tables are there. */
export function heldRules(store: Store, given: readonly TableEntry[], by: ByActor): Fitted {
	const leftOut: string[] = []
	const tables = given.map((table): TableEntry => {
		const isHeld = (kind: 'check' | 'default', text: string, what: string) => {
			try {
				refuseUnheldRule(store, { table: table.id, kind, text, ...by })
				return true
			} catch (thrown) {
				if (!(thrown instanceof AppError)) throw thrown
				leftOut.push(`${table.name}, ${what}: ${thrown.message}`)
				return false
			}
		}
		const columns = table.columns.map(({ otherwise, ...column }) =>
			otherwise !== undefined && isHeld('default', otherwise, `the default of ${column.name}`)
				? { ...column, otherwise }
				: column
		)
		const checks = (table.checks ?? []).filter(({ formula, message }) =>
			isHeld('check', formula, `its check "${message}"`)
		)
		return { ...table, columns, ...(table.checks ? { checks } : {}) }
	})
	return { tables, leftOut }
}
