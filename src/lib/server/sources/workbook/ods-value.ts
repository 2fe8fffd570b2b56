/** The text of a cell of an OpenDocument spreadsheet (ODF 1.3, part 3, 19.385 to 19.391). */
import { numberCellText } from '$lib/core/exchange/cell-text.ts'
import type { CellFormat } from '$lib/core/exchange/number-format.ts'
import { signOf } from '$lib/core/table/kinds/currency.ts'
import { parseDuration } from '$lib/core/table/kinds/duration.ts'
import type { Tag } from './xml.ts'

/** @param shown what stands in the cell's paragraphs; `format`: what its style says */
export function odsCellText(attributes: Tag['attributes'], shown: string, format: CellFormat): string {
	const number = Number(attributes['office:value'])
	switch (attributes['office:value-type']) {
		case 'float':
			return Number.isFinite(number) ? numberCellText(number, format) : shown
		case 'percentage':
			return Number.isFinite(number) ? numberCellText(number, { kind: 'percent' }) : shown
		case 'currency': {
			const sign = signOf(attributes['office:currency'] ?? '')
			return numberCellText(number, sign === '' ? format : { kind: 'money', sign })
		}
		case 'date':
			return dateText(attributes['office:date-value'] ?? '')
		case 'time':
			return timeText(attributes['office:time-value'] ?? '', format)
		case 'boolean':
			return attributes['office:boolean-value'] ?? shown
		default:
			return shown === '' ? (attributes['office:string-value'] ?? '') : shown
	}
}

const DATE = /^(-?\d{4,}-\d\d-\d\d)(?:T(.+?))?Z?$/
const DAY_SECONDS = 86_400
/** The day that a time of day in a cell for dates falls on. */
const NO_DAY = '1899-12-30'

/** To the second: office programs keep parts of a day, and write 16:29:59.9999 for half past four. */
function dateText(value: string): string {
	const [, day, clock] = DATE.exec(value) ?? []
	if (day === undefined) return value
	if (clock === undefined) return day
	const instant = Date.parse(`${day}T${clock.slice(0, 12)}Z`)
	if (Number.isNaN(instant)) return value
	const [date = '', time = ''] = new Date(Math.round(instant / 1000) * 1000).toISOString().slice(0, 19).split('T')
	if (time === '00:00:00') return date
	return day === NO_DAY ? time.replace(/:00$/, '') : `${date} ${time}`
}

/** @param value a duration of ISO 8601, such as `PT26H30M00.000S`; hours may run past a day */
function timeText(value: string, format: CellFormat): string {
	const [part = ''] = /[.,]\d+(?=S$)/.exec(value) ?? []
	const whole = parseDuration(value.replace(part, ''))
	if (whole === undefined) return value
	const rest = Number(part.replace(',', '.')) / DAY_SECONDS
	const days = value.startsWith('-') ? whole - rest : whole + rest
	return numberCellText(days, format.kind === 'span' ? format : { kind: 'clock' })
}
