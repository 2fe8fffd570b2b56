import { z } from 'zod'
import { mistake } from '../../document/findings.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { lineParts } from './parts.ts'

/** A line of a kind that this program does not know, as a newer one wrote it: kept whole, until one reads it that does. */
export const unknownSchema = z.object({
	...lineParts,
	kind: z.literal('unknown'),
	was: z.looseObject({ id: z.string(), kind: z.string() })
})
export type UnknownLine = z.infer<typeof unknownSchema>

export const unknown: LineEntry<UnknownLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'unknown',
			about: 'A line that a newer program wrote',
			parts: [],
			shown: (line) => [
				`A line of the kind "${kindOf(line['was'])}", which needs a newer program. It is kept as it stands.`
			]
		},
		blank: { kind: 'unknown', was: { id: '', kind: '' }, who: [] }
	},
	isAdded: false,
	check: () => mistake('This line needs a newer program. It is kept as it stands; remove it here to go without it.')
}

/**
 * Lines as they were stored, those of unknown kinds set aside whole, those that were set aside and are known now put back.
 * `isKnown`: whether this program has lines of a kind.
 */
export function setAsideUnknown(lines: unknown, isKnown: (kind: string) => boolean): unknown {
	if (!Array.isArray(lines)) return lines
	return lines.map((line: unknown) => {
		const own = isRecord(line) && line['kind'] === 'unknown' && isKnown(kindOf(line['was'])) ? line['was'] : line
		if (!isRecord(own)) return own
		const { id, kind } = own
		if (typeof kind !== 'string' || kind === 'unknown' || isKnown(kind))
			return 'lines' in own ? { ...own, lines: setAsideUnknown(own['lines'], isKnown) } : own
		return { id, kind: 'unknown', who: [], was: own }
	})
}

function isRecord(value: unknown): value is Readonly<Record<string, unknown>> {
	return typeof value === 'object' && value !== null && !Array.isArray(value)
}

function kindOf(line: unknown): string {
	return isRecord(line) && typeof line['kind'] === 'string' ? line['kind'] : ''
}
