/** Steps that decide what comes next: if and otherwise, each row of a set, waiting, and the end. */
import { z } from 'zod'
import { mistake, TABLE_GONE } from '../document/findings.ts'
import { formula, id, number, SPANS } from '../document/parts.ts'
import { checkCondition } from '../formula/check/check.ts'

import { PLAIN_STEP, scopeAt, type StepEntry } from './step-entry.ts'

export const ifStepSchema = z.object({ id, kind: z.literal('if'), where: formula })
export type IfStep = z.infer<typeof ifStepSchema>

export const ifStep: StepEntry<IfStep> = {
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'if',
			about: 'Does what stands in it only where a condition holds',
			parts: ['If ', { key: 'where', type: 'condition', title: 'what must hold' }]
		},
		blank: { kind: 'if', where: '', lines: [] }
	},
	holds: 'steps',
	check: ({ where }, around) =>
		checkCondition(where, scopeAt(around, true)).issues.flatMap(({ message }) => mistake(message))
}

export const elseStepSchema = z.object({ id, kind: z.literal('else') })
export type ElseStep = z.infer<typeof elseStepSchema>

export const elseStep: StepEntry<ElseStep> = {
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'else',
			about: 'Does what stands in it where the condition before it did not hold, or nobody answered in time',
			parts: ['Otherwise']
		},
		blank: { kind: 'else', lines: [] }
	},
	holds: 'steps',
	// Whether an "If" or an "Ask" stands before it is seen where the steps are gone through.
	check: () => []
}

export const eachStepSchema = z.object({
	...{ id, kind: z.literal('each'), table: number, where: formula },
	/** Of people, only those who hold it. */
	role: number.nullish()
})
export type EachStep = z.infer<typeof eachStepSchema>

export const eachStep: StepEntry<EachStep> = {
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'each',
			about: 'Does what stands in it for each row of a table that fits, one after the other',
			tableKey: 'table',
			parts: [
				'For each row of ',
				{ key: 'table', type: 'table', title: 'a table' },
				' ',
				{ key: 'where', type: 'condition', title: 'Which rows', before: 'where ', empty: 'whatever it says' },
				{ key: 'role', type: 'role', title: 'Which people', before: ', who are ', clause: 'who hold a role…' }
			]
		},
		blank: { kind: 'each', table: null, where: '', lines: [] }
	},
	holds: 'steps',
	needsRow: false,
	readsRows: true,
	goesThrough: true,
	check({ table: id, where, role }, { catalogue, table, hasRole, ...around }) {
		const inner = catalogue.tables.get(id)
		if (!inner) return mistake(TABLE_GONE)
		if (typeof role === 'number' && !hasRole(role)) return mistake('The role that it goes by is gone. Choose another.')
		if (typeof role === 'number' && inner !== catalogue.people)
			return mistake(`Rows of ${inner.name} hold no roles. Go through ${catalogue.people.name}, or take the role off.`)
		if (where.trim() === '') return []
		const scope = scopeAt({ ...around, hasRole, catalogue, table: inner, outer: table }, true)
		return checkCondition(where, scope).issues.flatMap(({ message }) => mistake(message))
	}
}

export const waitStepSchema = z.object({
	id,
	kind: z.literal('wait'),
	many: z.number().int().min(1).max(10_000),
	span: z.enum(SPANS)
})
export type WaitStep = z.infer<typeof waitStepSchema>

export const waitStep: StepEntry<WaitStep> = {
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'wait',
			about: 'Goes on with the next step after a while; the row may have changed by then',
			parts: [
				'Wait ',
				{ key: 'many', type: 'count', title: 'how many' },
				' ',
				{ key: 'span', type: 'span', title: 'of what' }
			]
		},
		blank: { kind: 'wait', many: 1, span: 'days' }
	},
	needsRow: false,
	check: () => []
}

export const stopStepSchema = z.object({ id, kind: z.literal('stop') })
export type StopStep = z.infer<typeof stopStepSchema>

export const stopStep: StepEntry<StopStep> = {
	...PLAIN_STEP,
	sentence: { kind: { kind: 'stop', about: 'Ends here', parts: ['Stop here'] }, blank: { kind: 'stop' } },
	needsRow: false,
	check: () => []
}
