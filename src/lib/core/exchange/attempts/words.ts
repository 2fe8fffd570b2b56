/** Answers, codes and addresses: what is written with letters and digits and is no amount. */
import { answersOf } from '../../table/kinds/yes-no.ts'
import { byKind, type Attempt, type Filled } from './attempt.ts'

/** Both answers of one pair speak for themselves; a letter, a digit or a mark alone only where the name asks. */
export const asYesNo: Attempt = (plain, filled) => {
	const texts = filled.map(({ text }) => text)
	const answers = answersOf(texts)
	if (!answers) return undefined
	const isShort = texts.every((text) => text.length === 1)
	const isDigits = texts.every((text) => /^[01]$/.test(text))
	const speaks = isDigits ? false : answers === 'both' || !isShort
	return speaks || ASKS.test(plain.name) ? { ...plain, type: 'yes/no' } : undefined
}

/** Things that look like numbers but are names: codes, versions, account numbers. */
export const asCodeLike: Attempt = (plain, filled) => {
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

export const asEmail = byKind('email')

export const asWebAddress: Attempt = (plain, filled) =>
	filled.every(({ text }) => /^(https?:\/\/|www\.)\S+$|^[a-z0-9-]+\.(example|org|com|net)(\/\S*)?$/i.test(text))
		? { ...plain, type: 'web address' }
		: undefined

export const asPlace: Attempt = (plain, filled) => {
	const place = byKind('place')(plain, filled)
	return place && filled.every(({ text }) => /\d\.\d.*\d\.\d/.test(text)) ? place : undefined
}

export const asPhone: Attempt = (plain, filled) => {
	const signed =
		filled.every(({ text }) => /^(\+\d|\(\d)/.test(text) || /\d[ -]\d/.test(text)) && PHONE_NAME.test(plain.name)
	return signed || /\b(phone|mobile|tel|telephone|fax)\b/i.test(plain.name) ? byKind('phone')(plain, filled) : undefined
}

const ASKS = /^(is|has|can|was|needs?|may)\b|\b(flag|active|done|paid|checked|ticked?|ok)\b|\?$/i

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
