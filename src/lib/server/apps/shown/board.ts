import { MOST_LANES } from '$lib/core/app/lines/board.ts'
import type { LineOf } from '$lib/core/app/lines/all.ts'
import type { Column, Table } from '$lib/core/model/table.ts'
import { cellKey, type WireRow } from '$lib/core/query/wire.ts'
import type { ShownLane } from '$lib/core/requests/shown-rows.ts'
import { readMeasures, type Measures } from '../../rows/read-measures.ts'
import { readRows } from '../../rows/read.ts'
import { sayMeasure } from './say-measure.ts'
import { conditionsOf } from './list.ts'
import { marksOf, marksShown, opensFor, seenColumn, seenColumns } from './rows-of-line.ts'
import { tableOf, type ShownAs, type View } from './view.ts'

type BoardLine = LineOf<'board'>

/** More cards than this nobody looks through in one lane; how many there are is said. */
const MOST_CARDS = 40

export const board: ShownAs<BoardLine> = {
	holdsSomething: (line, view) => lanesBy(line, view) !== undefined,
	show(line, view) {
		const found = lanesBy(line, view)
		if (!found) return []
		const { table, by } = found
		const count = measureLanes(line, { of: 'count', column: null }, view)
		const sums = line.sums === null ? null : measureLanes(line, { of: 'sum', column: line.sums }, view)
		const sum = { of: 'sum' as const, column: line.sums }
		const say = sayMeasure({ measure: sum }, table, view)
		const lanes = [...(by.choices ?? []).slice(0, MOST_LANES), null].map((value): ShownLane => {
			const of = (measures: Measures | null) => measures?.groups.find(({ keys }) => keys[0] === value)
			const rows = cardsIn(line, value, view)
			const added = of(sums)?.value ?? null
			return {
				value: value ?? '',
				count: of(count)?.value ?? 0,
				sum: sums === null || added === null ? '' : say(added),
				rows
			}
		})
		return [
			{
				...{ id: line.id, kind: 'board', title: table.name, by: by.name, opens: opensFor(line, view) },
				columns: seenColumns(line.columns, table, view),
				marks: marksShown(line),
				// Where nothing is left blank, there is no lane for it.
				lanes: lanes.filter(({ value, count: cards }) => value !== '' || cards > 0),
				canMove: view.standing.rights.mayPossibly('change', table, by)
			}
		]
	}
}

/** The table and the choice whose lanes these are, for who sees both. */
function lanesBy({ table: number, by: id }: BoardLine, view: View): { table: Table; by: Column } | undefined {
	const table = tableOf(view, number)
	const by = table && seenColumn(id, table, view)
	return table && by && { table, by }
}

function cardsIn(line: BoardLine, lane: string | null, { store, request, here }: View): readonly WireRow[] {
	const [sort, ...then] = line.sort
	const { actor, now } = request
	const is = lane === null ? ('blank' as const) : ('equal' as const)
	const asked = {
		...{
			table: line.table,
			columns: [...line.columns, line.by],
			where: conditionsOf(line, here),
			here,
			limit: MOST_CARDS
		},
		filters: [{ column: line.by, is, text: lane ?? '' }],
		flags: marksOf(line).map(({ where }) => where),
		...(sort ? { sort, then } : {})
	}
	const { rows } = readRows(store, actor, asked, now)
	// One whose lane is kept back stands in none; a condition alone reads it as blank.
	return rows.filter(({ cells }) => lane !== null || cells[cellKey(line.by)] === null)
}

function measureLanes(
	line: BoardLine,
	measure: Parameters<typeof readMeasures>[1]['measure'],
	{ store, request, here }: View
): Measures | null {
	const { actor, now } = request
	const asked = { table: line.table, where: conditionsOf(line, here), here }
	return readMeasures(store, { actor, now, measure, by: [{ column: line.by, step: null }], request: asked })
}
