/**
 * What type a column is, from its name and its values together, and what of it could be read in two ways or not at all.
 *
 * Leading noughts stay text, digits past 2^53 stay text, and where day and month or dot and comma could be either, the
 * whole column is the evidence; where there is none, the builder is asked.
 */
import { textKey } from '../text/key.ts'
import { editDistance } from '../text/nearest.ts'
import { findKind } from '../table/kinds/all.ts'
import { CURRENCY_CODES, CURRENCY_MARK, CURRENCY_MARKS } from '../table/kinds/currency.ts'
import { parseDate } from '../table/kinds/date.ts'
import { parseInstant } from '../table/kinds/date-and-time.ts'
import { TYPED, type Writing } from '../table/kinds/kind.ts'
import { partsOf } from '../table/kinds/several-choices.ts'
import { parseNumber } from '../table/kinds/numbers.ts'
import { answersOf } from '../table/kinds/yes-no.ts'
import type { Column, ColumnTypeName } from '../model/table.ts'
import { ColumnCollector, type Collected } from './collect.ts'
import { splitUnit } from './headings.ts'

export interface ColumnGuess {
	readonly name: string
	readonly unit?: string
	readonly type: ColumnTypeName
	readonly places?: number
	readonly choices?: readonly string[]
	readonly writing: Writing
	/** Every row is blank: nothing to bring in. */
	readonly blank: boolean
	readonly doubts: readonly Doubt[]
}

/** Something the builder should settle, with what is proposed. */
export type Doubt =
	| {
			readonly kind: 'day or month'
			readonly both: number
			readonly dayOnly: number
			readonly monthOnly: number
			readonly sample: string
	  }
	| { readonly kind: 'dot or comma'; readonly sample: string; readonly rows: readonly number[] }
	/** Amounts with more decimals than money keeps. */
	| { readonly kind: 'more places'; readonly sample: string; readonly count: number; readonly unit: string | undefined }
	/** Amounts, by their name and digits, without a word of what money they are. */
	| { readonly kind: 'currency'; readonly sample: string }
	/** One value that can only be read by changing it. */
	| {
			readonly kind: 'other writing'
			readonly text: string
			readonly proposed: string
			readonly rows: readonly number[]
	  }
	| { readonly kind: 'spelling'; readonly text: string; readonly proposed: string; readonly rows: readonly number[] }
	| { readonly kind: 'unreadable'; readonly text: string; readonly rows: readonly number[] }

/** Words that stand for nothing in a file. */
export const NULL_WORDS: ReadonlySet<string> = new Set([
	'',
	'-',
	'–',
	'—',
	'n/a',
	'na',
	'null',
	'none',
	'nil',
	'#n/a',
	'?',
	'nan'
])

/** @param text without spaces at its ends */
const LONGEST_NULL_WORD = Math.max(...[...NULL_WORDS].map((word) => word.length))

export function isNothing(text: string): boolean {
	return text.length <= LONGEST_NULL_WORD ? NULL_WORDS.has(text.toLowerCase()) : false
}

/** Among words it may be an answer: damage "None" is not damage unknown. */
export function isWordForNone(text: string): boolean {
	return /^(none|nil)$/i.test(text)
}

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

type Filled = Readonly<Collected>

type Guess = Omit<ColumnGuess, 'blank'>

function guess(name: string, filled: readonly Filled[], unit: string | undefined): Guess {
	const plain: Guess = { name, ...(unit ? { unit } : {}), type: 'text', writing: TYPED, doubts: [] }
	if (filled.length === 0)
		return { ...plain, type: /note|comment|remark|description/i.test(name) ? 'long text' : 'text' }
	for (const attempt of Object.values(attempts())) {
		const found = attempt?.(plain, filled)
		if (found) return found
	}
	const long = filled.some(({ text }) => text.length > 100 || text.includes('\n'))
	return { ...plain, type: long ? 'long text' : 'text' }
}

/** Every type, in the order in which they are tried: the first that nearly all values are wins. */
const attempts = (): Readonly<Record<ColumnTypeName, Attempt | undefined>> => ({
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
})

type Attempt = (plain: Guess, filled: readonly Filled[]) => Guess | undefined

/** The values that a test refuses, or undefined if there are too many for the type to be meant. */
function strays(filled: readonly Filled[], test: (text: string) => boolean): Filled[] | undefined {
	let allowed = Math.floor(filled.reduce((all, each) => all + each.count, 0) * 0.03)
	const refused: Filled[] = []
	for (const each of filled) {
		if (test(each.text)) continue
		allowed -= each.count
		// Most types are ruled out by the first few values; a long column need not be read to its end for each.
		if (allowed < 0) return undefined
		refused.push(each)
	}
	return refused
}

function unreadable(refused: readonly Filled[]): Doubt[] {
	return refused.map(({ text, rows }) => ({ kind: 'unreadable', text, rows }))
}

const ASKS = /^(is|has|can|was|needs?|may)\b|\b(flag|active|done|paid|checked|ticked?|ok)\b|\?$/i

/** Both answers of one pair speak for themselves; a letter, a digit or a mark alone only where the name asks. */
const asYesNo: Attempt = (plain, filled) => {
	const texts = filled.map(({ text }) => text)
	const answers = answersOf(texts)
	if (!answers) return undefined
	const isShort = texts.every((text) => text.length === 1)
	const isDigits = texts.every((text) => /^[01]$/.test(text))
	const speaks = isDigits ? false : answers === 'both' || !isShort
	return speaks || ASKS.test(plain.name) ? { ...plain, type: 'yes/no' } : undefined
}

/** Things that look like numbers but are names: codes, versions, account numbers. */
const asCodeLike: Attempt = (plain, filled) => {
	const { name } = plain
	const all = (test: RegExp) => filled.every(({ text }) => test.test(text))
	const named = (words: RegExp) => words.test(name)
	if (named(/\be-?mail/i)) return undefined
	if (named(/\b(version|release|ip address|hash|guid|uuid)\b/i) && !named(/\b(date|day)\b/i))
		return { ...plain, type: 'text' }
	// The number of an account is a name; what lies in it is an amount, whatever the heading begins with.
	if (named(NUMBERED) && all(/^[\w -]*\d[\w -]*$/)) return { ...plain, type: 'text' }
	if (named(/\b(gtin|ean|upc|isbn|issn|barcode|sku|tag|container|code)\b/i) && all(/^[\w./ -]{2,40}$/))
		return { ...plain, type: 'code' }
	if (all(/^\d{8}$|^\d{12,14}$/) && named(/\b(product|item|article)s?\b/i)) return { ...plain, type: 'code' }
	if (named(PHONE_NAME)) return undefined
	if (filled.some(({ text }) => /^[-+]?0\d+$/.test(text)) && all(/^\d+$/))
		return { ...plain, type: named(/\bid\b|no\.?$|number/i) ? 'code' : 'text' }
	if (filled.some(({ text }) => /^[-+]?\d{16,}$/.test(text))) return { ...plain, type: 'text' }
	if (looksDialled(filled)) return { ...plain, type: 'text' }
	// Two numbers in every cell, `3 4` or `100 200`, not thousands set apart: `1 234 567`, `89 000`.
	const isApart = all(/^\d{1,3}( \d{3})+$/) && !all(/^\d{3} \d{3}$/)
	if (filled.length > 1 && all(/^\d+( \d+)+$/) && !isApart) return { ...plain, type: 'text' }
	if (all(/^\d+[eE]\d+$|^\d+[a-zA-Z]\d+$/) && named(/\b(sku|part|code|ref)\b/i)) return { ...plain, type: 'text' }
	return undefined
}

const NUMBERED = /\b(account|card|post ?code|zip)( (code|no\.?|nr\.?|number|id))?$/i
const PHONE_NAME = /\b(phone|mobile|tel|telephone|fax|contact)\b/i

const DATE_LIKE = /^\d{1,4}[./-]\d{1,2}[./-]\d{1,4}$/

/** Digits as people dial them: a plus or a nought before, brackets or strokes between, and as many as numbers of phones have. */
function looksDialled(filled: readonly Filled[]): boolean {
	const isDialled = ({ text }: Filled) =>
		/^\+?[\d ()./-]{7,24}$/.test(text) && text.replace(/\D/g, '').length >= 7 && !DATE_LIKE.test(text)
	const marked = filled.filter(({ text }) => /^(\+\d|\(0|0\d)/.test(text) && /[ ()/-]/.test(text))
	return filled.every(isDialled) && marked.length * 2 > filled.length
}

const asDate: Attempt = (plain, filled) => {
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

const asDateTime: Attempt = (plain, filled) => {
	const refused = strays(filled, (text) => parseInstant(text, TYPED) !== undefined)
	return refused && { ...plain, type: 'date and time', doubts: unreadable(refused) }
}

const byKind =
	(type: ColumnTypeName, wanted?: RegExp): Attempt =>
	(plain, filled) => {
		if (wanted && !wanted.test(plain.name)) return undefined
		const kind = findKind(type)
		const column: Column = { id: 0, name: plain.name, type }
		const refused = strays(filled, (text) => kind?.read(text, column, TYPED).ok ?? false)
		return refused && { ...plain, type, doubts: unreadable(refused) }
	}

/** `1:30` is a time of day, unless the name speaks of a span or an hour past 23 shows that it cannot be. */
const asTime: Attempt = (plain, filled) => {
	if (SPAN_NAME.test(plain.name) || !filled.every(({ text }) => /:|\d ?[ap]\.?m/i.test(text))) return undefined
	return byKind('time')(plain, filled)
}
const asDuration: Attempt = (plain, filled) =>
	filled.every(({ text }) => /[a-z:]/i.test(text)) ? byKind('duration')(plain, filled) : undefined

const SPAN_NAME = /\b(duration|length|elapsed|hours|minutes|took|time (spent|taken|worked))\b/i

const asEmail = byKind('email')
const asWebAddress: Attempt = (plain, filled) =>
	filled.every(({ text }) => /^(https?:\/\/|www\.)\S+$|^[a-z0-9-]+\.(example|org|com|net)(\/\S*)?$/i.test(text))
		? { ...plain, type: 'web address' }
		: undefined
const asPlace: Attempt = (plain, filled) => {
	const place = byKind('place')(plain, filled)
	return place && filled.every(({ text }) => /\d\.\d.*\d\.\d/.test(text)) ? place : undefined
}
const asPhone: Attempt = (plain, filled) => {
	const signed =
		filled.every(({ text }) => /^(\+\d|\(\d)/.test(text) || /\d[ -]\d/.test(text)) && PHONE_NAME.test(plain.name)
	return signed || /\b(phone|mobile|tel|telephone|fax)\b/i.test(plain.name) ? byKind('phone')(plain, filled) : undefined
}
const asPercent: Attempt = (plain, filled) => {
	const refused = strays(filled, (text) => /^[-+]?[\d.,]+\s*%$/.test(text))
	return refused && { ...plain, type: 'percent', writing: writingOf(filled), doubts: unreadable(refused) }
}

const CURRENCY = new RegExp(`^[-+(]?\\s*[£€$¥]|[£€¥]\\)?$|\\b(${CURRENCY_CODES})\\b`)
const MONEY_NAME = /\b(price|cost|fee|fees|amount|salary|arrears|balance|budget|total|value|paid|due)\b/i

const asMoney: Attempt = (plain, filled) => {
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

/** A price of a litre has three decimals or four; money keeps two. */
function morePlaces(bare: readonly Filled[], writing: Writing, unit: string | undefined): Doubt[] {
	const longer = bare.filter(({ text }) => decimalsOf(parseNumber(text, writing) ?? 0) > 2)
	const count = longer.reduce((all, each) => all + each.count, 0)
	return longer[0] ? [{ kind: 'more places', sample: longer[0].text, count, unit }] : []
}

function decimalsOf(value: number): number {
	return /e-/.test(String(value)) ? 9 : (String(value).split('.')[1] ?? '').length
}

const asNumber: Attempt = (plain, filled) => {
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

const CHOICE_NAME =
	/\b(type|state|status|kind|category|priority|region|country|size|gender|class|grade|verdict|harbour)s?\b/i

const MOST_CHOICES = 20
const LEAST_LISTED = 2

/** "Chain; Shackle": cells that hold several of a few words which come again and again, with semicolons between. */
const asSeveral: Attempt = (plain, filled) => {
	// One semicolon is a slip, or part of a sentence; a list has them again and again.
	const listed = filled.reduce((all, { text, count }) => all + (text.includes(';') ? count : 0), 0)
	if (listed < LEAST_LISTED) return undefined
	const words = new Map<string, { word: string; count: number }>()
	for (const { text, count } of filled) {
		for (const word of partsOf(text)) {
			const known = words.get(textKey(word))
			words.set(textKey(word), { word: known?.word ?? word, count: (known?.count ?? 0) + count })
		}
		if (words.size > MOST_CHOICES) return undefined
	}
	const all = [...words.values()]
	const times = all.reduce((total, { count }) => total + count, 0)
	if (all.length < 2 || times < all.length * 3 || all.some(({ word }) => word.length > 40)) return undefined
	return { ...plain, type: 'several choices', choices: all.map(({ word }) => word) }
}

/** A few words that come again and again. One that came once and nearly says another is likely a slip. */
const asChoice: Attempt = (plain, filled) => {
	const merged = new Map<string, Filled>()
	for (const { text, count, rows, typed } of filled) {
		const key = textKey(text)
		const known = merged.get(key)
		if (known) merged.set(key, { ...known, count: known.count + count, rows: [...known.rows, ...rows] })
		else merged.set(key, { text, count, typed, rows: [...rows] })
	}
	const words = [...merged.values()]
	const count = words.reduce((all, each) => all + each.count, 0)
	if (words.some(({ text }) => text.length > 40) || words.length > 25) return undefined
	const repeated = count >= words.length * 4 && words.length <= 20
	const named = CHOICE_NAME.test(plain.name) && (count >= words.length * 1.5 || /country|gender|size/i.test(plain.name))
	if (words.length < 2 || (!repeated && !named)) return undefined
	const slips = words.flatMap((word) => findSlip(word, words))
	const choices = words
		.filter((word) => !slips.some((slip) => slip.text === word.text))
		.map((word) => mostUsed(word, filled))
	return { ...plain, type: 'choice', choices, doubts: slips }
}

function findSlip(word: Filled, words: readonly Filled[]): Extract<Doubt, { kind: 'spelling' }>[] {
	if (word.count > 2 || word.text.length < 4) return []
	const meant = words.find((other) => {
		const near = editDistance(textKey(other.text), textKey(word.text)) <= Math.max(1, Math.floor(word.text.length / 6))
		return other !== word && other.count >= word.count * 5 && near
	})
	return meant ? [{ kind: 'spelling', text: word.text, proposed: meant.text, rows: word.rows }] : []
}

/** Of several writings of one word, the one that stands there most often. */
function mostUsed(word: Filled, filled: readonly Filled[]): string {
	const same = filled.filter((each) => textKey(each.text) === textKey(word.text))
	return same.reduce(
		(best, each) => (each.count > best.count ? each : best),
		word === same[0] ? word : (same[0] ?? word)
	).text
}
