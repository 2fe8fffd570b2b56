/**
 * How values of each type are written for people. Apart from how they are read and checked, so that pages which only show bring
 * no more of the types along than this.
 */
import { numberText } from '../number/arithmetic.ts'
import type { Plain } from '../model/formula.ts'
import type { Column, ColumnTypeName } from '../model/table.ts'
import { showDate } from './kinds/date.ts'
import { showInstant } from './kinds/date-and-time.ts'
import { showDuration } from './kinds/duration.ts'
import { showTime } from './kinds/time.ts'

type Value = NonNullable<Plain>
/** As much of a column as showing asks for. */
type Shown = Pick<Column, 'type' | 'unit' | 'places' | 'timeZone'>

/** Those of every other type stand as they are kept. */
const SHOWN: Readonly<Partial<Record<ColumnTypeName, (value: Value, column: Shown) => string>>> = {
	'whole number': (value, { unit }) => withUnit(grouped(Number(value), undefined), unit),
	decimal: (value, { unit, places }) => withUnit(grouped(Number(value), places), unit),
	money: (value, { unit }) => showMoney(Number(value), unit),
	percent: (value, { places }) => `${grouped(Number((Number(value) * 100).toPrecision(12)), places)} %`,
	'yes/no': (value) => showYesNo(value),
	date: (value) => showDate(String(value)),
	'date and time': (value, { timeZone }) => showInstant(String(value), timeZone),
	time: (value) => showTime(Number(value)),
	duration: (value) => showDuration(Number(value))
}

export function showValue(value: Value, column: Shown): string {
	return SHOWN[column.type]?.(value, column) ?? String(value)
}

export function showYesNo(value: Value): string {
	return value === true || value === 1 ? 'yes' : 'no'
}

/** An amount as it is read. The unit is the currency's sign, or its code with a space, and stands before the digits. */
export function showMoney(value: number, unit = '£'): string {
	const digits = grouped(value, 2)
	const sign = unit.length > 1 ? `${unit} ` : unit
	return digits.startsWith('−') ? `−${sign}${digits.slice(1)}` : `${sign}${digits}`
}

function withUnit(text: string, unit: string | undefined): string {
	return unit ? `${text} ${unit}` : text
}

/** Digits with commas between thousands. @param places digits after the point; as many as there are, where it is undefined */
function grouped(value: number, places: number | undefined): string {
	const fixed = places === undefined ? numberText(Math.abs(value)) : Math.abs(value).toFixed(places)
	const [whole = '', decimals] = fixed.split('.')
	const digits = fixed.includes('E') ? fixed : whole.replace(/\B(?=(\d{3})+$)/g, ',') + (decimals ? `.${decimals}` : '')
	return value < 0 ? `−${digits}` : digits
}
