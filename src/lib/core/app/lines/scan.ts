import { z } from 'zod'
import { mistake } from '../../document/findings.ts'
import { id, words } from '../../document/parts.ts'
import { PLAIN_LINE, type LineEntry } from './entry.ts'
import { checkWhom, lineParts, withWhom } from './parts.ts'

export const scanSchema = z.object({
	...lineParts,
	kind: z.literal('scan'),
	/** What is asked. */
	label: words,
	/** One that starts with a code. */
	routine: id.or(z.literal(''))
})
export type ScanLine = z.infer<typeof scanSchema>

/** A box that a scanner types into, as a keyboard would: it does at once what the routine says, and is ready for the next. */
export const scan: LineEntry<ScanLine> = {
	...PLAIN_LINE,
	sentence: {
		kind: {
			kind: 'scan',
			about: 'A box for codes, scanned or typed one after the other: each runs a routine on the row that has it',
			parts: withWhom(
				'Scan for ',
				{ key: 'routine', type: 'routine', title: 'A routine that starts with a code' },
				', asking ',
				{ key: 'label', type: 'text', title: 'What is asked' }
			)
		},
		blank: { kind: 'scan', label: 'Scan or type a code', routine: '', who: [] }
	},
	check: (line, around) => [
		...checkWhom(line, around),
		...(line.label.trim() === '' ? mistake('Say what is asked, for who cannot see the box.') : []),
		...(around.hasScanRoutine(line.routine)
			? []
			: mistake('Say which routine it runs: one that starts when a code is scanned.'))
	]
}
