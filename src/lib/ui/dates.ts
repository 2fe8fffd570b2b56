/** Instants as people read them, in the browser's own time zone, as the workspace writes dates. */
import { MONTHS, showDate, showTime as showClock } from '$lib/core/table/show-times.ts'
import { writingHere } from './writing.ts'

/** `at`: epoch ms. */
export function showMoment(at: number): string {
	const sameYear = new Date(at).getFullYear() === new Date().getFullYear()
	return `${sameYear ? dayAndMonth(new Date(at)) : showDay(at)} ${showTime(at)}`
}

/** `at`: epoch ms. */
export function showTime(at: number): string {
	const date = new Date(at)
	return showClock((date.getHours() * 60 + date.getMinutes()) / 1440, writingHere())
}

/** "today", "3 days ago": how long something has been waiting. */
export function showAge(at: number, now = Date.now()): string {
	const days = Math.floor((now - at) / 86_400_000)
	if (days <= 0) return 'today'
	return days === 1 ? '1 day' : `${days} days`
}

/** `at`: epoch ms. */
export function showDay(at: number): string {
	return showDate(todayHere(new Date(at)), writingHere())
}

/** Today where the browser is. */
export function todayHere(now = new Date()): string {
	const two = (part: number) => String(part).padStart(2, '0')
	return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`
}

/** @param month `2026-03` */
export function showMonth(month: string): string {
	const [year, number] = month.split('-')
	const name = MONTHS[Number(number) - 1]
	return name === undefined ? month : `${name} ${year}`
}

function dayAndMonth(date: Date): string {
	const { dates } = writingHere()
	const month = MONTHS[date.getMonth()]
	return dates === 'day first' ? `${date.getDate()} ${month}` : `${month} ${date.getDate()}`
}
