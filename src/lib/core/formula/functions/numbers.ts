/** Functions on numbers. OpenFormula 6.16 and 6.17 (clauses from memory). */
import { sql } from '../../sql/sql.ts'
import { power } from '../../number/arithmetic.ts'
import { BAD_NUMBER, BAD_VALUE, DIV_ZERO, type FunctionEntry, type Value } from '../../model/formula.ts'
import { family } from './define.ts'

const numbers = family('numbers')

/** Past this, a factorial is no number. */
const MAX_FACTORIAL = 170

export const NUMBER_FUNCTIONS: readonly FunctionEntry[] = [
	numbers({
		name: 'ABS',
		parameters: [{ name: 'number', type: 'number' }],
		result: 'number',
		doc: 'The number without its sign.',
		examples: [['ABS(-4)', '4']],
		canFail: false,
		evaluate: (number) => Math.abs(number),
		sql: (number) => sql`abs(${number})`
	}),
	numbers({
		name: 'SIGN',
		parameters: [{ name: 'number', type: 'number' }],
		result: 'number',
		doc: '1, 0 or -1, as the number is above, at or below nought.',
		examples: [['SIGN(-3)', '-1']],
		canFail: false,
		evaluate: (number) => Math.sign(number),
		sql: (number) => sql`CAST(sign(${number}) AS REAL)`
	}),
	numbers({
		name: 'MOD',
		parameters: [
			{ name: 'number', type: 'number' },
			{ name: 'divisor', type: 'number' }
		],
		result: 'number',
		doc: 'What is left after dividing, with the sign of the divisor.',
		examples: [
			['MOD(7; 3)', '1'],
			['MOD(-7; 3)', '2']
		],
		canFail: true,
		evaluate: (number, divisor) => (divisor === 0 ? DIV_ZERO : remainder(number, divisor))
	}),
	numbers({
		name: 'QUOTIENT',
		parameters: [
			{ name: 'number', type: 'number' },
			{ name: 'divisor', type: 'number' }
		],
		result: 'number',
		doc: 'How many whole times the divisor goes into the number.',
		examples: [['QUOTIENT(7; 2)', '3']],
		canFail: true,
		evaluate: (number, divisor) => (divisor === 0 ? DIV_ZERO : Math.trunc(number / divisor))
	}),
	numbers({
		name: 'POWER',
		parameters: [
			{ name: 'base', type: 'number' },
			{ name: 'exponent', type: 'number' }
		],
		result: 'number',
		doc: 'The base to the exponent, as `base ^ exponent`.',
		examples: [['POWER(2; 10)', '1024']],
		canFail: true,
		evaluate: (base, exponent) => power(base, exponent) ?? BAD_NUMBER
	}),
	numbers({
		name: 'SQRT',
		parameters: [{ name: 'number', type: 'number' }],
		result: 'number',
		doc: 'The square root.',
		examples: [['SQRT(16)', '4']],
		canFail: true,
		evaluate: (number) => (number < 0 ? BAD_NUMBER : Math.sqrt(number))
	}),
	numbers({
		name: 'EXP',
		parameters: [{ name: 'number', type: 'number' }],
		result: 'number',
		doc: 'e to the number.',
		examples: [['EXP(0)', '1']],
		canFail: true,
		evaluate: (number) => Math.exp(number)
	}),
	numbers({
		name: 'LN',
		parameters: [{ name: 'number', type: 'number' }],
		result: 'number',
		doc: 'The natural logarithm.',
		examples: [['LN(EXP(2))', '2']],
		canFail: true,
		evaluate: (number) => (number <= 0 ? BAD_NUMBER : Math.log(number))
	}),
	numbers({
		name: 'LOG',
		parameters: [
			{ name: 'number', type: 'number' },
			{ name: 'base', type: 'number', otherwise: 10 }
		],
		result: 'number',
		doc: 'The logarithm to a base, to 10 where none is given.',
		examples: [['LOG(8; 2)', '3']],
		canFail: true,
		evaluate: logarithm
	}),
	numbers({
		name: 'LOG10',
		parameters: [{ name: 'number', type: 'number' }],
		result: 'number',
		doc: 'The logarithm to base 10.',
		examples: [['LOG10(1000)', '3']],
		canFail: true,
		evaluate: (number) => logarithm(number, 10)
	}),
	numbers({
		name: 'FACT',
		parameters: [{ name: 'number', type: 'number' }],
		result: 'number',
		doc: 'The factorial: 1 × 2 × … up to the number.',
		examples: [['FACT(5)', '120']],
		canFail: true,
		evaluate: (number) => {
			const whole = Math.trunc(number)
			return whole < 0 || whole > MAX_FACTORIAL ? BAD_NUMBER : productOf(1, whole)
		}
	}),
	numbers({
		name: 'COMBIN',
		parameters: [
			{ name: 'things', type: 'number' },
			{ name: 'chosen', type: 'number' }
		],
		result: 'number',
		doc: 'In how many ways some things can be chosen, without regard to order.',
		examples: [['COMBIN(5; 2)', '10']],
		canFail: true,
		evaluate: combinations
	}),
	numbers({
		name: 'GCD',
		parameters: [{ name: 'numbers', type: 'numbers', rest: true }],
		result: 'number',
		doc: 'The greatest number that divides them all.',
		examples: [['GCD(12; 18)', '6']],
		canFail: true,
		evaluate: (given) => overWholes(given, (all) => all.reduce(greatestDivisor, 0))
	}),
	numbers({
		name: 'LCM',
		parameters: [{ name: 'numbers', type: 'numbers', rest: true }],
		result: 'number',
		doc: 'The least number that they all divide.',
		examples: [['LCM(4; 6)', '12']],
		canFail: true,
		evaluate: (given) =>
			overWholes(given, (all) => all.reduce((a, b) => (a === 0 || b === 0 ? 0 : (a / greatestDivisor(a, b)) * b), 1))
	}),
	numbers({
		name: 'PI',
		parameters: [],
		result: 'number',
		doc: 'The ratio of a circle’s round to its width.',
		examples: [['PI()', '3.14159265358979']],
		canFail: false,
		evaluate: () => Math.PI
	}),
	numbers({
		name: 'SIN',
		parameters: [{ name: 'angle', type: 'number' }],
		result: 'number',
		doc: 'The sine of an angle in radians.',
		examples: [['SIN(0)', '0']],
		canFail: true,
		evaluate: (angle) => Math.sin(angle)
	}),
	numbers({
		name: 'COS',
		parameters: [{ name: 'angle', type: 'number' }],
		result: 'number',
		doc: 'The cosine of an angle in radians.',
		examples: [['COS(0)', '1']],
		canFail: true,
		evaluate: (angle) => Math.cos(angle)
	}),
	numbers({
		name: 'TAN',
		parameters: [{ name: 'angle', type: 'number' }],
		result: 'number',
		doc: 'The tangent of an angle in radians.',
		examples: [['TAN(0)', '0']],
		canFail: true,
		evaluate: (angle) => Math.tan(angle)
	}),
	numbers({
		name: 'ATAN2',
		parameters: [
			{ name: 'x', type: 'number' },
			{ name: 'y', type: 'number' }
		],
		result: 'number',
		doc: 'The angle, in radians, of the point (x; y).',
		examples: [['DEGREES(ATAN2(1; 1))', '45']],
		canFail: true,
		evaluate: (x, y) => (x === 0 && y === 0 ? DIV_ZERO : Math.atan2(y, x))
	}),
	numbers({
		name: 'DEGREES',
		parameters: [{ name: 'radians', type: 'number' }],
		result: 'number',
		doc: 'An angle in degrees.',
		examples: [['DEGREES(PI())', '180']],
		canFail: true,
		evaluate: (radians) => (radians * 180) / Math.PI
	}),
	numbers({
		name: 'RADIANS',
		parameters: [{ name: 'degrees', type: 'number' }],
		result: 'number',
		doc: 'An angle in radians.',
		examples: [['RADIANS(180)', '3.14159265358979']],
		canFail: true,
		evaluate: (degrees) => (degrees * Math.PI) / 180
	}),
	numbers({
		name: 'ISEVEN',
		parameters: [{ name: 'number', type: 'number' }],
		result: 'yesno',
		doc: 'Whether the whole part of the number is even.',
		examples: [['ISEVEN(4)', 'yes']],
		canFail: false,
		evaluate: (number) => Math.trunc(number) % 2 === 0
	}),
	numbers({
		name: 'ISODD',
		parameters: [{ name: 'number', type: 'number' }],
		result: 'yesno',
		doc: 'Whether the whole part of the number is odd.',
		examples: [['ISODD(4)', 'no']],
		canFail: false,
		evaluate: (number) => Math.trunc(number) % 2 !== 0
	})
]

/** Exact where the remainder of the processor is; the plain `a - b * floor(a / b)` loses digits with large numbers. */
function remainder(number: number, divisor: number): number {
	const rest = number % divisor
	const other = rest !== 0 && rest < 0 !== divisor < 0 ? rest + divisor : rest
	return other + 0
}

function logarithm(number: number, base: number): Value {
	if (number <= 0 || base <= 0) return BAD_NUMBER
	if (base === 1) return DIV_ZERO
	if (base === 10) return Math.log10(number)
	return base === 2 ? Math.log2(number) : Math.log(number) / Math.log(base)
}

function productOf(from: number, to: number): number {
	let product = 1
	for (let i = from; i <= to; i++) product *= i
	return product
}

function combinations(things: number, chosen: number): Value {
	const n = Math.trunc(things)
	const k = Math.min(Math.trunc(chosen), n - Math.trunc(chosen))
	if (n < 0 || chosen < 0 || k < 0) return BAD_NUMBER
	if (k > 100_000) return BAD_VALUE
	let ways = 1
	for (let i = 1; i <= k; i++) ways = (ways * (n - k + i)) / i
	return Math.round(ways)
}

/** Fractions are cut off; a negative number has no place here. */
function overWholes(given: readonly number[], use: (wholes: readonly number[]) => number): Value {
	const wholes = given.map(Math.trunc)
	return wholes.length === 0 || wholes.some((each) => each < 0) ? BAD_NUMBER : use(wholes)
}

function greatestDivisor(a: number, b: number): number {
	while (b !== 0) [a, b] = [b, a % b]
	return a
}
