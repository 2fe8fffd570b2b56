/** A screen of fifteen lists on a million rows, in one snapshot, against its statements written by hand; and what is sent when one cell changed. */
import { signOfLine, signOfRow } from '../src/lib/core/requests/screen-signs.ts'
import type { ShownLine } from '../src/lib/core/requests/screens.ts'
import { allLines } from '../src/lib/core/app/lines/tree.ts'
import { APP_FORMAT, appSchema } from '../src/lib/core/app/document.ts'
import { COUNT_LIMIT } from '../src/lib/server/apps/shown/list.ts'
import { openScreen, readAgain } from '../src/lib/server/apps/open-screen.ts'
import { openMillion } from './page.ts'
import { paired } from './timing.ts'

const RUNS = 60
const LISTS = 15
const NOW = Date.parse('2026-11-23T12:00:00Z')
const MOORINGS = 3

export interface ScreenFigures {
	/** In ms, medians: the whole screen, and its statements by hand. */
	readonly ours: number
	readonly byHand: number
	/** In ms: the lines read again after one cell changed. */
	readonly again: number
	/** In bytes: the whole screen, and what is sent of it after one cell changed. */
	readonly whole: number
	readonly sent: number
}

export function measureScreen(): ScreenFigures {
	const store = openMillion()
	const lines = Array.from({ length: LISTS }, (_each, i) => ({
		...{
			id: `list-${i}`,
			kind: 'list' as const,
			table: MOORINGS,
			where: `depth > ${i / 2} and depth <= ${(i + 1) / 2}`
		},
		...{ sort: [{ column: 22, descending: false }], columns: [20, 21, 22, 23], opens: null }
	}))
	const document = appSchema.parse({
		...{ format: APP_FORMAT, name: 'Fifteen', about: '', colour: 'sea', routines: [], signoffs: [] },
		screens: [{ id: 's', title: 'S', lines }]
	})
	const place = { app: 1, draft: true, document, actor: { person: 2 }, now: NOW }
	const list = 'r.n, r.rev, r.c20, r.c21, (SELECT h.c10 FROM t2 h WHERE h.n = r.c21), r.c22, r.c23'
	const byHand = lines.flatMap((_line, i) => {
		const where = `r.c21 = 1 AND r.c23 > ${i * 5} AND r.c23 <= ${i * 5 + 5}`
		return [
			`SELECT ${list} FROM t3 r WHERE ${where} AND r.c22 IS NOT NULL ORDER BY r.c22, r.n LIMIT 51`,
			`SELECT count(*) FROM (SELECT 1 FROM t3 r WHERE ${where} LIMIT ${COUNT_LIMIT})`
		].map((text) => store.db.prepare(text).raw())
	})
	const pair = paired(
		() => openScreen(store, place),
		() => byHand.forEach((statement) => statement.all()),
		RUNS
	)
	const shown = openScreen(store, place)
	const all = allLines<ShownLine>(shown.screen?.lines ?? [])
	const asked = {
		...{ ...place, screen: 's', tables: [MOORINGS], release: null },
		known: Object.fromEntries(all.map((line) => [line.id, signOfLine(line)])),
		lists: Object.fromEntries(
			all.flatMap((line) =>
				line.kind === 'list'
					? [[line.id, { narrowing: line.narrowing, rows: line.page.rows.map((row): [string, string] => [row.id, signOfRow(row)]) }]] // prettier-ignore
					: []
			)
		)
	}
	const [first] = all
	// One that stays in its list.
	const row = first?.kind === 'list' ? first.page.rows.find(({ cells }) => Number(cells['c23']) < 0.5) : undefined
	const n = store.ids.fromId(MOORINGS, row?.id ?? '')
	store.db.prepare('UPDATE t3 SET c23 = c23 + 1, rev = rev + 1 WHERE n = ?').run(n)
	const started = performance.now()
	const again = readAgain(store, asked)
	const took = performance.now() - started
	const figures = { ...pair, again: took, whole: JSON.stringify(shown).length, sent: JSON.stringify(again).length }
	store.db.close()
	return figures
}
