/**
 * How values of each type are written for people. Apart from how they are read and checked, so that pages which only show bring
 * no more of the types along than this.
 */
import { numberText } from '../number/arithmetic.ts'
import type { Plain } from '../model/formula.ts'
import type { Column, ColumnTypeName } from '../model/table.ts'
import { BRITISH, type Conventions } from '../model/writing.ts'
import { showDate, showDuration, showInstant, showTime } from './show-times.ts'

type Value = NonNullable<Plain>
/** As much of a column as showing asks for. */
type Shown = Pick<Column, 'type' | 'unit' | 'places' | 'timeZone' | 'writing'>

/** Those of every other type stand as they are kept. */
const SHOWN: Readonly<Partial<Record<ColumnTypeName, (value: Value, column: Shown) => string>>> = {
	'whole number': (value, { unit, writing }) => withUnit(showNumber(Number(value), { writing }), unit),
	decimal: (value, { unit, ...how }) => withUnit(showNumber(Number(value), how), unit),
	money: (value, { unit, writing }) => showMoney(Number(value), unit, writing),
	percent: (value, how) => `${showNumber(Number((Number(value) * 100).toPrecision(12)), how)} %`,
	'yes/no': (value) => showYesNo(value),
	date: (value, { writing }) => showDate(String(value), writing),
	'date and time': (value, { timeZone, writing }) => showInstant(String(value), timeZone, writing),
	time: (value, { writing }) => showTime(Number(value), writing),
	duration: (value) => showDuration(Number(value))
}

export function showValue(value: Value, column: Shown): string {
	return SHOWN[column.type]?.(value, column) ?? String(value)
}

export function showYesNo(value: Value): string {
	return value === true || value === 1 ? 'yes' : 'no'
}

/** An amount as it is read. The unit is the currency's sign, or its code with a space. */
export function showMoney(value: number, unit = '£', writing = BRITISH): string {
	const digits = showNumber(value, { places: 2, writing })
	if (writing.sign === 'after') return `${digits}\u00a0${unit}`
	const sign = unit.length > 1 ? `${unit} ` : unit
	return digits.startsWith('−') ? `−${sign}${digits.slice(1)}` : `${sign}${digits}`
}

interface HowFigures {
	/** Digits after the point; as many as there are, where nothing is said. */
	readonly places?: number | undefined
	readonly writing?: Conventions | undefined
}

/** Digits with signs between thousands. */
export function showNumber(value: number, { places, writing = BRITISH }: HowFigures = {}): string {
	const fixed = places === undefined ? numberText(Math.abs(value)) : Math.abs(value).toFixed(places)
	const [whole = '', decimals] = fixed.split('.')
	const { apart, decimal } = writing
	const shown = fixed.includes('E')
		? fixed.replace('.', decimal)
		: whole.replace(/\B(?=(\d{3})+$)/g, apart) + (decimals ? decimal + decimals : '')
	return value < 0 ? `−${shown}` : shown
}

/** A number as it is typed: no signs between thousands. */
export function figuresOf(value: number, writing = BRITISH): string {
	return numberText(value).replace('.', writing.decimal)
}

function withUnit(text: string, unit: string | undefined): string {
	return unit ? `${text} ${unit}` : text
}
