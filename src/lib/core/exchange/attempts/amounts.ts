/** Numbers, money and shares of a hundred, and whether a dot or a comma stands before their decimals. */
import { CURRENCY_CODES, CURRENCY_MARK, CURRENCY_MARKS } from '../../table/kinds/currency.ts'
import { TYPED, type Writing } from '../../model/writing.ts'
import { parseNumber } from '../../table/kinds/numbers.ts'
import type { Doubt } from '../guess.ts'
import { strays, unreadable, type Attempt, type Filled } from './attempt.ts'

export const asPercent: Attempt = (plain, filled) => {
	const refused = strays(filled, (text) => /^[-+]?[\d.,]+\s*%$/.test(text))
	return refused && { ...plain, type: 'percent', writing: writingOf(filled), doubts: unreadable(refused) }
}

export const asMoney: Attempt = (plain, filled) => {
	const signs = new Set(filled.flatMap(({ text }) => CURRENCY_MARK.exec(text)?.[0] ?? []))
	const [inHeading] = CURRENCY_MARK.exec(`${plain.name} ${plain.unit ?? ''}`) ?? []
	if (signs.size > 1) return undefined
	const marked = filled.some(({ text }) => CURRENCY.test(text))
	const named = /\b(salary|arrears|prices?|fees?)\b/i.test(plain.name) && !plain.unit
	if (
		!marked &&
		!named &&
		inHeading === undefined &&
		!(MONEY_NAME.test(plain.name) && filled.every(({ text }) => /[.,]\d\d$/.test(text)))
	)
		return undefined
	const bare = filled.map(({ text, ...rest }) => ({
		...rest,
		text: text
			.replace(CURRENCY_MARKS, '')
			.replace(/^\((.*)\)$/, '-$1')
			.trim()
	}))
	const number = asNumber(plain, bare)
	if (!number || number.type === 'text') return undefined
	const { places: _places, ...rest } = number
	const unit = [...signs][0] ?? inHeading ?? plain.unit
	// Nobody has said what money it is: none is made up.
	const open: Doubt[] = unit === undefined ? [{ kind: 'currency', sample: filled[0]?.text ?? '' }] : []
	const doubts = [...open, ...morePlaces(bare, rest.writing, unit), ...rest.doubts]
	return { ...rest, type: 'money', ...(unit === undefined ? {} : { unit }), doubts }
}

export const asNumber: Attempt = (plain, filled) => {
	const writing = writingOf(filled)
	const other: Writing = { ...TYPED, decimal: writing.decimal === '.' ? ',' : '.' }
	const texts = filled.filter(({ text }) => parseNumber(text, writing) === undefined)
	const commas = texts.filter(({ text }) => parseNumber(text, other) !== undefined)
	const refused = strays(
		filled,
		(text) => parseNumber(text, writing) !== undefined || parseNumber(text, other) !== undefined
	)
	if (!refused || !strays(filled, (text) => !commas.some((each) => each.text === text))) return undefined
	const doubts: Doubt[] = commas.map(({ text, rows }) => ({
		kind: 'other writing',
		text,
		proposed: String(parseNumber(text, other)),
		rows
	}))
	const ambiguous = filled.filter(({ text, typed }) => !typed && /^\d{1,3}[.,]\d{3}$/.test(text))
	if (ambiguous.length === filled.length && ambiguous[0]) {
		doubts.push({
			kind: 'dot or comma',
			sample: ambiguous[0].text,
			rows: ambiguous.flatMap((each) => each.rows).slice(0, 20)
		})
	}
	const numbers = filled.map(({ text }) => parseNumber(text, writing) ?? parseNumber(text, other) ?? 0)
	const all = { ...plain, writing, doubts: [...doubts, ...unreadable(refused)] }
	if (
		numbers.every(Number.isInteger) &&
		!filled.some(({ text }) => /[.,]\d{1,2}$/.test(text) && !/[.,]\d{3}$/.test(text))
	) {
		return numbers.every(Number.isSafeInteger) ? { ...all, type: 'whole number' } : undefined
	}
	// Noughts that are written count: 5.50 has two.
	const places = filled.reduce(
		(most, { text }, i) => Math.max(most, decimalsOf(numbers[i] ?? 0), (/[.,](\d{1,2})$/.exec(text)?.[1] ?? '').length),
		0
	)
	return { ...all, type: 'decimal', ...(places <= 4 ? { places } : {}) }
}

const CURRENCY = new RegExp(`^[-+(]?\\s*[£€$¥]|[£€¥]\\)?$|\\b(${CURRENCY_CODES})\\b`)

const MONEY_NAME = /\b(price|cost|fee|fees|amount|salary|arrears|balance|budget|total|value|paid|due)\b/i

/** A price of a litre has three decimals or four; money keeps two. */
function morePlaces(bare: readonly Filled[], writing: Writing, unit: string | undefined): Doubt[] {
	const longer = bare.filter(({ text }) => decimalsOf(parseNumber(text, writing) ?? 0) > 2)
	const count = longer.reduce((all, each) => all + each.count, 0)
	return longer[0] ? [{ kind: 'more places', sample: longer[0].text, count, unit }] : []
}

function decimalsOf(value: number): number {
	return /e-/.test(String(value)) ? 9 : (String(value).split('.')[1] ?? '').length
}

/** Dot or comma: decided by values that only one of them can read; the dot where there is no such value. */
function writingOf(filled: readonly Filled[]): Writing {
	let comma = 0
	let dot = 0
	for (const { text, count, typed } of filled) {
		// What the file keeps as a number is written our way.
		if (typed) return TYPED
		const bare = text.replace(CURRENCY_MARKS, '').replace('%', '').trim()
		if (/,\d{1,2}$|,\d{4,}$|\.\d{3},/.test(bare)) comma += count
		else if (/\.\d{1,2}$|\.\d{4,}$|,\d{3}\./.test(bare)) dot += count
	}
	return { ...TYPED, decimal: comma > dot ? ',' : '.' }
}
