/** Made-up values, so that a builder sees what lines will look like while a table is empty yet. */
import type { WireCell } from '$lib/core/query/wire.ts'
import type { ShownColumn } from '$lib/core/requests/shown-column.ts'

/** How many sample rows there are. */
export const SAMPLES = 3

const DAY_MS = 86_400_000

/** Of each type one for each sample row, where its values say something; `day`: today, as ISO. */
export function sampleCell(column: ShownColumn, row: number, day: string): WireCell {
	const { name, type, shows, choices = [] } = column
	const numbers = [12, 4, 27]
	const dates = [3, 10, -2].map((days) => dayAfter(day, days))
	const pick = (values: readonly WireCell[]) => values[row % values.length] ?? null
	switch (type === 'computed' ? (shows ?? 'text') : type) {
		case 'whole number':
		case 'number':
			return pick(numbers)
		case 'decimal':
			return pick([3.5, 8, 12.25])
		case 'money':
			return pick([120, 45.5, 9.9])
		case 'percent':
			return pick([0.25, 0.5, 0.125])
		case 'yes/no':
		case 'yesno':
			return pick([true, false, true])
		case 'date':
			return pick(dates)
		case 'date and time':
		case 'datetime':
			return pick(dates.map((date) => `${date}T09:30:00.000Z`))
		case 'time':
			return pick([0.375, 0.5, 0.625])
		case 'duration':
			return pick([1 / 24, 0.5, 2])
		case 'choice':
			return choices.length === 0 ? null : pick(choices)
		case 'several choices':
			return choices.slice(0, 1 + (row % 2)).join('; ') || null
		case 'reference':
			return { id: `sample ${row}`, label: `${name} ${row + 1}` }
		case 'email':
			return 'imke.dahl@varrow.example'
		case 'phone':
			return '+44 20 7946 0000'
		case 'web address':
			return 'https://tides.example'
		case 'place':
			return pick(['50.3121, -4.1102', '50.3140, -4.1050', '50.3155, -4.0998'])
		case 'long text':
			return 'A few words about it, as somebody would write them.'
		case 'photo':
		case 'file':
		case 'ink':
		case 'signature':
			return null
		default:
			return `${name} ${row + 1}`
	}
}

function dayAfter(day: string, days: number): string {
	return new Date(Date.parse(`${day}T00:00:00Z`) + days * DAY_MS).toISOString().slice(0, 10)
}
