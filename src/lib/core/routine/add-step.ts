/** Adds a row: its cells are lines of their own, each worked out over the row at hand. */
import { z } from 'zod'
import { mistake, TABLE_GONE } from '../document/findings.ts'
import { formula, id, number } from '../document/parts.ts'
import { checkCondition } from '../formula/check/check.ts'
import { findColumn } from '../model/table.ts'
import { checkSetting } from './set-step.ts'
import { PLAIN_STEP, scopeAt, type StepEntry } from './step-entry.ts'

export const addStepSchema = z.object({
	...{ id, kind: z.literal('add'), table: number },
	/** What holds of a row that is there already, where none is to be added then; `this` is the row at hand. */
	unless: formula.nullish()
})
export type AddStep = z.infer<typeof addStepSchema>

export const addStep: StepEntry<AddStep> = {
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'add',
			about: 'Adds a row to a table, filled as the lines in it say',
			tableKey: 'table',
			parts: [
				'Add a row to ',
				{ key: 'table', type: 'table', title: 'a table' },
				{
					...{ key: 'unless', type: 'condition', title: 'What holds of one that is there already' },
					...{ before: ', unless there is one where ', clause: 'unless there is one where…' }
				}
			]
		},
		blank: { kind: 'add', table: null, lines: [] }
	},
	holds: ['cell', 'link'],
	needsRow: false,
	needsActor: true,
	readsRows: true,
	writes: ({ table }) => [{ table, verb: 'add', columns: [] }],
	check({ table: id, unless }, { catalogue, table: outer, ...around }) {
		const table = catalogue.tables.get(id)
		if (!table) return mistake(TABLE_GONE)
		if ((unless ?? '').trim() === '') return []
		const scope = scopeAt({ ...around, catalogue, table, outer }, true)
		return checkCondition(unless ?? '', scope).issues.flatMap(({ message }) => mistake(message))
	}
}

export const cellStepSchema = z.object({ id, kind: z.literal('cell'), column: number, formula })
export type CellStep = z.infer<typeof cellStepSchema>

export const cellStep: StepEntry<CellStep> = {
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'cell',
			about: 'Fills a column of the row that is added',
			parts: [
				'With ',
				{ key: 'column', type: 'column', title: 'a column' },
				' as ',
				{ key: 'formula', type: 'formula', title: 'a formula', isOuter: true }
			]
		},
		blank: { kind: 'cell', column: null, formula: '' }
	},
	isInner: true,
	needsRow: false,
	writes: ({ column }, at) => (at === undefined ? [] : [{ table: at, verb: 'add', columns: [column] }]),
	check: (step, around) => (around.holds ? checkSetting(step, around.holds, around) : [])
}

export const linkStepSchema = z.object({ id, kind: z.literal('link'), column: number })
export type LinkStep = z.infer<typeof linkStepSchema>

export const linkStep: StepEntry<LinkStep> = {
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'link',
			about: 'Lets the row that is added point to the row at hand',
			parts: ['Pointing to this row by ', { key: 'column', type: 'column', title: 'a reference' }]
		},
		blank: { kind: 'link', column: null }
	},
	isInner: true,
	writes: ({ column }, at) => (at === undefined ? [] : [{ table: at, verb: 'add', columns: [column] }]),
	check({ column: id }, { holds, table }) {
		if (!holds || !table) return []
		const column = findColumn(holds, id)
		if (!column) return mistake('The column it sets is gone.')
		return column.type === 'reference' && column.to === table.id
			? []
			: mistake(`${column.name} points to no row of ${table.name}. Choose a reference that does.`)
	}
}
