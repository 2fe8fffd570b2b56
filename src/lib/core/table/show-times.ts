/** How dates, times of day and spans of time are written for people. */
import { BRITISH, type Conventions } from '../model/writing.ts'
import { localDate, localTime } from '../schedule/zone.ts'

export const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'] as const

const DAY_SECONDS = 86_400

/** An ISO date as people read it: `3 Apr 2026`, `Apr 3, 2026`, or as it is where the year stands first. */
export function showDate(iso: string, { dates }: Conventions = BRITISH): string {
	const [year, month, day] = iso.split('-')
	if (dates === 'year first') return iso
	const name = MONTHS[Number(month) - 1] ?? month
	return dates === 'month first' ? `${name} ${Number(day)}, ${year}` : `${Number(day)} ${name} ${year}`
}

/** An ISO date in figures, as it is typed: `28/11/2026`. */
export function figuresOfDate(iso: string, { dates, between }: Conventions = BRITISH): string {
	const [year = '', month = '', day = ''] = iso.split('-')
	return inOrder({ year, month, day }, dates).join(between)
}

/** What stands in an empty entry: `dd/mm/yyyy`. */
export function patternOfDate({ dates, between }: Conventions = BRITISH): string {
	return inOrder({ year: 'yyyy', month: 'mm', day: 'dd' }, dates).join(between)
}

/** An instant as the clock of a zone shows it: `3 Apr 2026 14:30`. */
export function showInstant(instant: string, zone = 'UTC', writing: Conventions = BRITISH): string {
	return `${showDate(localDate(instant, zone), writing)} ${showTimeOf(instant, zone, writing)}`
}

/** Its time of day alone, to the minute. */
export function showTimeOf(instant: string, zone = 'UTC', writing: Conventions = BRITISH): string {
	return showTime(Math.floor(localTime(instant, zone) * 1440 + 1e-6) / 1440, writing)
}

/** As it is typed in: `2026-11-23T14:05`, with seconds where there are any. */
export function typeInstant(instant: string, zone = 'UTC'): string {
	return `${localDate(instant, zone)}T${clockTime(Math.round(localTime(instant, zone) * DAY_SECONDS))}`
}

/** `14:30`, or `2:30 pm`; with seconds only where there are some. @param value a part of a day */
export function showTime(value: number, { clock }: Conventions = BRITISH): string {
	const all = Math.round(value * DAY_SECONDS)
	if (clock === 24) return clockTime(all)
	const hour = Math.floor(all / 3600)
	const rest = clockTime(all).slice(2)
	return `${hour % 12 === 0 ? 12 : hour % 12}${rest} ${hour < 12 ? 'am' : 'pm'}`
}

/** `2 d 3 h 15 min`; a span of nothing is `0 min`. @param days may be negative */
export function showDuration(days: number): string {
	const all = Math.round(Math.abs(days) * DAY_SECONDS)
	const parts = [
		[Math.floor(all / DAY_SECONDS), 'd'],
		[Math.floor(all / 3600) % 24, 'h'],
		[Math.floor(all / 60) % 60, 'min'],
		[all % 60, 's']
	] as const
	const shown = parts.filter(([count]) => count > 0).map(([count, unit]) => `${count} ${unit}`)
	return `${days < 0 && all > 0 ? '−' : ''}${shown.join(' ') || '0 min'}`
}

/** @param all seconds since midnight */
function clockTime(all: number): string {
	const parts = [Math.floor(all / 3600), Math.floor(all / 60) % 60, ...(all % 60 === 0 ? [] : [all % 60])]
	return parts.map((part) => String(part).padStart(2, '0')).join(':')
}

function inOrder(
	{ year, month, day }: { readonly year: string; readonly month: string; readonly day: string },
	dates: Conventions['dates']
): readonly string[] {
	if (dates === 'year first') return [year, month, day]
	return dates === 'month first' ? [month, day, year] : [day, month, year]
}
