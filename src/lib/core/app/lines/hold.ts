import { z } from 'zod'
import { mistake, TABLE_GONE, type Found } from '../../document/findings.ts'
import { checkHeldName, fitsHeld, kindOfHeld } from '../../sentence/held-kind.ts'
import { formula, number, words } from '../../document/parts.ts'
import { check } from '../../formula/check/check.ts'
import { HELD_KINDS } from '../../sentence/slots/all.ts'
import { nameKey } from '../../text/key.ts'
import { PLAIN_LINE, type Around, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'

export const holdSchema = z.object({
	...lineParts,
	kind: z.literal('hold'),
	what: z.enum(HELD_KINDS),
	/** Of which table it is, for a row. */
	rows: number.nullable().default(null),
	/** What it is called, for the other lines of the screen: `here.nights`. */
	holds: words,
	/** What it is until a link or a button says otherwise; over no row. */
	starts: formula.default('')
})
export type HoldLine = z.infer<typeof holdSchema>

export const hold: LineEntry<HoldLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'hold',
			about:
				'Something that a link or a button gives this screen, and that its other lines read; it shows nothing itself',
			parts: withWhom(
				'Holds ',
				{ key: 'what', type: 'held kind', title: 'what kind of thing' },
				{ key: 'rows', type: 'table', title: 'Of which table the row is', before: ' of ', clause: 'of a table…' },
				' as ',
				{ key: 'holds', type: 'text', title: 'one word' },
				{
					...{ key: 'starts', type: 'formula', title: 'What it begins as' },
					...{ before: ', starting as ', clause: 'starting as…' }
				}
			)
		},
		blank: { kind: 'hold', what: 'a text', rows: null, holds: 'value', starts: '', who: [] }
	},
	chooses(line) {
		const kind = kindOfHeld(line)
		return line.holds === '' || !kind ? undefined : { name: line.holds, kind, starts: line.starts }
	},
	check(line, around) {
		const kind = kindOfHeld(line)
		if (!kind) return mistake('Say of which table the row is.')
		if ('table' in kind && !around.catalogue.tables.has(kind.table)) return mistake(TABLE_GONE)
		return [
			...checkWhom(line, around),
			...(line.holds === '' ? mistake('Say what it is called, in one word.') : checkHeldName(line.holds)),
			...checkStart(line, around)
		]
	}
}

function checkStart({ starts, holds }: HoldLine, { catalogue, here }: Around): Found[] {
	if (starts.trim() === '') return []
	const { expr, issues } = check(starts, { catalogue, rows: [], me: true })
	const type = here?.get(nameKey(holds))?.type
	return [
		...issues.flatMap(({ message }) => mistake(message)),
		...(expr && type && !fitsHeld(expr.type, type)
			? mistake('What it begins as is of another kind than it holds.')
			: [])
	]
}
