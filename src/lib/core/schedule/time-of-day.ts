/** A time of day in text, `17:00`, as minutes after midnight. */

const LIKE = /^(\d{1,2})[:.](\d{2})$/

/** Undefined for what is no time of day. */
export function minutesOf(text: string): number | undefined {
	const [, hour, minute] = LIKE.exec(text.trim()) ?? []
	const minutes = Number(hour) * 60 + Number(minute)
	return Number(hour) <= 23 && Number(minute) <= 59 ? minutes : undefined
}

/** As it is written everywhere: `08:05`. */
export function clockOf(minutes: number): string {
	return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`
}
