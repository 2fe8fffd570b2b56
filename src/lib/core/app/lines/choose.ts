import { z } from 'zod'
import { mistake, TABLE_GONE } from '../../document/findings.ts'
import { checkHeldName } from '../../sentence/held-kind.ts'
import { formula, number, words } from '../../document/parts.ts'
import { checkCondition } from '../../formula/check/check.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom, WHICH_ROWS } from './parts.ts'
import { remarkUnseen } from './unseen.ts'

export const chooseSchema = z.object({
	...lineParts,
	kind: z.literal('choose'),
	table: number,
	where: formula,
	/** What the chosen row is called, for the other lines of the screen: `here.harbour`. */
	holds: words,
	/** What is asked; the table's name, where it is blank. */
	label: words.default('')
})
export type ChooseLine = z.infer<typeof chooseSchema>

export const choose: LineEntry<ChooseLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'choose',
			about: 'Lets one row of a few be chosen, by which other lines of the screen go',
			tableKey: 'table',
			parts: withWhom(
				'Choose among ',
				{ key: 'table', type: 'table', title: 'a table' },
				' ',
				WHICH_ROWS,
				' as ',
				{ key: 'holds', type: 'text', title: 'one word' },
				{ key: 'label', type: 'text', title: 'What is asked', before: ', asking ', clause: 'asking…' }
			)
		},
		blank: { kind: 'choose', table: null, where: '', holds: 'chosen', label: '', who: [] }
	},
	chooses: ({ holds, table }) => (holds === '' ? undefined : { name: holds, kind: { table } }),
	check(line, around) {
		const table = around.catalogue.tables.get(line.table)
		if (!table) return mistake(TABLE_GONE)
		const { catalogue, here } = around
		const { issues } = checkCondition(line.where, { catalogue, rows: [table], me: true, here })
		return [
			...checkWhom(line, around),
			...(line.holds === '' ? mistake('Say what the chosen row is called, in one word.') : checkHeldName(line.holds)),
			...(line.where.trim() === '' ? [] : issues.flatMap(({ message }) => mistake(message))),
			...remarkUnseen(table, around.lines)
		]
	}
}
