/** The public holidays of a country, or of a part of one, to be looked at before they are kept. */
import Holidays from 'date-holidays'
import { AppError } from '$lib/core/app-error.ts'
import { findNearest } from '$lib/core/text/nearest.ts'
import type { Holiday } from '$lib/core/workspace/holidays.ts'

interface Region {
	readonly country: string
	readonly state: string | undefined
	readonly name: string
}

/** `region`: as it is called in English, such as England or Portugal; of each year from the first on. */
export function holidaysByRegion(region: string, years: readonly number[]): readonly Holiday[] {
	const wanted = region.trim().toLowerCase()
	if (wanted === '') throw new AppError('invalid', 'Say of which country, or of which part of one, such as England.')
	const found = REGIONS.find(({ name }) => name.toLowerCase() === wanted)
	if (!found) {
		const near = findNearest(region.trim(), REGIONS.map(({ name }) => name)) // prettier-ignore
		throw new AppError('invalid', `No country, and no part of one, is known as ${region.trim()}.${near === undefined ? '' : ` Did you mean ${near}?`}`) // prettier-ignore
	}
	const days = found.state === undefined ? new Holidays(found.country) : new Holidays(found.country, found.state)
	return years.flatMap((year) =>
		days
			.getHolidays(year, 'en')
			.filter(({ type }) => type === 'public')
			.map(({ date, name }) => ({ day: date.slice(0, 10), name: name.slice(0, 80) }))
	)
}

/** Countries before parts of them that are called the same. */
const REGIONS: readonly Region[] = readRegions()

function readRegions(): Region[] {
	const all = new Holidays()
	const countries = Object.entries(all.getCountries('en'))
	const parts = countries.flatMap(([country]) =>
		Object.entries(all.getStates(country, 'en') ?? {}).map(([state, name]): Region => ({ country, state, name }))
	)
	return [...countries.map(([country, name]): Region => ({ country, state: undefined, name })), ...parts]
}
