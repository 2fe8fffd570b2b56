/** Values that a routine hands on by name: formulas of later steps read them as `here.name`. */
import { z } from 'zod'
import { mistake, TABLE_GONE, type Found } from '../document/findings.ts'
import { checkHeldName, fitsHeld, kindOfHeld, type HeldWords } from '../sentence/held-kind.ts'
import { formula, id, number, words } from '../document/parts.ts'
import { check } from '../formula/check/check.ts'
import type { Type } from '../model/formula.ts'
import { HELD_KINDS } from '../sentence/slots/all.ts'
import type { Slot } from '../sentence/types.ts'
import { nameKey } from '../text/key.ts'
import { PLAIN_STEP, scopeAt, type AroundStep, type StepEntry } from './step-entry.ts'

const heldParts = { what: z.enum(HELD_KINDS), rows: number.nullable().default(null), holds: words }

const WHAT: Slot = { key: 'what', type: 'held kind', title: 'what kind of thing' }
const ROWS: Slot = {
	...{ key: 'rows', type: 'table', title: 'Of which table the row is' },
	...{ before: ' of ', clause: 'of a table…' }
}
const NAME: Slot = { key: 'holds', type: 'text', title: 'one word' }

export const takeStepSchema = z.object({ id, kind: z.literal('take'), ...heldParts })
export type TakeStep = z.infer<typeof takeStepSchema>

export const takeStep: StepEntry<TakeStep> = {
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'take',
			about: 'A value that whatever starts the routine gives it; later lines read it as here.name',
			parts: ['Take ', WHAT, ROWS, ' as ', NAME]
		},
		blank: { kind: 'take', what: 'a text', rows: null, holds: 'value' }
	},
	needsRow: false,
	check: checkHeld
}

export const keepStepSchema = z.object({ id, kind: z.literal('keep'), value: formula, ...heldParts })
export type KeepStep = z.infer<typeof keepStepSchema>

export const keepStep: StepEntry<KeepStep> = {
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'keep',
			about: 'Works something out now, for later lines to read as here.name, whatever has changed by then',
			parts: ['Keep ', { key: 'value', type: 'formula', title: 'a formula' }, ' as ', NAME, ', ', WHAT, ROWS]
		},
		blank: { kind: 'keep', value: '', what: 'a number', rows: null, holds: 'value' }
	},
	needsRow: false,
	check: (step, around) => [
		...checkHeld(step, around),
		...checkValue(step.value, typeHeldAs(step.holds, around), around)
	]
}

export const giveStepSchema = z.object({ id, kind: z.literal('give'), value: formula, as: words })
export type GiveStep = z.infer<typeof giveStepSchema>

/** What is given to a routine that is run, or to another program that is called; by its name there. */
export const giveStep: StepEntry<GiveStep> = {
	...PLAIN_STEP,
	sentence: {
		kind: {
			kind: 'give',
			about: 'A value that goes along, and the name by which it is read there',
			parts: [
				'Give ',
				{ key: 'value', type: 'formula', title: 'a formula' },
				' as ',
				{ key: 'as', type: 'text', title: 'one word' }
			]
		},
		blank: { kind: 'give', value: '', as: '' }
	},
	isInner: true,
	needsRow: false,
	check: ({ value, as }, around) => [
		...(as === '' ? mistake('Say what the value is called there, in one word.') : checkHeldName(as)),
		...checkValue(value, undefined, around)
	]
}

function checkHeld(held: HeldWords & { readonly holds: string }, { catalogue }: AroundStep): Found[] {
	const kind = kindOfHeld(held)
	if (!kind) return mistake('Say of which table the row is.')
	if ('table' in kind && !catalogue.tables.has(kind.table)) return mistake(TABLE_GONE)
	return held.holds === '' ? mistake('Say what it is called, in one word.') : checkHeldName(held.holds)
}

function typeHeldAs(name: string, { here }: AroundStep): Type | undefined {
	return here.get(nameKey(name))?.type
}

/** What is wrong with the formula of a value, which comes to one of `wanted`. */
export function checkValue(value: string, wanted: Type | undefined, around: AroundStep): Found[] {
	if (value.trim() === '') return mistake('Say what the value is.')
	const { expr, issues } = check(value, scopeAt(around, true))
	return [
		...issues.flatMap(({ message }) => mistake(message)),
		...(expr && wanted && !fitsHeld(expr.type, wanted)
			? mistake('The formula comes to another kind of thing than is said there.')
			: [])
	]
}
