/** Totals over a set of numbers that the database has no function for. OpenFormula 6.18 (clause from memory). */
import { compensatedSum } from '../../number/arithmetic.ts'
import { BAD_NUMBER, BAD_VALUE, DIV_ZERO, NOT_AVAILABLE, type FunctionEntry, type Value } from '../../model/formula.ts'
import { family } from './define.ts'

const totals = family('totals')

const NUMBERS = [{ name: 'numbers', type: 'numbers', rest: true }] as const
const NUMBERS_AND = (name: string) =>
	[
		{ name: 'numbers', type: 'numbers' },
		{ name, type: 'number' }
	] as const

export const STATISTIC_FUNCTIONS: readonly FunctionEntry[] = [
	totals({
		name: 'PRODUCT',
		parameters: NUMBERS,
		result: 'number',
		doc: 'The numbers multiplied; 0 where there are none.',
		examples: [['PRODUCT(2; 3; 4)', '24']],
		canFail: true,
		evaluate: (numbers) => (numbers.length === 0 ? 0 : numbers.reduce((all, each) => all * each, 1))
	}),
	totals({
		name: 'SUMSQ',
		parameters: NUMBERS,
		result: 'number',
		doc: 'The sum of the squares.',
		examples: [['SUMSQ(3; 4)', '25']],
		canFail: true,
		evaluate: (numbers) => compensatedSum(numbers.map((each) => each * each))
	}),
	totals({
		name: 'MEDIAN',
		parameters: NUMBERS,
		result: 'number',
		doc: 'The number in the middle, or the mean of the two there. Blank where there are none.',
		examples: [['MEDIAN(1; 2; 3; 4)', '2.5']],
		canFail: false,
		evaluate: (numbers) => (numbers.length === 0 ? null : percentile(sorted(numbers), 0.5))
	}),
	totals({
		name: 'MODE',
		parameters: NUMBERS,
		result: 'number',
		doc: 'The number that stands there most often; an error where none stands there twice.',
		examples: [['MODE(1; 2; 2; 3)', '2']],
		canFail: true,
		evaluate: mode
	}),
	totals({
		name: 'VAR',
		parameters: NUMBERS,
		result: 'number',
		doc: 'The variance, the numbers being a sample.',
		examples: [['VAR(1; 2; 3)', '1']],
		canFail: true,
		evaluate: (numbers) => variance(numbers, 1)
	}),
	totals({
		name: 'VARP',
		parameters: NUMBERS,
		result: 'number',
		doc: 'The variance, the numbers being all there are.',
		examples: [['VARP(2; 4; 4; 4; 5; 5; 7; 9)', '4']],
		canFail: true,
		evaluate: (numbers) => variance(numbers, 0)
	}),
	totals({
		name: 'STDEV',
		parameters: NUMBERS,
		result: 'number',
		doc: 'The standard deviation, the numbers being a sample.',
		examples: [['STDEV(1; 2; 3)', '1']],
		canFail: true,
		evaluate: (numbers) => rootOf(variance(numbers, 1))
	}),
	totals({
		name: 'STDEVP',
		parameters: NUMBERS,
		result: 'number',
		doc: 'The standard deviation, the numbers being all there are.',
		examples: [['STDEVP(2; 4; 4; 4; 5; 5; 7; 9)', '2']],
		canFail: true,
		evaluate: (numbers) => rootOf(variance(numbers, 0))
	}),
	totals({
		name: 'LARGE',
		parameters: NUMBERS_AND('which'),
		result: 'number',
		doc: 'The largest number, the second largest …',
		examples: [['LARGE({3; 5; 1; 4}; 2)', '4']],
		canFail: true,
		evaluate: (numbers, which) => sorted(numbers)[numbers.length - Math.trunc(which)] ?? BAD_NUMBER
	}),
	totals({
		name: 'SMALL',
		parameters: NUMBERS_AND('which'),
		result: 'number',
		doc: 'The smallest number, the second smallest …',
		examples: [['SMALL({3; 5; 1; 4}; 2)', '3']],
		canFail: true,
		evaluate: (numbers, which) => sorted(numbers)[Math.trunc(which) - 1] ?? BAD_NUMBER
	}),
	totals({
		name: 'PERCENTILE',
		parameters: NUMBERS_AND('part'),
		result: 'number',
		doc: 'The number below which a part (0 to 1) of them lies.',
		examples: [['PERCENTILE({10; 20; 30; 40; 50}; 0.25)', '20']],
		canFail: true,
		evaluate: (numbers, part) =>
			numbers.length === 0 || part < 0 || part > 1 ? BAD_VALUE : percentile(sorted(numbers), part)
	}),
	totals({
		name: 'QUARTILE',
		parameters: NUMBERS_AND('quarter'),
		result: 'number',
		doc: 'The least (0), the first quarter (1), the middle (2), the third quarter (3) or the greatest (4).',
		examples: [['QUARTILE({1; 2; 3; 4; 5}; 1)', '2']],
		canFail: true,
		evaluate: (numbers, quarter) => {
			const which = Math.trunc(quarter)
			return numbers.length === 0 || which < 0 || which > 4 ? BAD_NUMBER : percentile(sorted(numbers), which / 4)
		}
	}),
	totals({
		name: 'RANK',
		parameters: [
			{ name: 'number', type: 'number' },
			{ name: 'numbers', type: 'numbers' },
			{ name: 'rising', type: 'yesno', otherwise: false }
		],
		result: 'number',
		doc: 'The place of a number among others, counted from the largest, or from the smallest if rising.',
		examples: [['RANK(30; {10; 20; 30; 40; 50})', '3']],
		canFail: true,
		evaluate: (number, numbers, rising) => {
			if (!numbers.includes(number)) return NOT_AVAILABLE
			return numbers.filter((each) => (rising ? each < number : each > number)).length + 1
		}
	})
]

function sorted(numbers: readonly number[]): readonly number[] {
	return [...numbers].sort((a, b) => a - b)
}

/** Between two numbers the value lies on the straight line from one to the other. */
function percentile(rising: readonly number[], part: number): number {
	const at = part * (rising.length - 1)
	const low = rising[Math.floor(at)] ?? 0
	const high = rising[Math.ceil(at)] ?? low
	return low + (high - low) * (at - Math.floor(at))
}

function mode(numbers: readonly number[]): Value {
	const counts = new Map<number, number>()
	for (const number of numbers) counts.set(number, (counts.get(number) ?? 0) + 1)
	let best: Value = NOT_AVAILABLE
	let most = 1
	for (const [number, count] of counts) {
		if (count <= most) continue
		best = number
		most = count
	}
	return best
}

/** @param lost 1 for a sample, 0 for the whole */
function variance(numbers: readonly number[], lost: 0 | 1): Value {
	if (numbers.length <= lost) return DIV_ZERO
	const mean = compensatedSum(numbers) / numbers.length
	return compensatedSum(numbers.map((each) => (each - mean) ** 2)) / (numbers.length - lost)
}

function rootOf(value: Value): Value {
	return typeof value === 'number' ? Math.sqrt(value) : value
}
