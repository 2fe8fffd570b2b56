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

const MONTH = new Intl.DateTimeFormat('en-GB', { month: 'short', year: 'numeric', timeZone: 'UTC' })

/** @param month `2026-03` */
export function showMonth(month: string): string {
	const at = Date.parse(`${month}-01T00:00:00Z`)
	return Number.isNaN(at) ? month : MONTH.format(at)
}
