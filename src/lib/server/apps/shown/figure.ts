import type { LineOf } from '$lib/core/app/lines/all.ts'
import { findColumn } from '$lib/core/model/table.ts'
import { showDate } from '$lib/core/table/show-times.ts'
import { madeOf } from '$lib/core/query/measure.ts'
import { readPastValues } from '../../rows/read-past.ts'
import { readMeasures } from '../../rows/read-measures.ts'
import { rowsBehind } from '../behind.ts'
import { dayThen } from './as-it-was.ts'
import { workOutAlone } from '../work-out-alone.ts'
import { conditionsOf } from './list.ts'
import { sayMeasure } from './say-measure.ts'
import { tableOf, type ShownAs, type View } from './view.ts'

type FigureLine = LineOf<'figure'>
type MeasuredLine = LineOf<'figure' | 'chart'>

export const figure: ShownAs<FigureLine> = {
	holdsSomething: (line, view) => seesMeasured(line, view),
	show(line, view) {
		const table = tableOf(view, line.table)
		if (!table || !seesMeasured(line, view)) return []
		const found = measureRows(line, conditionsOf(line, view.here), view)
		const behind = found && rowsBehind(line, found.leftOut, view)
		if (!found || !behind) return []
		const say = sayMeasure(line, table, view)
		const { id, label } = line
		const against = [
			...againstAim(line, found.value, { say, view }),
			...againstOthers(line, found.value, { say, view }),
			...againstItself(line, found.value, { say, view })
		]
		return [{ id, kind: 'figure', label, value: found.value === null ? '–' : say(found.value), against, ...behind }]
	}
}

/** Whether this person may see some row of its table, and some of what it measures. */
export function seesMeasured({ table: number, measure }: MeasuredLine, view: View): boolean {
	const table = tableOf(view, number)
	const column = table && measure.column !== null ? findColumn(table, measure.column) : undefined
	return table !== undefined && view.standing.rights.mayPossibly('see', table, column)
}

interface Said {
	readonly say: (value: number) => string
	readonly view: View
}

interface Whole {
	readonly value: number | null
	readonly leftOut: number
}

function measureRows(
	{ table, measure }: FigureLine,
	where: readonly string[],
	{ store, request, here }: View
): Whole | null {
	const { actor, now } = request
	const found = readMeasures(store, { actor, now, measure, by: [], request: { table, where, here } })
	if (!found) return null
	const addsUp = measure.of === 'count' || measure.of === 'sum'
	return { value: found.groups[0]?.value ?? (addsUp ? 0 : null), leftOut: found.leftOut }
}

function againstAim({ aim }: FigureLine, value: number | null, { say, view }: Said) {
	if (aim.trim() === '' || value === null) return []
	const { value: wanted } = workOutAlone(view.store, aim, { standing: view.standing, here: view.here })
	if (typeof wanted !== 'number') return []
	const apart = Math.abs(value - wanted)
	const text = `the aim is ${say(wanted)}${apart === 0 ? '' : `, ${say(apart)} ${value < wanted ? 'short' : 'over'}`}`
	return [{ text, isGood: value >= wanted }]
}

/** How it stands to what it was on a past day. */
function againstItself(line: FigureLine, value: number | null, { say, view }: Said) {
	const { store, request, here } = view
	const place = { ...request, here }
	const day = dayThen(store, line.ago, place)
	if (day === undefined || value === null) return []
	const asked = { table: line.table, where: conditionsOf(line, here), here, day, column: line.measure.column }
	const found = readPastValues(store, request.actor, asked, request.now)
	const then = found && madeOf(line.measure.of, found.values)
	if (!found || then === null) return []
	const on = `on ${showDate(day, store.workspace().writing)}`
	const part = [...(found.kept > 0 ? [`${found.kept} kept back`] : []), ...(found.isCut ? ['of the first 20,000'] : [])]
	const apart = Math.abs(value - then)
	const text = apart === 0 ? `as it was ${on}` : `${say(apart)} ${moreOrLess(line, value - then)} than ${on}`
	return [{ text: part.length === 0 ? text : `${text} (${part.join(', ')})`, isGood: null }]
}

function againstOthers(line: FigureLine, value: number | null, { say, view }: Said) {
	if (line.than.trim() === '' || value === null) return []
	const others = measureRows(line, conditionsOf({ where: line.than, once: line.once }, view.here), view)?.value ?? null
	if (others === null) return []
	const apart = Math.abs(value - others)
	const isCount = line.measure.of === 'count'
	const text =
		apart === 0 ? `as many as ${line.called}` : `${say(apart)} ${moreOrLess(line, value - others)} than ${line.called}`
	return [{ text: isCount || apart > 0 ? text : `the same as ${line.called}`, isGood: null }]
}

/** What is counted is fewer, what is measured less. */
function moreOrLess({ measure }: FigureLine, apart: number): string {
	return apart > 0 ? 'more' : measure.of === 'count' ? 'fewer' : 'less'
}
