/**
 * What type a column is, from its name and its values together, and what of it could be read in two ways or not at all.
 *
 * Leading noughts stay text, digits past 2^53 stay text, and where day and month or dot and comma could be either, the
 * whole column is the evidence; where there is none, the builder is asked.
 */
import { TYPED } from '../model/writing.ts'
import type { ColumnTypeName } from '../model/table.ts'
import { asMoney, asNumber, asPercent } from './attempts/amounts.ts'
import type { Attempt, Filled, Guess } from './attempts/attempt.ts'
import { asChoice, asSeveral } from './attempts/choices.ts'
import { asDate, asDateTime, asDuration, asTime } from './attempts/times.ts'
import { asCodeLike, asEmail, asPhone, asPlace, asWebAddress, asYesNo } from './attempts/words.ts'
import { ColumnCollector, type Collected } from './collect.ts'
import type { ColumnGuess } from './guess.ts'
import { splitUnit } from './headings.ts'
import { isNothing, isWordForNone } from './nothing.ts'

/** `values`: the column from its first row; `firstRow`: the number of that row as people count, for the doubts. */
export function inferColumn(heading: string, values: readonly string[], firstRow: number): ColumnGuess {
	const collector = new ColumnCollector()
	values.forEach((value, i) => collector.add(value, firstRow + i))
	return inferCollected(heading, collector.collected())
}

/** The same from values that were gathered as the rows passed by. */
export function inferCollected(heading: string, collected: readonly Collected[]): ColumnGuess {
	const split = splitUnit(heading)
	const filled = collected.filter(({ text }) => !isNothing(text))
	const found = guess(split.name, filled, split.unit)
	const answers = collected.filter(({ text }) => !isNothing(text) || isWordForNone(text))
	const isWords = found.type === 'choice' || found.type === 'text'
	const worded = isWords && answers.length > filled.length ? asChoice(found, answers) : undefined
	return { ...(worded ?? found), blank: filled.length === 0 }
}

function guess(name: string, filled: readonly Filled[], unit: string | undefined): Guess {
	const plain: Guess = { name, ...(unit ? { unit } : {}), type: 'text', writing: TYPED, doubts: [] }
	if (filled.length === 0)
		return { ...plain, type: /note|comment|remark|description/i.test(name) ? 'long text' : 'text' }
	for (const attempt of Object.values(ATTEMPTS)) {
		const found = attempt?.(plain, filled)
		if (found) return found
	}
	const long = filled.some(({ text }) => text.length > 100 || text.includes('\n'))
	return { ...plain, type: long ? 'long text' : 'text' }
}

/** Every type, in the order in which they are tried: the first that nearly all values are wins. */
const ATTEMPTS: Readonly<Record<ColumnTypeName, Attempt | undefined>> = {
	'yes/no': asYesNo,
	code: asCodeLike,
	date: asDate,
	'date and time': asDateTime,
	time: asTime,
	duration: asDuration,
	email: asEmail,
	'web address': asWebAddress,
	place: asPlace,
	phone: asPhone,
	percent: asPercent,
	money: asMoney,
	'whole number': asNumber,
	'several choices': asSeveral,
	choice: asChoice,
	// Whole numbers and decimals are one attempt; the rest no text speaks for, or none but itself.
	decimal: undefined,
	text: undefined,
	'long text': undefined,
	photo: undefined,
	file: undefined,
	ink: undefined,
	signature: undefined,
	reference: undefined,
	computed: undefined
}
