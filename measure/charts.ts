/** Charts over a million rows: measures by two groups under access lines, against hand-written SQL with the same masks. */
import { readMeasures } from '../src/lib/server/rows/read-measures.ts'
import { openMillion } from './page.ts'
import { paired } from './timing.ts'

const RUNS = 7
const NOW = Date.parse('2026-11-23T12:00:00Z')
const MOORINGS = 3
const [HARBOUR, DUE, DEPTH] = [21, 22, 23]

export interface ChartCase {
	readonly name: string
	/** In ms, medians. */
	readonly ours: number
	readonly byHand: number
}

export function measureCharts(): ChartCase[] {
	const store = openMillion()
	const months = { column: DUE, step: 'months' as const }
	const harbours = { column: HARBOUR, step: null }
	const cases = [
		{
			name: 'the count by month and harbour, every row',
			...{ person: 4, of: 'count' as const, column: null, by: [months, harbours] },
			sql: `SELECT substr(c22, 1, 7) AS m, c21, count(*) FROM t3 GROUP BY m, c21`
		},
		{
			name: 'the sum of depth by month, own harbour (a quarter of the rows)',
			...{ person: 2, of: 'sum' as const, column: DEPTH, by: [months] },
			sql: `SELECT substr(c22, 1, 7) AS m, total(c23 / 10.0) FROM t3 WHERE c21 = 1 GROUP BY m`
		},
		{
			name: 'the mean of depth by month and harbour, own harbour or overdue',
			...{ person: 3, of: 'mean' as const, column: DEPTH, by: [months, harbours] },
			sql: `SELECT substr(c22, 1, 7) AS m, c21, avg(c23 / 10.0) FROM t3 WHERE c21 = 2 OR c22 < '2026-11-23' GROUP BY m, c21`
		}
	].map(({ name, person, of, column, by, sql }) => {
		const byHand = store.db.prepare(sql).raw()
		const asked = { actor: { person }, now: NOW, measure: { of, column }, by, request: { table: MOORINGS } }
		const pair = paired(
			() => readMeasures(store, asked),
			() => byHand.all(),
			RUNS
		)
		return { name, ...pair }
	})
	store.db.close()
	return cases
}
