/**
 * A base for types that are numbers: reading digits as people write them, without guessing.
 */
import { roundHalfAway } from '../../number/arithmetic.ts'
import { scaleOf } from '../storage.ts'
import type { Column, ColumnTypeName } from '../../model/table.ts'
import { read, refuse, type ColumnKind, type Reading } from './kind.ts'
import { TYPED, type Writing } from '../../model/writing.ts'

interface NumberRules {
	readonly name: ColumnTypeName
	/** Signs that may stand before or after the digits. */
	readonly strip?: RegExp
	/** The divisor that such a sign stands for, as with percents. */
	readonly per?: number
	readonly check?: (value: number, column: Column) => string | undefined
}

/** Larger magnitudes are kept out, so that sums and products cannot run past what a number holds. */
const MOST = 1e100

export function numberKind(rules: NumberRules): ColumnKind {
	const take = (value: number, column: Column): Reading => {
		if (!Number.isFinite(value) || Math.abs(value) > MOST) return refuse('This number is too large to keep.')
		const complaint = rules.check?.(value, column)
		if (complaint !== undefined) return refuse(complaint)
		const scale = scaleOf(column)
		const scaled = toScaled(value, scale)
		if (scale > 1 && !Number.isSafeInteger(scaled)) return refuse('This number is too large to keep to the last digit.')
		return read(scale > 1 ? scaled / scale : value)
	}
	return {
		name: rules.name,
		read: (text, column, writing) => {
			const plain = rules.strip ? text.replace(rules.strip, '').trim() : text
			const value = parseNumber(plain, writing)
			if (value === undefined) return refuse(noNumber(text, writing))
			return take(rules.per !== undefined && text.includes('%') ? value / rules.per : value, column)
		},
		check: (value, column) => {
			if (typeof value === 'string') return numberKind(rules).read(value.trim(), column, TYPED)
			return typeof value === 'number' ? take(value, column) : refuse('A number was expected here.')
		},
		toStored: (value, column) => {
			const scale = scaleOf(column)
			return scale > 1 ? toScaled(Number(value), scale) : Number(value)
		},
		fromStored: (stored, column) => Number(stored) / scaleOf(column)
	}
}

function noNumber(text: string, { decimal }: Writing): string {
	const sign = decimal === ',' ? 'a comma' : 'a dot'
	return `"${text}" is no number. Write digits, with ${sign} before decimals: 1${decimal}4.`
}

interface Pattern {
	readonly plain: RegExp
	readonly apart: RegExp
}

/** What a number looks like, by its decimal sign; made once, since every cell of a file is held against it. */
const PATTERNS: Readonly<Record<Writing['decimal'], Pattern>> = {
	'.': patternOf("[,'’\u00a0\u202f ]", '\\.'),
	',': patternOf("[.'’\u00a0\u202f ]", ',')
}

function patternOf(apart: string, point: string): Pattern {
	return {
		plain: new RegExp(`^[+-]?(?:\\d+|\\d{1,3}(?:${apart}\\d{3})+)?(?:${point}\\d*)?(?:[eE][+-]?\\d+)?$`),
		apart: new RegExp(apart, 'g')
	}
}

const DIGITS_ONLY = /^-?\d{1,15}(?:\.\d{1,12})?$/

/** Reads plain digits, digits with thousands apart, and signs before or brackets round them; otherwise undefined. */
export function parseNumber(text: string, writing: Writing): number | undefined {
	if (writing.decimal === '.' && DIGITS_ONLY.test(text)) return Number(text)
	const bracketed = /^\((.*)\)$/.exec(text)
	const body = (bracketed?.[1] ?? text).replace(/^[−–]/, '-').trim()
	const { plain, apart } = PATTERNS[writing.decimal]
	if (!plain.test(body) || !/\d/.test(body)) return undefined
	const value = Number(body.replace(apart, '').replace(',', '.'))
	return bracketed ? -value : value
}

/** Up to here a step of a double is so much smaller than a half that the correction below turns no whole number. */
const MOST_CORRECTED = 2 ** 40

/**
 * A number in units of its last place, rounded half away from zero. `1.005 * 100` is a little less than 100.5 in binary: the
 * correction undoes that where numbers are small, and the digits are moved as written where they are not. A whole number is
 * multiplied and no more.
 */
export function toScaled(value: number, scale: number): number {
	if (scale === 1) return roundHalfAway(value)
	const product = Math.abs(value) * scale
	if (Number.isInteger(value)) return value * scale
	const near =
		product < MOST_CORRECTED ? product * (1 + Number.EPSILON) : Number(`${Math.abs(value)}e${Math.log10(scale)}`)
	return Math.sign(value) * Math.round(near)
}
