/** Functions that read numbers, dates and times out of text. OpenFormula 6.13 and 6.10 (clauses from memory). */
import { parseDate } from '../../table/kinds/date.ts'
import { TYPED } from '../../model/writing.ts'
import { readTime } from '../../table/read-time.ts'
import { BAD_VALUE, type FunctionEntry, type Value } from '../../model/formula.ts'
import { family } from './define.ts'

const dates = family('dates')
const text = family('text')

export const TIMEVALUE: FunctionEntry = dates({
	name: 'TIMEVALUE',
	parameters: [{ name: 'text', type: 'text' }],
	result: 'duration',
	doc: 'The time of day that stands in a text: 14:30, 2:30 PM.',
	examples: [['HOUR(TIMEVALUE("14:30"))', '14']],
	canFail: true,
	evaluate: (given) => readTime(given) ?? BAD_VALUE
})

export const READING_FUNCTIONS: readonly FunctionEntry[] = [
	text({
		name: 'VALUE',
		parameters: [{ name: 'text', type: 'text' }],
		result: 'number',
		doc: 'The number that stands in a text: 3.5, 1,234.5, 12%, 1E5. A time gives its part of a day.',
		examples: [['VALUE("1,234.5")', '1234.5']],
		canFail: true,
		evaluate: (given) => readNumber(given.trim()) ?? readTime(given) ?? BAD_VALUE
	}),
	text({
		name: 'NUMBERVALUE',
		parameters: [
			{ name: 'text', type: 'text' },
			{ name: 'decimal sign', type: 'text', otherwise: '.' },
			{ name: 'group sign', type: 'text', otherwise: ',' }
		],
		result: 'number',
		doc: 'The number in a text that is written with signs of its own.',
		examples: [['NUMBERVALUE("1.234,5"; ","; ".")', '1234.5']],
		canFail: true,
		evaluate: readWithSigns
	}),
	dates({
		name: 'DATEVALUE',
		parameters: [{ name: 'text', type: 'text' }],
		result: 'date',
		doc: 'The date that stands in a text: 2024-02-29, 29 Feb 2024, 29/02/2024.',
		examples: [['DATEVALUE("29 Feb 2024")', '2024-02-29']],
		canFail: true,
		evaluate: (given) => parseDate(given.trim(), TYPED) ?? BAD_VALUE
	}),
	TIMEVALUE
]

const PLAIN = /^[+-]?(\d+\.?\d*|\.\d+)([eE][+-]?\d+)?$/
const GROUPED = /^[+-]?\d{1,3}(,\d{3})+(\.\d*)?$/

function readNumber(given: string): number | undefined {
	if (given.endsWith('%')) {
		const whole = readNumber(given.slice(0, -1).trimEnd())
		return whole === undefined ? undefined : whole / 100
	}
	if (PLAIN.test(given)) return Number(given)
	return GROUPED.test(given) ? Number(given.replaceAll(',', '')) : undefined
}

function readWithSigns(given: string, decimal: string, group: string): Value {
	const point = [...decimal][0] ?? '.'
	const between = [...group][0] ?? ''
	if (point === between) return BAD_VALUE
	const percents = /%*$/.exec(given.trim())?.[0].length ?? 0
	const bare = given.replace(/\s/g, '').replace(/%+$/, '')
	if (bare === '') return given.trim() === '' ? 0 : BAD_VALUE
	const [whole = '', ...fractions] = bare.split(point)
	if (fractions.length > 1) return BAD_VALUE
	const written = [between === '' ? whole : whole.replaceAll(between, ''), ...fractions].join('.')
	return PLAIN.test(written) ? Number(written) / 100 ** percents : BAD_VALUE
}
