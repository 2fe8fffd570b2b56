/** The slot for what may be done with rows. */
import { VERBS, type Verb } from '../../access/types.ts'
import type { Reading, SlotEntry } from './entry.ts'
import { joinWords, readEach } from './names.ts'

export const verbs: SlotEntry<readonly Verb[]> = {
	isFormula: false,
	print: (value) => joinWords(value, 'and'),
	printExact: (value) => value.join(', '),
	read: readVerbs,
	readExact: readVerbs
}

function readVerbs(text: string): Reading<readonly Verb[]> {
	return readEach(text.toLowerCase().split(/\s*,\s*|\s+and\s+|\s+/), (word) => {
		const found = VERBS.find((verb) => verb === word)
		return found === undefined
			? { message: `"${word}" is nothing one may do. Choose from ${VERBS.join(', ')}.` }
			: { value: found }
	})
}
