/** What a clock on the wall shows at an instant, in a time zone of the IANA database. */

/** The date, as ISO 8601. @param instant ISO 8601 in UTC */
export function localDate(instant: string, zone: string): string {
	const { year = '', month = '', day = '' } = partsAt(instant, zone)
	return `${year.padStart(4, '0')}-${month}-${day}`
}

/** The time of day, as a part of a day. @param instant ISO 8601 in UTC */
export function localTime(instant: string, zone: string): number {
	const { hour, minute, second } = partsAt(instant, zone)
	return (Number(hour) * 3600 + Number(minute) * 60 + Number(second)) / 86_400
}

// Making a formatter takes a hundred times as long as using one.
const formatters = new Map<string, Intl.DateTimeFormat>()

function partsAt(instant: string, zone: string): Partial<Record<Intl.DateTimeFormatPartTypes, string>> {
	const formatter = formatters.get(zone) ?? makeFormatter(zone)
	formatters.set(zone, formatter)
	return Object.fromEntries(formatter.formatToParts(Date.parse(instant)).map(({ type, value }) => [type, value]))
}

function makeFormatter(zone: string): Intl.DateTimeFormat {
	return new Intl.DateTimeFormat('en-GB', {
		timeZone: zone,
		hourCycle: 'h23',
		year: 'numeric',
		month: '2-digit',
		day: '2-digit',
		hour: '2-digit',
		minute: '2-digit',
		second: '2-digit'
	})
}
