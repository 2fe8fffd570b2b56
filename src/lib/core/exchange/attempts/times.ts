/** Dates, moments, times of day and spans. */
import { parseDate } from '../../table/kinds/date.ts'
import { parseInstant } from '../../table/kinds/date-and-time.ts'
import { TYPED, type Writing } from '../../model/writing.ts'
import type { Doubt } from '../guess.ts'
import { byKind, strays, unreadable, type Attempt, type Filled } from './attempt.ts'

export const asDate: Attempt = (plain, filled) => {
	if (filled.every(({ text }) => /^\d{8}$/.test(text)) && !/\b(date|day|due)\b/i.test(plain.name)) return undefined
	const midnight = (text: string) => text.replace(/[T ]00:00(:00(\.0+)?)?Z?$/, '')
	const compact = (text: string) => text.replace(/^(\d{4})(\d{2})(\d{2})$/, '$1-$2-$3')
	const read = (text: string, dates: Writing['dates']) => parseDate(compact(midnight(text)), { ...TYPED, dates })
	const refused = strays(
		filled,
		(text) => read(text, 'day first') !== undefined || read(text, 'month first') !== undefined
	)
	if (!refused) return undefined
	const counts = countOrders(filled, read)
	const monthFirst = counts.monthOnly > counts.dayOnly
	const writing: Writing = { ...TYPED, dates: monthFirst ? 'month first' : 'day first' }
	// Dates that fit one order only say how the others are meant; where they differ, or there are none, the builder does.
	const isOpen = counts.dayOnly > 0 === counts.monthOnly > 0
	const order: Doubt[] = counts.both > 0 && isOpen ? [{ kind: 'day or month', ...counts }] : []
	const wrong = filled.filter(
		({ text }) => read(text, writing.dates) === undefined && !refused.some((each) => each.text === text)
	)
	return { ...plain, type: 'date', writing, doubts: [...order, ...unreadable([...refused, ...wrong])] }
}

export const asDateTime: Attempt = (plain, filled) => {
	const refused = strays(filled, (text) => parseInstant(text, TYPED) !== undefined)
	return refused && { ...plain, type: 'date and time', doubts: unreadable(refused) }
}

/** `1:30` is a time of day, unless the name speaks of a span or an hour past 23 shows that it cannot be. */
export const asTime: Attempt = (plain, filled) => {
	if (SPAN_NAME.test(plain.name) || !filled.every(({ text }) => /:|\d ?[ap]\.?m/i.test(text))) return undefined
	return byKind('time')(plain, filled)
}

export const asDuration: Attempt = (plain, filled) =>
	filled.every(({ text }) => /[a-z:]/i.test(text)) ? byKind('duration')(plain, filled) : undefined

function countOrders(filled: readonly Filled[], read: (text: string, dates: Writing['dates']) => string | undefined) {
	const counts = { both: 0, dayOnly: 0, monthOnly: 0, sample: '' }
	for (const { text, count } of filled) {
		const day = read(text, 'day first')
		const month = read(text, 'month first')
		if (day !== undefined && month !== undefined && day !== month) {
			counts.both += count
			counts.sample ||= text
		} else if (day !== undefined && month === undefined) counts.dayOnly += count
		else if (month !== undefined && day === undefined) counts.monthOnly += count
	}
	return counts
}

const SPAN_NAME = /\b(duration|length|elapsed|hours|minutes|took|time (spent|taken|worked))\b/i
