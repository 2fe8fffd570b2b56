/** Instants as people read them, in the browser's own time zone. */
const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' })
const DAY_YEAR = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })
const TIME = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' })

/** `at`: epoch ms. */
export function showMoment(at: number): string {
	const date = new Date(at)
	const sameYear = date.getFullYear() === new Date().getFullYear()
	return `${(sameYear ? DAY : DAY_YEAR).format(date)} ${TIME.format(date)}`
}

/** `at`: epoch ms. */
export function showTime(at: number): string {
	return TIME.format(new Date(at))
}

/** "today", "3 days ago": how long something has been waiting. */
export function showAge(at: number, now = Date.now()): string {
	const days = Math.floor((now - at) / 86_400_000)
	if (days <= 0) return 'today'
	return days === 1 ? '1 day' : `${days} days`
}

/** `at`: epoch ms. */
export function showDay(at: number): string {
	return DAY_YEAR.format(new Date(at))
}

/** As a date is typed and shown in an entry, whatever the browser's own language: `28/11/2026`; anything else as it stands. */
export function entryDate(text: string): string {
	const [, year, month, day] = /^(\d{4})-(\d{2})-(\d{2})$/.exec(text) ?? []
	return year === undefined ? text : `${day}/${month}/${year}`
}

/** Today where the browser is. */
export function todayHere(now = new Date()): string {
	const two = (part: number) => String(part).padStart(2, '0')
	return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`
}

const MONTH = new Intl.DateTimeFormat('en-GB', { month: 'short', year: 'numeric', timeZone: 'UTC' })

/** @param month `2026-03` */
export function showMonth(month: string): string {
	const at = Date.parse(`${month}-01T00:00:00Z`)
	return Number.isNaN(at) ? month : MONTH.format(at)
}
