/** The text of a typed value in a spreadsheet cell, such as a reader of texts takes for what it is: `£820`, `12.5%`, `2026-03-02 16:30`. */
import { numberText, shiftPoint } from '../number/arithmetic.ts'
import { showDuration } from '../table/show-times.ts'
import { showTime } from '../table/show-times.ts'
import type { CellFormat } from './number-format.ts'

const DAY = 86_400
/** Spreadsheets count days from here (ECMA-376-1, 18.17.4.1, as office programs do it). */
const DAY_NOUGHT = Date.UTC(1899, 11, 30) / 1000
/** The last day of the year 9999. */
const LAST_DAY = 2_958_465
/** A clock that has run for longer shows a date by its time alone. */
const MOST_CLOCK_DAYS = 3_653

/** @param value as the file keeps it: dates as days since 30 December 1899, times and spans as parts of a day, shares as such */
export function numberCellText(value: number, format: CellFormat): string {
	switch (format.kind) {
		case 'number':
			return withPlaces(value, format.places ?? 0)
		case 'padded':
			return Number.isInteger(value) && value >= 0 ? String(value).padStart(format.digits, '0') : numberText(value)
		case 'percent':
			return `${numberText(shiftPoint(value, 2))}%`
		case 'money':
			return moneyText(value, format.sign)
		case 'date':
			return dateText(value)
		case 'clock':
			return clockText(value)
		case 'span':
			return showDuration(value)
	}
}

/** The noughts that are shown say that the column holds decimals, even where all its values are whole. */
function withPlaces(value: number, places: number): string {
	const text = numberText(value)
	const has = text.split('.')[1]?.length ?? 0
	return has >= places || text.includes('E') ? text : value.toFixed(places)
}

function moneyText(value: number, sign: string): string {
	const digits = withPlaces(Math.abs(value), 2)
	return `${value < 0 ? '-' : ''}${sign.length === 1 ? `${sign}${digits}` : `${sign} ${digits}`}`
}

/** As a clock on the wall shows it: a spreadsheet knows no time zones. To the second, since it keeps parts of a day. */
function dateText(days: number): string {
	if (days < 0 || days > LAST_DAY + 1) return numberText(days)
	const seconds = Math.round(days * DAY)
	// Day nought: a time of day in a cell that is made for dates.
	if (seconds < DAY && seconds > 0) return showTime(seconds / DAY)
	const [day = '', clock = ''] = new Date((DAY_NOUGHT + seconds) * 1000).toISOString().slice(0, 19).split('T')
	return clock === '00:00:00' ? day : `${day} ${clock}`
}

function clockText(days: number): string {
	if (days >= 0 && days < 1) return Math.round(days * DAY) === DAY ? '00:00' : showTime(days)
	return days < MOST_CLOCK_DAYS ? showDuration(days) : dateText(days)
}
