/** A chart by days, as a year planner has them. */
import type { LineOf } from '$lib/core/app/lines/all.ts'
import { writeHeld } from '$lib/core/app/held-text.ts'
import { layOutDays } from '$lib/core/chart/days.ts'
import { nameOfPeriod } from '$lib/core/chart/periods.ts'
import { findColumn, type Table } from '$lib/core/model/table.ts'
import type { ShownDays } from '$lib/core/requests/shown-rows.ts'
import { nameKey } from '$lib/core/text/key.ts'
import type { Measures } from '../../rows/read-measures.ts'
import { filtersOf, type ToldBy } from '../../rows/groups-along.ts'
import { sayMeasure } from './say-measure.ts'
import type { View } from './view.ts'

const MOST_MONTHS = 12

export function drawDays(
	line: LineOf<'chart'>,
	by: ToldBy,
	{ groups, isCut }: Measures,
	{ table, view }: { readonly table: Table; readonly view: View }
): Pick<ShownDays, 'months' | 'depths' | 'more' | 'chosen'> {
	const say = sayMeasure(line, table, view)
	const column = findColumn(table, by.column)
	const values = new Map(groups.flatMap(({ keys: [key], value }) => (key ? [[key, value ?? 0] as const] : [])))
	const { months, depths } = layOutDays(values, MOST_MONTHS)
	const first = months[0]?.month ?? ''
	return {
		months: months.map(({ month, days }) => ({
			label: nameOfPeriod(month, 'months', true),
			days: days.map(({ day, value, depth, isMonday }) => ({
				...{ key: day, depth, isMonday, text: depth === 0 ? '' : say.bare(value) },
				says: `${nameOfPeriod(day, 'days', false)} ${day.slice(0, 4)}: ${depth === 0 ? 'none' : say(value)}`,
				filters: filtersOf({ key: day, label: day }, by, column)
			}))
		})),
		depths: depths.map(({ depth, upTo }) => ({ depth, text: say(upTo) })),
		more: isCut ? null : [...values].filter(([day, value]) => value !== 0 && day.slice(0, 7) < first).length,
		chosen: writeHeld(view.here.get(nameKey(line.holds))?.value ?? null)
	}
}
