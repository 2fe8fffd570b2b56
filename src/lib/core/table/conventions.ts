/** The conventions of a region, as the Unicode CLDR has them: dates, times of day, figures and money. */
import { BRITISH, type Conventions } from '../model/writing.ts'

/** Regions to choose from, by BCP 47 tag. Words stay English; figures are grouped by threes in each of these. */
export const LOCALES = [
	...['en-GB', 'en-IE', 'en-US', 'en-CA', 'en-AU', 'en-NZ', 'en-ZA'],
	...[
		'da-DK',
		'de-AT',
		'de-CH',
		'de-DE',
		'es-ES',
		'fi-FI',
		'fr-FR',
		'it-IT',
		'nb-NO',
		'nl-NL',
		'pl-PL',
		'pt-PT',
		'sv-SE'
	]
] as const

export type Locale = (typeof LOCALES)[number]

export function conventionsOf(locale: Locale = 'en-GB'): Conventions {
	if (locale === 'en-GB') return BRITISH
	const number = partsOf(new Intl.NumberFormat(locale, { minimumFractionDigits: 1 }), 1234567.5)
	const money = new Intl.NumberFormat(locale, { style: 'currency', currency: 'EUR' }).formatToParts(1)
	const date = new Intl.DateTimeFormat(locale, {
		...{ day: '2-digit', month: '2-digit', year: 'numeric', timeZone: 'UTC' }
	}).formatToParts(0)
	const clock = new Intl.DateTimeFormat(locale, { hour: 'numeric' }).resolvedOptions().hour12 ? 12 : 24
	const first = date.find(({ type }) => type !== 'literal')?.type
	return {
		dates: first === 'month' ? 'month first' : first === 'year' ? 'year first' : 'day first',
		decimal: number.get('decimal') === ',' ? ',' : '.',
		apart: number.get('group') ?? ',',
		between: (date.find(({ type }) => type === 'literal')?.value ?? '/').trim(),
		clock,
		sign: money[0]?.type === 'currency' ? 'before' : 'after'
	}
}

function partsOf(format: Intl.NumberFormat, value: number): Map<string, string> {
	return new Map(format.formatToParts(value).map((part) => [part.type, part.value]))
}
