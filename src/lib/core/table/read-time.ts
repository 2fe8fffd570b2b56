/** `14:30`, `14:30:05`, `2:30 pm`, `2 p.m.` */
const TIME = /^(\d{1,2})(?::(\d{2})(?::(\d{2}(?:\.\d+)?))?)?\s*(?:([ap])\.?m\.?)?$/i

/** The part of a day that a time of day is; undefined where the text is none. */
export function readTime(given: string): number | undefined {
	const [, hours, minutes = '0', seconds = '0', half] = TIME.exec(given.trim()) ?? []
	if (hours === undefined || (half === undefined && !given.includes(':'))) return undefined
	const hour = half ? (Number(hours) % 12) + (half.toLowerCase() === 'p' ? 12 : 0) : Number(hours)
	if (hour > 23 || Number(minutes) > 59 || Number(seconds) >= 60 || (half && Number(hours) > 12)) return undefined
	return (hour * 3600 + Number(minutes) * 60 + Number(seconds)) / 86_400
}
