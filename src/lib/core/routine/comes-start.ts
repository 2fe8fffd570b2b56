/** Starts at a crossing: the condition holds of a row that is saved, and did not hold of it before. */
import { z } from 'zod'
import { mistake, TABLE_GONE } from '../document/findings.ts'
import { formula, number } from '../document/parts.ts'
import { checkCondition } from '../formula/check/check.ts'
import { isVolatile, someNode } from '../formula/syntax/walk.ts'
import type { Expr } from '../model/formula.ts'
import { NOT_STARTING } from '../sentence/slots/all.ts'
import { ACTS_AS } from './acts-as.ts'
import { NOT_OF_FILES } from './not-of-files.ts'
import { PLAIN_START, type StartEntry } from './step-entry.ts'

export const comesStartSchema = z.object({
	...{ kind: z.literal('comes'), table: number, where: formula },
	but: z.enum(NOT_STARTING).nullish()
})
export type ComesStart = z.infer<typeof comesStartSchema>

export const comesStart: StartEntry<ComesStart> = {
	sentence: {
		kind: {
			kind: 'comes',
			about: 'Starts once when a row comes to fit a condition, and again only after it has not fitted meanwhile',
			tableKey: 'start.table',
			parts: [
				'When a row of ',
				{ key: 'start.table', type: 'table', title: 'a table' },
				' comes to ',
				{ key: 'start.where', type: 'condition', me: false, title: 'what it comes to' },
				', once for each crossing',
				NOT_OF_FILES,
				ACTS_AS
			]
		},
		blank: { start: { kind: 'comes', table: null, where: '' } }
	},
	...PLAIN_START,
	offer: 'when a row comes to fit a condition',
	isPressed: false,
	begin: (table) => ({ kind: 'comes', table, where: '' }),
	check({ where }, table, catalogue) {
		if (!table) return mistake(TABLE_GONE)
		const { expr, issues } = checkCondition(where, { catalogue, rows: [table], me: false })
		if (!expr) return issues.flatMap(({ message }) => mistake(message))
		if (isVolatile(expr))
			return mistake(
				`"${where}" comes true by itself as time goes on, when no row is saved. Start so many days before a date instead, or by the clock.`
			)
		return readsChildren(expr)
			? mistake(
					`"${where}" reads other rows, and changes of those do not save this one. Start when a row of that other table is changed.`
				)
			: []
	}
}

/** Whether it counts or looks at rows that point to its own, whose changes save no row of its table. */
function readsChildren(expr: Expr): boolean {
	return someNode(
		expr,
		(node) =>
			node.kind === 'children' ||
			(node.kind === 'field' && node.column.computed !== undefined && readsChildren(node.column.computed.expr))
	)
}
