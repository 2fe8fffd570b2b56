/** Functions on text. OpenFormula 6.20 (clause from memory). A character is a Unicode code point; positions start at 1. */
import { partsOf } from '../../table/kinds/several-choices.ts'
import { textKey } from '../../text/key.ts'
import { BAD_VALUE, type FunctionEntry, type Value } from '../../model/formula.ts'
import { family } from './define.ts'
import { showGrouped } from './format-number.ts'
import { findPattern } from './wildcards.ts'

const text = family('text')

/** No formula makes a text longer than this. */
const MAX_TEXT = 100_000

const ONE_TEXT = [{ name: 'text', type: 'text' }] as const
const CUT = [
	{ name: 'text', type: 'text' },
	{ name: 'characters', type: 'number', otherwise: 1 }
] as const
const LOOK = [
	{ name: 'wanted', type: 'text' },
	{ name: 'text', type: 'text' },
	{ name: 'from', type: 'number', otherwise: 1 }
] as const

/** What `"Chain" in needs` becomes, where `needs` is a column of several choices. */
export const AMONG: FunctionEntry = text({
	name: 'AMONG',
	parameters: [
		{ name: 'text', type: 'text' },
		{ name: 'list', type: 'text' }
	],
	result: 'yesno',
	doc: 'Whether a text is one of those that stand in a list with semicolons between them, as several choices do.',
	examples: [['AMONG("Chain"; "Chain; Shackle")', 'yes']],
	canFail: false,
	evaluate: (part, list) => partsOf(list).some((each) => textKey(each) === textKey(part))
})

export const TEXT_FUNCTIONS: readonly FunctionEntry[] = [
	AMONG,
	text({
		name: 'EXACT',
		parameters: [
			{ name: 'one', type: 'text' },
			{ name: 'other', type: 'text' }
		],
		result: 'yesno',
		doc: 'Whether two texts are the same, capital letters and all. "=" does not regard capitals.',
		examples: [['EXACT("Ness"; "NESS")', 'no']],
		canFail: false,
		evaluate: (one, other) => one === other
	}),
	text({
		name: 'LEN',
		parameters: ONE_TEXT,
		result: 'number',
		doc: 'How many characters the text has.',
		examples: [['LEN("Ness Hythe")', '10']],
		canFail: false,
		evaluate: (given) => characters(given).length
	}),
	text({
		name: 'LEFT',
		parameters: CUT,
		result: 'text',
		doc: 'The first characters of the text, one where no number is given.',
		examples: [['LEFT("NH-014"; 2)', 'NH']],
		canFail: true,
		evaluate: (given, count) => (count < 0 ? BAD_VALUE : characters(given).slice(0, Math.trunc(count)).join(''))
	}),
	text({
		name: 'RIGHT',
		parameters: CUT,
		result: 'text',
		doc: 'The last characters of the text, one where no number is given.',
		examples: [['RIGHT("NH-014"; 3)', '014']],
		canFail: true,
		evaluate: (given, count) => {
			if (count < 0) return BAD_VALUE
			const all = characters(given)
			return all.slice(Math.max(0, all.length - Math.trunc(count))).join('')
		}
	}),
	text({
		name: 'MID',
		parameters: [
			{ name: 'text', type: 'text' },
			{ name: 'from', type: 'number' },
			{ name: 'characters', type: 'number' }
		],
		result: 'text',
		doc: 'Some characters from the middle of the text.',
		examples: [['MID("NH-014"; 4; 3)', '014']],
		canFail: true,
		evaluate: (given, from, count) => {
			const start = Math.trunc(from) - 1
			if (start < 0 || count < 0) return BAD_VALUE
			return characters(given)
				.slice(start, start + Math.trunc(count))
				.join('')
		}
	}),
	text({
		name: 'UPPER',
		parameters: ONE_TEXT,
		result: 'text',
		doc: 'The text in capital letters.',
		examples: [['UPPER("trot")', 'TROT']],
		canFail: false,
		evaluate: (given) => given.toUpperCase()
	}),
	text({
		name: 'LOWER',
		parameters: ONE_TEXT,
		result: 'text',
		doc: 'The text in small letters.',
		examples: [['LOWER("Trot")', 'trot']],
		canFail: false,
		evaluate: (given) => given.toLowerCase()
	}),
	text({
		name: 'PROPER',
		parameters: ONE_TEXT,
		result: 'text',
		doc: 'Each run of letters with a capital first.',
		examples: [['PROPER("varrow quay")', 'Varrow Quay']],
		canFail: false,
		evaluate: (given) => given.toLowerCase().replace(/\p{L}[\p{L}\p{M}]*/gu, (word) => capitalised(word))
	}),
	text({
		name: 'TRIM',
		parameters: ONE_TEXT,
		result: 'text',
		doc: 'The text without spaces at its ends, and with one between words.',
		examples: [['TRIM("  Ness   Hythe ")', 'Ness Hythe']],
		canFail: false,
		evaluate: (given) => given.replace(/ +/g, ' ').replace(/^ | $/g, '')
	}),
	text({
		name: 'CLEAN',
		parameters: ONE_TEXT,
		result: 'text',
		doc: 'The text without characters that cannot be seen.',
		examples: [['CLEAN("a" & CHAR(7) & "b")', 'ab']],
		canFail: false,
		evaluate: (given) => given.replace(/\p{Cc}/gu, '')
	}),
	text({
		name: 'FIND',
		parameters: LOOK,
		result: 'number',
		doc: 'Where one text stands in another, regarding capitals; an error where it does not.',
		examples: [['FIND("b"; "abcb"; 3)', '4']],
		canFail: true,
		evaluate: (wanted, within, from) => {
			if (from < 1) return BAD_VALUE
			const all = characters(within)
			const start = all.slice(0, Math.trunc(from) - 1).join('').length
			const at = Math.trunc(from) - 1 > all.length ? -1 : within.indexOf(wanted, start)
			return at < 0 ? BAD_VALUE : positionOf(within, at)
		}
	}),
	text({
		name: 'SEARCH',
		parameters: LOOK,
		result: 'number',
		doc: 'Where one text stands in another, without regard to capitals. "?" is any character, "*" any number of them, "~" before either means itself.',
		examples: [['SEARCH("b?d"; "abcd")', '2']],
		canFail: true,
		evaluate: (wanted, within, from) => {
			const all = characters(within)
			const skipped = Math.trunc(from) - 1
			if (skipped < 0 || skipped > all.length) return BAD_VALUE
			const found = findPattern(all, wanted, skipped)
			return found === undefined ? BAD_VALUE : found + 1
		}
	}),
	text({
		name: 'SUBSTITUTE',
		parameters: [
			{ name: 'text', type: 'text' },
			{ name: 'old', type: 'text' },
			{ name: 'new', type: 'text' },
			{ name: 'which', type: 'number', otherwise: 0 }
		],
		result: 'text',
		doc: 'The text with one part replaced by another: everywhere, or only at its first, second … place.',
		examples: [['SUBSTITUTE("121212"; "2"; "ab"; 2)', '121ab12']],
		canFail: true,
		evaluate: (given, old, replacement, which) => {
			if (which < 0) return BAD_VALUE
			if (old === '') return given
			const parts = given.split(old)
			if (which === 0)
				return bounded(parts.length, given.length + parts.length * replacement.length, () => parts.join(replacement))
			const at = Math.trunc(which)
			if (at >= parts.length || at < 1) return given
			return parts.slice(0, at).join(old) + replacement + parts.slice(at).join(old)
		}
	}),
	text({
		name: 'REPLACE',
		parameters: [
			{ name: 'text', type: 'text' },
			{ name: 'from', type: 'number' },
			{ name: 'characters', type: 'number' },
			{ name: 'new', type: 'text' }
		],
		result: 'text',
		doc: 'The text with some characters at a place replaced.',
		examples: [['REPLACE("NH-014"; 1; 2; "VQ")', 'VQ-014']],
		canFail: true,
		evaluate: (given, from, count, replacement) => {
			const start = Math.trunc(from) - 1
			if (start < 0 || count < 0) return BAD_VALUE
			const all = characters(given)
			return all.slice(0, start).join('') + replacement + all.slice(start + Math.trunc(count)).join('')
		}
	}),
	text({
		name: 'REPT',
		parameters: [
			{ name: 'text', type: 'text' },
			{ name: 'times', type: 'number' }
		],
		result: 'text',
		doc: 'The text several times over.',
		examples: [['REPT("ab"; 3)', 'ababab']],
		canFail: true,
		evaluate: (given, times) => bounded(times, given.length * times, () => given.repeat(Math.trunc(times)))
	}),
	text({
		name: 'CONCATENATE',
		parameters: [{ name: 'texts', type: 'texts', rest: true }],
		result: 'text',
		doc: 'The texts one after the other, as "&" does.',
		examples: [['CONCATENATE("NH"; "-"; 14)', 'NH-14']],
		canFail: true,
		evaluate: (texts) => joined(texts, '')
	}),
	text({
		name: 'TEXTJOIN',
		parameters: [
			{ name: 'between', type: 'text' },
			{ name: 'leave out blanks', type: 'yesno' },
			{ name: 'texts', type: 'texts', rest: true }
		],
		result: 'text',
		doc: 'The texts one after the other, with something between them.',
		examples: [['TEXTJOIN("-"; TRUE; "a"; ""; "b")', 'a-b']],
		canFail: true,
		evaluate: (between, skip, texts) => joined(skip ? texts.filter((each) => each !== '') : texts, between)
	}),
	text({
		name: 'CHAR',
		parameters: [{ name: 'number', type: 'number' }],
		result: 'text',
		doc: 'The character with a number from 1 to 255.',
		examples: [['CHAR(65)', 'A']],
		canFail: true,
		evaluate: (number) => (number >= 1 && number < 256 ? String.fromCodePoint(Math.trunc(number)) : BAD_VALUE)
	}),
	text({
		name: 'UNICHAR',
		parameters: [{ name: 'number', type: 'number' }],
		result: 'text',
		doc: 'The character with a number of the Unicode standard.',
		examples: [['UNICHAR(8364)', '€']],
		canFail: true,
		evaluate: (number) => (isCharacter(Math.trunc(number)) ? String.fromCodePoint(Math.trunc(number)) : BAD_VALUE)
	}),
	text({
		name: 'CODE',
		parameters: ONE_TEXT,
		result: 'number',
		doc: 'The number of the first character.',
		examples: [['CODE("A")', '65']],
		canFail: true,
		evaluate: (given) => given.codePointAt(0) ?? BAD_VALUE
	}),
	text({
		name: 'UNICODE',
		parameters: ONE_TEXT,
		result: 'number',
		doc: 'The number of the first character in the Unicode standard.',
		examples: [['UNICODE("€")', '8364']],
		canFail: true,
		evaluate: (given) => given.codePointAt(0) ?? BAD_VALUE
	}),
	text({
		name: 'FIXED',
		parameters: [
			{ name: 'number', type: 'number' },
			{ name: 'places', type: 'number', otherwise: 2 },
			{ name: 'without commas', type: 'yesno', otherwise: false }
		],
		result: 'text',
		doc: 'A number as text with so many places, and with commas between thousands unless told not to.',
		examples: [['FIXED(1234.567; 1)', '1,234.6']],
		canFail: true,
		evaluate: (number, places, plain) =>
			Math.abs(places) > 100 ? BAD_VALUE : showGrouped(number, Math.trunc(places), plain ? '' : ',')
	})
]

function characters(given: string): string[] {
	return [...given]
}

function capitalised(word: string): string {
	const [first = '', ...rest] = characters(word)
	return first.toUpperCase() + rest.join('')
}

/** The position of a code unit as a person counts, from 1. */
function positionOf(given: string, index: number): number {
	return characters(given.slice(0, index)).length + 1
}

function bounded(count: number, length: number, make: () => string): Value {
	return count < 0 || !(length <= MAX_TEXT) ? BAD_VALUE : make()
}

function joined(texts: readonly string[], between: string): Value {
	const length = texts.reduce((all, each) => all + each.length + between.length, 0)
	return bounded(texts.length, length, () => texts.join(between))
}

function isCharacter(number: number): boolean {
	return number >= 1 && number <= 0x10ffff && !(number >= 0xd800 && number <= 0xdfff)
}
