/** What is wrong with words to somebody: formulas in them are read as their reader sees the rows. */
import { mistake, type Found } from '../document/findings.ts'
import { parseMessage } from './message-text.ts'
import { scopeAt, scopeOfReader, scopeOfWords, type AroundStep } from './step-entry.ts'

const KEPT =
	'What the routine holds was read as whoever it acts as, and may not be for whoever reads this. Write the formula itself: it is worked out as its reader sees the row.'

/** Of what the routine holds, only what was read from no row is shown to others. */
export function checkWords(texts: readonly string[], around: AroundStep): Found[] {
	return checkIn(texts, around, scopeOfWords(around))
}

/** Of words that are put together later and elsewhere, where nothing that is held reaches. */
export function checkWordsLater(texts: readonly string[], around: AroundStep): Found[] {
	return checkIn(texts, around, scopeOfReader(around))
}

function checkIn(texts: readonly string[], around: AroundStep, scope: ReturnType<typeof scopeAt>): Found[] {
	return texts.flatMap((text) => {
		const { issues } = parseMessage(text, scope)
		if (issues.length === 0) return []
		const isOnlyKept = parseMessage(text, scopeAt(around, true)).issues.length === 0
		return isOnlyKept ? mistake(KEPT) : issues.flatMap(({ message }) => mistake(message))
	})
}
