/** Rounding. OpenFormula 6.17 (clause from memory). Half goes away from nought, by the digits as they are written. */
import { roundHalfAway, shiftPoint, significant } from '../../number/arithmetic.ts'
import { BAD_VALUE, DIV_ZERO, type FunctionEntry, type Value } from '../../model/formula.ts'
import { family } from './define.ts'

const numbers = family('numbers')

const TO_PLACES = [
	{ name: 'number', type: 'number' },
	{ name: 'places', type: 'number', otherwise: 0 }
] as const

const TO_STEP = [
	{ name: 'number', type: 'number' },
	{ name: 'step', type: 'number', otherwise: 1 }
] as const

export const ROUNDING_FUNCTIONS: readonly FunctionEntry[] = [
	numbers({
		name: 'ROUND',
		parameters: TO_PLACES,
		result: 'number',
		doc: 'Rounded to so many places; half goes away from nought. Negative places round tens, hundreds and so on.',
		examples: [
			['ROUND(2.5)', '3'],
			['ROUND(1250; -2)', '1300']
		],
		canFail: true,
		evaluate: (number, places) => toPlaces(number, places, Math.round)
	}),
	numbers({
		name: 'ROUNDUP',
		parameters: TO_PLACES,
		result: 'number',
		doc: 'Rounded away from nought to so many places.',
		examples: [['ROUNDUP(2.1)', '3']],
		canFail: true,
		evaluate: (number, places) => toPlaces(number, places, Math.ceil)
	}),
	numbers({
		name: 'ROUNDDOWN',
		parameters: TO_PLACES,
		result: 'number',
		doc: 'Rounded towards nought to so many places.',
		examples: [['ROUNDDOWN(2.9)', '2']],
		canFail: true,
		evaluate: (number, places) => toPlaces(number, places, Math.floor)
	}),
	numbers({
		name: 'TRUNC',
		parameters: TO_PLACES,
		result: 'number',
		doc: 'Cut off after so many places.',
		examples: [['TRUNC(-2.789; 1)', '-2.7']],
		canFail: true,
		evaluate: (number, places) => toPlaces(number, places, Math.floor)
	}),
	numbers({
		name: 'INT',
		parameters: [{ name: 'number', type: 'number' }],
		result: 'number',
		doc: 'The whole number at or below.',
		examples: [['INT(-2.5)', '-3']],
		canFail: false,
		evaluate: (number) => Math.floor(number)
	}),
	numbers({
		name: 'CEILING',
		parameters: TO_STEP,
		result: 'number',
		doc: 'The next multiple of the step at or above; 0 where the step is 0.',
		examples: [['CEILING(2.1; 0.5)', '2.5']],
		canFail: true,
		evaluate: (number, step) => (step === 0 ? 0 : toStep(number, step, Math.ceil))
	}),
	numbers({
		name: 'FLOOR',
		parameters: TO_STEP,
		result: 'number',
		doc: 'The next multiple of the step at or below; 0 where the step is 0.',
		examples: [['FLOOR(2.9; 0.5)', '2.5']],
		canFail: true,
		evaluate: (number, step) => (step === 0 ? 0 : toStep(number, step, Math.floor))
	}),
	numbers({
		name: 'MROUND',
		parameters: [
			{ name: 'number', type: 'number' },
			{ name: 'step', type: 'number' }
		],
		result: 'number',
		doc: 'The nearest multiple of the step; half goes away from nought.',
		examples: [['MROUND(1.3; 0.2)', '1.4']],
		canFail: true,
		evaluate: (number, step) => toStep(number, step, roundHalfAway)
	}),
	numbers({
		name: 'EVEN',
		parameters: [{ name: 'number', type: 'number' }],
		result: 'number',
		doc: 'The next even number away from nought.',
		examples: [['EVEN(1.5)', '2']],
		canFail: true,
		evaluate: (number) => Math.sign(number) * 2 * Math.ceil(Math.abs(number) / 2) + 0
	}),
	numbers({
		name: 'ODD',
		parameters: [{ name: 'number', type: 'number' }],
		result: 'number',
		doc: 'The next odd number away from nought.',
		examples: [['ODD(1.5)', '3']],
		canFail: true,
		evaluate: (number) => (number < 0 ? -1 : 1) * (2 * Math.ceil((Math.abs(number) - 1) / 2) + 1)
	})
]

function toPlaces(number: number, places: number, round: (number: number) => number): Value {
	const by = Math.trunc(places)
	if (by >= 0 && Number.isInteger(number)) return number
	if (Math.abs(by) > 300) return by > 0 ? number : 0
	const rounded = shiftPoint(round(shiftPoint(Math.abs(number), by)), -by)
	return Number.isFinite(rounded) ? Math.sign(number) * rounded + 0 : BAD_VALUE
}

/** 0.3 / 0.1 is 2.9999999999999996 in binary: the quotient is taken by its 15 digits, as a person would. */
function toStep(number: number, step: number, round: (number: number) => number): Value {
	const width = Math.abs(step)
	if (width === 0) return number === 0 ? 0 : DIV_ZERO
	return significant(round(significant(number / width)) * width) + 0
}
