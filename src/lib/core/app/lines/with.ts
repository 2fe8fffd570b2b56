import { z } from 'zod'
import { mistake, type Found } from '../../document/findings.ts'
import { fitsHeld } from '../../sentence/held-kind.ts'
import { formula, words } from '../../document/parts.ts'
import { check } from '../../formula/check/check.ts'
import type { Here } from '../../formula/check/check-call.ts'
import type { Type } from '../../model/formula.ts'
import { nameKey } from '../../text/key.ts'
import { PLAIN_LINE, type Around, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'
import type { TreeLine } from './tree.ts'

export const withSchema = z.object({
	...lineParts,
	kind: z.literal('with'),
	/** Over the row that the button stands on, where it stands on one; that row itself, where it is blank. */
	value: formula.default(''),
	/** What it is called on the screen that gets it. */
	as: words
})
export type WithLine = z.infer<typeof withSchema>

/** What a line gives a screen; its own check says whether that screen takes it. */
export const given: LineEntry<WithLine> = {
	...PLAIN_LINE,
	isInner: true,
	sentence: {
		kind: {
			kind: 'with',
			about: 'A value that a button or a welcome gives the screen it opens, or this one',
			parts: withWhom('With ', { key: 'value', type: 'formula', title: 'Which value', empty: 'the row' }, ' as ', {
				key: 'as',
				type: 'text',
				title: 'one word'
			})
		},
		blank: { kind: 'with', value: '', as: '', who: [] }
	},
	check: (line, around) => [
		...checkWhom(line, around),
		...(line.as === '' ? mistake('Say what the value is called there, in one word.') : [])
	]
}

/** What a line gives the screen that it opens, or the one that it stands on. */
export function givenBy({ lines }: { readonly lines: readonly TreeLine[] }): WithLine[] {
	return lines.filter((line): line is WithLine => line.kind === 'with')
}

/** What is wrong with what a line gives to a screen that holds `wanted`. */
export function checkGiven(line: WithLine, wanted: Here | undefined, around: Around): Found[] {
	if (line.as === '') return []
	const { type, found } = typeOf(line, around)
	const held = wanted?.get(nameKey(line.as))
	if (!held) return [...found, ...mistake(`That screen holds nothing that is called "${line.as}".`)]
	const fits = !type || fitsHeld(type, held.type)
	return [...found, ...(fits ? [] : mistake(`What it gives as "${line.as}" is of another kind than is held there.`))]
}

function typeOf({ value }: WithLine, around: Around): { type: Type | undefined; found: Found[] } {
	const { catalogue, here } = around
	const table = around.table === undefined ? undefined : catalogue.tables.get(around.table)
	if (value.trim() === '') {
		const type: Type | undefined = table && { kind: 'row', table }
		return { type, found: type ? [] : mistake('There is no row here to give. Write which value it gives.') }
	}
	const { expr, issues } = check(value, { catalogue, rows: table ? [table] : [], me: true, here })
	return { type: expr?.type, found: issues.flatMap(({ message }) => mistake(message)) }
}
