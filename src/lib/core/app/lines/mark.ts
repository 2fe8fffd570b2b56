import { z } from 'zod'
import { checkCondition } from '../../formula/check/check.ts'
import { mistake, TABLE_GONE } from '../../document/findings.ts'
import { formula, words } from '../../document/parts.ts'
import { TONES } from '../../sentence/slots/all.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'

export const markSchema = z.object({
	...lineParts,
	kind: z.literal('mark'),
	word: words,
	/** By it the mark has its shape and colour. */
	tone: z.enum(TONES),
	where: formula
})
export type MarkLine = z.infer<typeof markSchema>

export const mark: LineEntry<MarkLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'mark',
			about: 'A word with its shape on each row of a list for which something holds; the first that holds is shown',
			parts: withWhom(
				'Mark ',
				{ key: 'word', type: 'text', title: 'its word' },
				' as ',
				{ key: 'tone', type: 'tone', title: 'What it says' },
				' where ',
				{ key: 'where', type: 'condition', title: 'which rows' }
			)
		},
		blank: { kind: 'mark', word: '', tone: 'look', where: '', who: [] }
	},
	isInner: true,
	check(line, around) {
		const table = around.table === undefined ? undefined : around.catalogue.tables.get(around.table)
		if (!table) return mistake(TABLE_GONE)
		if (line.word.trim() === '') return mistake('The mark has no word. Colour and shape alone say nothing.')
		if (line.where.trim() === '') return mistake('Say which rows the mark is for.')
		const { issues } = checkCondition(line.where, {
			...{ catalogue: around.catalogue, here: around.here },
			...{ rows: [table], me: true }
		})
		return [...checkWhom(line, around), ...issues.flatMap(({ message }) => mistake(message))]
	}
}
